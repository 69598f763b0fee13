import { writeAbc } from '#formats/abc';
import { reportTune } from '#core/report';
import { writeMorrinJson } from '#formats/json';
import { writeMidi } from '#formats/midi';
import { readTunes } from './readInput';
import { InputError, UsageError } from './usage';

/** `convert FILE --to abc|json|midi`; MIDI is no text and goes to a file. */
export function convert(
  file: string,
  to: string | undefined,
  wanted: string | undefined,
  out: string | undefined,
): string | Uint8Array {
  if (to !== 'abc' && to !== 'json' && to !== 'midi')
    throw new UsageError(`--to: expected abc, json or midi, got ${to ?? 'nothing'}`);
  if (to === 'midi' && out === undefined) throw new UsageError('--out: expected the name of a .mid file to write');
  const tunes = readTunes(file, wanted);
  if (to === 'abc') return tunes.map(({ tune, reference }, i) => writeAbc(tune, reference || String(i + 1))).join('\n');
  if (tunes.length > 1)
    throw new InputError(
      `${file}:1:1: holds ${tunes.length} tunes and a ${to === 'midi' ? 'MIDI file' : 'plan'} holds one: choose with --tune ${tunes[0]!.reference}`,
    );
  return to === 'midi' ? writeMidi(reportTune(tunes[0]!.tune)) : writeMorrinJson(tunes[0]!.tune);
}
