import { writeAbc } from '#formats/abc';
import { reportTune } from '#core/report';
import { writeMorrinBook, writeMorrinJson } from '#formats/json';
import { writeMidi } from '#formats/midi';
import { writeMusicXml } from '#formats/musicxml';
import { readTunes } from './readInput';
import { InputError, UsageError } from './usage';

const FORMATS = ['abc', 'musicxml', 'midi', 'json'] as const;

/** `convert FILE --to abc|musicxml|midi|json`; MIDI is no text and goes to a file. */
export function convert(
  file: string,
  asked: string | undefined,
  wanted: string | undefined,
  out: string | undefined,
  leftOut: string[],
): string | Uint8Array {
  const to = FORMATS.find((format) => format === asked);
  if (!to) throw new UsageError(`--to: expected abc, musicxml, midi or json, got ${asked ?? 'nothing'}`);
  if (to === 'midi' && out === undefined) throw new UsageError('--out: expected the name of a .mid file to write');
  const tunes = readTunes(file, wanted, leftOut);
  if (to === 'abc') return tunes.map(({ tune, reference }, i) => writeAbc(tune, reference || String(i + 1))).join('\n');
  if (to === 'json')
    return tunes.length === 1 ? writeMorrinJson(tunes[0]!.tune) : writeMorrinBook(tunes.map(({ tune }) => tune));
  if (tunes.length > 1)
    throw new InputError(
      `${file}:1:1: holds ${tunes.length} tunes and a ${to === 'midi' ? 'MIDI' : 'MusicXML'} file holds one: choose with --tune ${tunes[0]!.reference}`,
    );
  return to === 'midi' ? writeMidi(reportTune(tunes[0]!.tune)) : writeMusicXml(tunes[0]!.tune);
}
