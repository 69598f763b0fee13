import { FILE_FORMATS } from '#formats/file';
import { writeMorrinBook } from '#formats/json';
import { ALL_FILE_KINDS, FILE_KINDS } from '#formats/kinds';
import { readTunes } from './readInput';
import { InputError, UsageError } from './usage';

/** `convert FILE --to abc|musicxml|midi|json`; MIDI is no text and goes to a file. */
export function convert(
  file: string,
  asked: string | undefined,
  wanted: string | undefined,
  out: string | undefined,
  leftOut: string[],
): string | Uint8Array {
  const to = ALL_FILE_KINDS.find((kind) => kind === asked);
  if (!to) throw new UsageError(`--to: expected abc, musicxml, midi or json, got ${asked ?? 'nothing'}`);
  if (to === 'midi' && out === undefined) throw new UsageError('--out: expected the name of a .mid file to write');
  const tunes = readTunes(file, wanted, leftOut);
  const { write } = FILE_FORMATS[to];
  const { label, holds } = FILE_KINDS[to];
  if (to === 'json' && tunes.length > 1) return writeMorrinBook(tunes.map(({ tune }) => tune));
  if (holds === 'many')
    return tunes.map(({ tune, reference }, i) => write(tune, { number: reference || String(i + 1) })).join('\n');
  if (tunes.length > 1)
    throw new InputError(
      `${file}:1:1: holds ${tunes.length} tunes and a ${label} file holds one: choose with --tune ${tunes[0]!.reference}`,
    );
  return write(tunes[0]!.tune, {});
}
