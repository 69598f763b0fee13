import type { Seconds } from '#core/base';
import type { NoteMark } from '#core/tune';

/** Share of a staccato note that sounds, and of a snapped one. Guesses. */
const STACCATO = 0.55;
const SNAPPED = 0.85;

/** How long a note sounds of the time it has. */
export function soundingSeconds(seconds: Seconds, marks: readonly NoteMark[]): Seconds {
  return marks.includes('staccato') ? STACCATO * seconds : marks.includes('snap') ? SNAPPED * seconds : seconds;
}
