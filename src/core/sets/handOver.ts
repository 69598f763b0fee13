import { midiOf, type Pitch, sameKey } from '#core/pitch';
import { type Direction, type Place, PLACES } from '#core/tune';
import type { BowThrough } from './bowThrough';

/** What lies between two tunes that follow each other in a set. */
export interface HandOver {
  /** `on`: the next tune begins with the stroke that comes by itself; `lift`: with the one just played. Null: one has no notes. */
  readonly bow: { readonly way: 'on' | 'lift'; readonly last: Direction; readonly first: Direction } | null;
  /** Strings that are tuned otherwise, low to high. */
  readonly retuned: readonly { readonly place: Place; readonly from: Pitch; readonly to: Pitch }[];
  /** Dance beats a minute of the next over those of the one before: above 1 it is faster. */
  readonly pace: number;
  readonly isSameKey: boolean;
}

/** What it takes to go on from one tune to the next: bow, pegs, tempo and key. Each is played at least once. Time O(1). */
export function handOver(from: BowThrough, to: BowThrough): HandOver {
  const [before, after] = [from.times[0]!, to.times[0]!];
  const { last } = from;
  const { first } = to;
  return {
    bow: last === null || first === null ? null : { way: last === first ? 'lift' : 'on', last, first },
    retuned: PLACES.flatMap((place, i) => {
      const [was, is] = [before.tune.tuning[i]!, after.tune.tuning[i]!];
      return midiOf(was) === midiOf(is) ? [] : [{ place, from: was, to: is }];
    }),
    pace: after.settings.bpm / before.settings.bpm,
    isSameKey: sameKey(before.tune.key, after.tune.key),
  };
}
