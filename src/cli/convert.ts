import { writeAbc } from '#formats/abc';
import { writeMorrinJson } from '#formats/json';
import { readTunes } from './readInput';
import { InputError, UsageError } from './usage';

/** `convert FILE --to abc|json`. */
export function convert(file: string, to: string | undefined, wanted: string | undefined): string {
  if (to !== 'abc' && to !== 'json') throw new UsageError(`--to: expected abc or json, got ${to ?? 'nothing'}`);
  const tunes = readTunes(file, wanted);
  if (to === 'abc') return tunes.map(({ tune, reference }, i) => writeAbc(tune, reference || String(i + 1))).join('\n');
  if (tunes.length > 1)
    throw new InputError(
      `${file}:1:1: holds ${tunes.length} tunes and a plan holds one: choose with --tune ${tunes[0]!.reference}`,
    );
  return writeMorrinJson(tunes[0]!.tune);
}
