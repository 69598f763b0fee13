import { findingAt, isTold, type TakeFinding } from './finding';
import type { HeardNote } from './heard';
import type { MistakeKind } from './mistakes';
import type { TakeScene } from './scene';
import { tempoStretches } from './tempoStretches';

/** Holds and silences of at least so many seconds are judged. */
const HOLD: number = 0.4;
const SILENCE: number = 0.1;
/** Half of an 80 % interval of a single beginning, ms. */
const BEGINNING_MS = 14;
const FLICK_MS = 30;
const NOTES_BEFORE = 8;

/** Rushing and dragging, late entries, holds and silences cut short. */
export function timeFindings(scene: TakeScene): TakeFinding[] {
  return [...entryFindings(scene), ...holdFindings(scene), ...tempoFindings(scene)];
}

/** A length so far from the plan's is a break and no tempo: seconds, and share; over a rest, where time is lost first, less. */
const BREAK = { seconds: 0.05, share: 0.15, rest: 0.02 } as const;

/** The notes as if no hold, silence or added note among them had been longer or shorter than planned. */
function withoutBreaks(run: readonly HeardNote[], paceAt: (one: HeardNote) => number): HeardNote[] {
  const planned = run.map((one, i) => (i > 0 ? (one.note.at - run[i - 1]!.note.at) * (paceAt(run[i - 1]!) || 1) : 0));
  const offs = run.map((one, i) => (i > 0 ? one.onset - run[i - 1]!.onset - planned[i]! : 0));
  let shift = 0;
  return run.map((one, i) => {
    const off = offs[i]!;
    const isFar =
      Math.abs(off) >
      (one.note.restBefore >= SILENCE ? BREAK.rest : Math.max(BREAK.seconds, BREAK.share * planned[i]!));
    // A note out of its place, before one that is in its own, moves nothing.
    const isAlone =
      Math.abs(off + (offs[i + 1] ?? 0)) < Math.abs(off) / 2 || Math.abs(off + (offs[i - 1] ?? 0)) < Math.abs(off) / 2;
    if (isFar && !isAlone) shift += off;
    return { ...one, onset: one.onset - shift };
  });
}

/** Stretches that are quicker or slower than the take about them. */
function tempoFindings({ heard, pace, thresholds }: TakeScene): TakeFinding[] {
  const notes = runsOf(heard.notes).flatMap((run, number) =>
    withoutBreaks(run, (one) => pace[heard.notes.indexOf(one)]!).map((one) => ({ one, run: number })),
  );
  const timed = notes.map(({ one, run }) => ({ at: one.note.at, onset: one.onset, run }));
  const told = (percent: number, uncertainty: number) => {
    const code: MistakeKind = percent < 0 ? 'rushing' : 'dragging';
    // As how much quicker, not how much less time.
    const figure = percent < 0 ? 100 * (1 / (1 + percent / 100) - 1) : percent;
    return { code, figure, isTold: isTold(figure, uncertainty, thresholds[code]) };
  };
  const stretches = tempoStretches(timed, (percent, uncertainty) => told(percent, uncertainty).isTold);
  return stretches.flatMap(({ first, end, percent, uncertainty }) => {
    const { code, figure } = told(percent, uncertainty);
    const stretch = notes.slice(first, end).map(({ one }) => one.note.index);
    return findingAt(code, notes[first]!.one, { figure, uncertainty, notes: stretch }, thresholds);
  });
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
export function entryFindings({ heard: { notes }, pace, thresholds }: TakeScene): TakeFinding[] {
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
  let from = i - 1;
  while (from > 0 && from > i - NOTES_BEFORE && notes[from - 1]!.isFollowed) from -= 1;
  const earlier = notes.slice(from, i).filter(({ heard }) => heard);
  if (earlier.length < 4) return null;
  const [first, last] = [earlier[0]!, earlier[earlier.length - 1]!];
  const ratio = (last.onset - first.onset) / (last.note.at - first.note.at);
  return ratio > 0.4 && ratio < 2.5 ? ratio : null;
}

function holdFindings({ heard: { notes }, pace, thresholds }: TakeScene): TakeFinding[] {
  return notes.flatMap((one, i) => {
    const next = notes[i + 1];
    if (one.note.seconds < HOLD || !one.heard || !next?.heard || !one.isFollowed) return [];
    if (next.note.restBefore > 0) return [];
    const planned = one.note.seconds * pace[i]!;
    const shift = next.onset - one.onset - planned;
    // A flick hides when its note begins.
    const hidden = [one, next].some(({ note }) => note.marks.includes('flick')) ? FLICK_MS : 0;
    const uncertainty = (100 * (BEGINNING_MS + hidden)) / 1000 / planned;
    const figure = { figure: (-100 * shift) / planned, uncertainty };
    return findingAt('hold-cut-short', one, figure, thresholds);
  });
}
