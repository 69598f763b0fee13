import { hertzOf } from '#core/pitch';
import { midiOf } from '#core/pitch';
import type { Tuning } from '#core/tuning';

/** Partials of the note and of the open strings that are looked at. */
const NOTE_PARTIALS = 4;
const STRING_PARTIALS = 6;
/** Partials this near each other make a string sound along. A guess. */
const MEETS_CENTS = 12;

/**
 * How much a note makes the open strings sound along: Σ 1/(j·k) over the partials j of the note and k of each string that
 * it is not played on, where they meet within 12 cents. 0: none. Time O(1).
 */
export function ringOf(midi: number, tuning: Tuning, playedOn: number): number {
  let sum = 0;
  for (const [i, open] of tuning.entries()) {
    if (i === playedOn) continue;
    for (let j = 1; j <= NOTE_PARTIALS; j++)
      for (let k = 1; k <= STRING_PARTIALS; k++) {
        const cents = 1200 * Math.log2((j * hertzOf(midi)) / (k * hertzOf(midiOf(open))));
        if (Math.abs(cents) < MEETS_CENTS) sum += 1 / (j * k);
      }
  }
  return sum;
}
