import type { Seconds } from '#core/base';
import { DENSITY, MAX_RECENT } from './limits';

/** Ways from each crossing back to the crossings before it, nearest first, in whole notes; at most five are told. */
export interface CrossingGaps {
  /** `gaps[i·5 + k]`; Infinity where there is none. */
  readonly gaps: Float64Array;
}

const known = new WeakMap<readonly unknown[], CrossingGaps>();

/**
 * The crossings that go before each crossing, by the written places of their notes. No link and no tempo changes them: they
 * are counted once for an arm's plan.
 * Time O(n).
 */
export function crossingGaps(crossings: readonly (object | null)[], onsets: readonly number[]): CrossingGaps {
  const found = known.get(crossings);
  if (found) return found;
  const gaps = new Float64Array(crossings.length * MAX_RECENT).fill(Infinity);
  const before: number[] = [];
  for (let i = 0; i < crossings.length; i++) {
    if (!crossings[i]) continue;
    const from = onsets[i]!;
    for (let k = 0; k < before.length; k++) gaps[i * MAX_RECENT + k] = from - before[k]!;
    before.unshift(from);
    if (before.length > MAX_RECENT) before.pop();
  }
  const counted = { gaps };
  known.set(crossings, counted);
  return counted;
}

/** How many crossings lie less than 0.6 s before one, where a whole note lasts so long; five at most. */
export function recentCrossings({ gaps }: CrossingGaps, index: number, wholeSeconds: Seconds): number {
  let count = 0;
  while (count < MAX_RECENT && gaps[index * MAX_RECENT + count]! * wholeSeconds < DENSITY.seconds) count += 1;
  return count;
}

/** Length of a whole note below which the k-th crossing before one counts, k from 1; 0 where there is none. */
export function wholeSecondsOf({ gaps }: CrossingGaps, index: number, k: number): Seconds {
  return k > MAX_RECENT ? 0 : DENSITY.seconds / gaps[index * MAX_RECENT + k - 1]!;
}
