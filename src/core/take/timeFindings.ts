import { findingAt, type TakeFinding } from './finding';
import type { HeardNote } from './hear';
import { median } from './measure';
import type { TakeScene } from './scene';
import { lineThrough } from './tempoCurve';

/** A stretch is rushed when it is quicker for so long, seconds. */
const STRETCH = { seconds: 2.4, notes: 9 } as const;
const LEAST_NOTES = 6;
/** Holds and silences of at least so many seconds are judged. */
const HOLD: number = 0.4;
const SILENCE: number = 0.1;
/** Half of an 80 % interval of a stretch's tempo, at so many seconds a per cent, and of a single beginning, ms. */
const TEMPO_PERCENT = 1.2;
const BEGINNING_MS = 14;
const NOTES_BEFORE = 8;

/** Rushing and dragging, late entries, holds and silences cut short. */
export function timeFindings(scene: TakeScene): TakeFinding[] {
  return [...entryFindings(scene), ...holdFindings(scene), ...tempoFindings(scene)];
}

/** A length so far from the plan's is a break and no tempo: seconds, and share. */
const BREAK = { seconds: 0.06, share: 0.2 } as const;

/** The notes as if no hold, silence or added note among them had been longer or shorter than planned. */
function withoutBreaks(run: readonly HeardNote[], paceAt: (one: HeardNote) => number): HeardNote[] {
  const planned = run.map((one, i) => (i > 0 ? (one.note.at - run[i - 1]!.note.at) * (paceAt(run[i - 1]!) || 1) : 0));
  const offs = run.map((one, i) => (i > 0 ? one.onset - run[i - 1]!.onset - planned[i]! : 0));
  let shift = 0;
  return run.map((one, i) => {
    const off = offs[i]!;
    const isFar = Math.abs(off) > Math.max(BREAK.seconds, BREAK.share * planned[i]!);
    // A note out of its place, before one that is in its own, moves nothing.
    const isAlone =
      Math.abs(off + (offs[i + 1] ?? 0)) < Math.abs(off) / 2 || Math.abs(off + (offs[i - 1] ?? 0)) < Math.abs(off) / 2;
    if (isFar && !isAlone) shift += off;
    return { ...one, onset: one.onset - shift };
  });
}

/** Stretches that are quicker or slower than the take, each told once, where it is worst. */
function tempoFindings({ heard, pace, thresholds }: TakeScene): TakeFinding[] {
  const runs = runsOf(heard.notes).map((run) => withoutBreaks(run, (one) => pace[heard.notes.indexOf(one)]!));
  const all = runs.flatMap((run) =>
    run.map((one) => ({ x: one.note.at, y: one.onset - run[0]!.onset + run[0]!.note.at })),
  );
  if (all.length < 2 * LEAST_NOTES) return [];
  const slopes: { one: HeardNote; notes: number[]; percent: number; from: number; to: number; count: number }[] = [];
  for (const run of runs)
    for (let i = 0; i < run.length; i++) {
      const stretch = run
        .slice(i)
        .filter((one, k) => k < STRETCH.notes || one.note.at <= run[i]!.note.at + STRETCH.seconds);
      if (
        stretch.length < LEAST_NOTES ||
        stretch[stretch.length - 1]!.note.at < run[i]!.note.at + 0.7 * STRETCH.seconds
      )
        continue;
      const slope = robustSlope(stretch);
      slopes.push({
        one: run[i]!,
        notes: stretch.map(({ note }) => note.index),
        percent: slope,
        from: run[i]!.note.at,
        to: stretch[stretch.length - 1]!.note.at,
        count: stretch.length,
      });
    }
  if (slopes.length === 0) return [];
  const usual = usualTempo(slopes.map(({ from, percent }) => ({ x: from, y: percent })));
  const off = slopes
    .map((stretch) => ({ ...stretch, percent: 100 * (stretch.percent / usual(stretch.from) - 1) }))
    .sort((a, b) => Math.abs(b.percent) - Math.abs(a.percent));
  const told: { from: number; to: number; finding: TakeFinding }[] = [];
  for (const { one, notes, percent, from, to, count } of off) {
    if (told.some((other) => from < other.to && to > other.from)) continue;
    const quicker = 100 * (1 / (1 + percent / 100) - 1);
    const code = percent < 0 ? 'rushing' : 'dragging';
    const uncertainty = TEMPO_PERCENT * Math.sqrt(12 / count);
    const [finding] = findingAt(code, one, { figure: percent < 0 ? quicker : percent, uncertainty, notes }, thresholds);
    if (finding) told.push({ from, to, finding });
  }
  return told.map(({ finding }) => finding);
}

/** The tempo of the whole take, that may drift evenly: Theil's line through those of its stretches. */
function usualTempo(points: readonly { readonly x: number; readonly y: number }[]): (x: number) => number {
  const far = points.length > 1 ? (points[points.length - 1]!.x - points[0]!.x) / 3 : 0;
  const slopes: number[] = [];
  const every = Math.ceil(points.length / 60);
  const some = points.filter((_, i) => i % every === 0);
  for (const [i, one] of some.entries())
    for (const other of some.slice(i + 1))
      if (other.x - one.x > far) slopes.push((other.y - one.y) / (other.x - one.x));
  const slope = slopes.length > 0 ? median(slopes) : 0;
  const at0 = median(points.map(({ x, y }) => y - slope * x));
  return (x) => at0 + slope * x;
}

/** Theil's slope: the median over pairs, so that one note out of place does not make a tempo. */
function robustSlope(notes: readonly HeardNote[]): number {
  const slopes: number[] = [];
  const far = 0.4 * (notes[notes.length - 1]!.note.at - notes[0]!.note.at);
  for (let i = 0; i < notes.length; i++)
    for (let j = i + 1; j < notes.length; j++) {
      const x = notes[j]!.note.at - notes[i]!.note.at;
      if (x > far) slopes.push((notes[j]!.onset - notes[i]!.onset) / x);
    }
  return slopes.length > 0 ? median(slopes) : lineThrough(notes.map((one) => ({ x: one.note.at, y: one.onset }))).slope;
}

/** Notes that were played one after the other without stopping. */
function runsOf(notes: readonly HeardNote[]): HeardNote[][] {
  const runs: HeardNote[][] = [];
  let before: HeardNote | null = null;
  for (const one of notes) {
    if (one.visit === null || !one.heard) continue;
    const goesOn = before !== null && !one.visit.isJump && one.onset > before.onset;
    if (goesOn) runs[runs.length - 1]!.push(one);
    else runs.push([one]);
    before = one;
  }
  return runs;
}

/** After a rest: a late entry, or a silence (with a turn of the bow to another string) that was cut short. */
function entryFindings({ heard: { notes }, pace, thresholds }: TakeScene): TakeFinding[] {
  return notes.flatMap((one, i) => {
    const { restBefore } = one.note;
    const before = notes[i - 1];
    if (restBefore < SILENCE || !before?.heard || !one.heard || !before.isFollowed) return [];
    const slower = paceBefore(notes, i) ?? pace[i]!;
    const gap = one.onset - before.onset - before.note.sounding * slower;
    const planned = restBefore * slower;
    const late = findingAt(
      'late-entry',
      one,
      { figure: 1000 * (gap - planned), uncertainty: BEGINNING_MS },
      thresholds,
    );
    const short = {
      figure: 100 * (1 - gap / planned),
      uncertainty: (100 * BEGINNING_MS) / 1000 / planned,
      notes: [one.note.index, before.note.index],
    };
    const code = before.note.place === one.note.place ? 'silence-cut-short' : 'rushed-turn';
    return [...late, ...findingAt(code, one, short, thresholds)];
  });
}

/** The pace of the notes before one: what comes late does not tell of itself. */
function paceBefore(notes: readonly HeardNote[], i: number): number | null {
  const earlier = notes.slice(Math.max(0, i - NOTES_BEFORE), i).filter(({ heard }) => heard);
  if (earlier.length < 4) return null;
  const [first, last] = [earlier[0]!, earlier[earlier.length - 1]!];
  const ratio = (last.onset - first.onset) / (last.note.at - first.note.at);
  return ratio > 0.4 && ratio < 2.5 ? ratio : null;
}

function holdFindings({ heard: { notes }, pace, thresholds }: TakeScene): TakeFinding[] {
  return notes.flatMap((one, i) => {
    const next = notes[i + 1];
    if (one.note.seconds < HOLD || !one.heard || !next?.heard || !one.isFollowed) return [];
    if (next.note.restBefore > 0 || one.note.marks.includes('flick') || next.note.marks.includes('flick')) return [];
    const planned = one.note.seconds * pace[i]!;
    const shift = next.onset - one.onset - planned;
    const figure = { figure: (-100 * shift) / planned, uncertainty: (100 * BEGINNING_MS) / 1000 / planned };
    return findingAt('hold-cut-short', one, figure, thresholds);
  });
}
