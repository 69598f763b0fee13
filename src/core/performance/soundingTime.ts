import type { Seconds } from '#core/base';
import type { TuneReport } from '#core/report';
import type { NoteMark } from '#core/tune';

/** What of a checked plan its playing needs; the times may be a player's own. */
export type PlayedPlan = Pick<
  TuneReport,
  'tune' | 'unrolled' | 'settings' | 'timing' | 'fingers' | 'figures' | 'sharedStrokes'
>;

/** Share of a staccato note that sounds, and of a snapped one. Guesses. */
const STACCATO = 0.55;
const SNAPPED = 0.85;

/** How long a note sounds of the time it has. */
export function soundingSeconds(seconds: Seconds, marks: readonly NoteMark[]): Seconds {
  return marks.includes('staccato') ? STACCATO * seconds : marks.includes('snap') ? SNAPPED * seconds : seconds;
}

/** When a note of a span ends: where the next one begins, unless a rest lies between. */
export function noteEnd(
  { timing, unrolled }: PlayedPlan,
  index: number,
  end: number,
  at: (index: number) => Seconds,
): Seconds {
  const runsOn = index + 1 < end && unrolled.notes[index + 1]!.restBefore.n === 0;
  return runsOn ? at(index + 1) : at(index) + timing.durations[index]!;
}
