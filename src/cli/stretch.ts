import { REFERENCE_PITCH } from '#core/pitch';
import { type ReportOptions, reportTune, type TuneReport } from '#core/report';
import { numberOption, readTunes } from './readInput';
import { liltNamed } from './report';
import { InputError, UsageError } from './usage';

/** What is played of a file, and how: flags of the commands about takes. */
export interface StretchFlags {
  readonly tune?: string;
  readonly tempo?: string;
  readonly lilt?: string;
  readonly from?: string;
  readonly to?: string;
  readonly loops?: string;
  readonly pitch?: string;
}

/** A checked plan, the bars of it that are played (null: all), how often, and the pitch of A4. */
export interface Stretch {
  readonly report: TuneReport;
  readonly span: { readonly from: number; readonly to: number } | null;
  readonly loops: number;
  readonly a4: number;
}

export function stretchOf(file: string, flags: StretchFlags, leftOut: string[]): Stretch {
  const bpm = numberOption('tempo', flags.tempo, 1, 1000);
  const a4 = numberOption('pitch', flags.pitch, REFERENCE_PITCH.min, REFERENCE_PITCH.max) ?? REFERENCE_PITCH.usual;
  const lilt = flags.lilt === undefined ? undefined : liltNamed(flags.lilt);
  const report = oneTune(file, flags.tune, { bpm, lilt }, leftOut);
  const span = spanOfBars(report, numberOption('from', flags.from, 0, 1e6), numberOption('to', flags.to, 0, 1e6));
  return { report, span, loops: numberOption('loops', flags.loops, 1, 100) ?? 1, a4 };
}

/** The one tune of a file that is played, checked. */
function oneTune(file: string, wanted: string | undefined, options: ReportOptions, leftOut: string[]): TuneReport {
  const tunes = readTunes(file, wanted, leftOut);
  if (tunes.length > 1)
    throw new UsageError(`--tune: expected which of the tunes X:${tunes.map(({ reference }) => reference).join(', ')}`);
  const report = reportTune(tunes[0]!.tune, options);
  if (report.unrolled.notes.length === 0) throw new InputError(`${file}:1:1: the tune has no notes to be heard`);
  return report;
}

/** Notes of some bars, counted as played through the whole tune; a pickup belongs to the bar before it, the first one is 0. */
function spanOfBars(
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
