import { type ReportOptions, reportTune, type TuneReport } from '#core/report';
import { readTunes } from './readInput';
import { InputError, UsageError } from './usage';

/** The one tune of a file that is played, checked. */
export function oneTune(
  file: string,
  wanted: string | undefined,
  options: ReportOptions,
  leftOut: string[],
): TuneReport {
  const tunes = readTunes(file, wanted, leftOut);
  if (tunes.length > 1)
    throw new UsageError(`--tune: expected which of the tunes X:${tunes.map(({ reference }) => reference).join(', ')}`);
  const report = reportTune(tunes[0]!.tune, options);
  if (report.unrolled.notes.length === 0) throw new InputError(`${file}:1:1: the tune has no notes to be heard`);
  return report;
}

/** Notes of some bars, counted as played through the whole tune; a pickup belongs to the bar before it, the first one is 0. */
export function spanOfBars(
  { unrolled }: TuneReport,
  from: number | undefined,
  to: number | undefined,
): { from: number; to: number } | null {
  if (from === undefined && to === undefined) return null;
  const [first, last] = [from ?? 0, to ?? Infinity];
  let count = 0;
  const numbers = unrolled.bars.map(({ isPickup }) => (isPickup ? count : ++count));
  const numberOf = new Map(unrolled.bars.map(({ passIndex, bar }, i) => [`${passIndex} ${bar}`, numbers[i]!]));
  const inside = unrolled.notes.map(({ passIndex, bar }) => {
    const number = numberOf.get(`${passIndex} ${bar}`)!;
    return number >= first && number <= last;
  });
  const begin = inside.indexOf(true);
  if (begin < 0 || first > last)
    throw new UsageError(
      `--from --to: expected bars from 0 to ${count}, the first before the last, got ${first} to ${last}`,
    );
  return { from: begin, to: inside.lastIndexOf(true) + 1 };
}
