import { add, compare, equals, type Fraction } from '#core/base';
import { barLength } from './meter';
import type { Tune } from './tune';
import { type Play, playsOf, writtenBars } from './unroll';

/** A bar, or a join of two passes, whose lengths do not make a whole bar. */
export type BarSumFault =
  | { readonly kind: 'short' | 'long'; readonly barId: string; readonly length: Fraction; readonly expected: Fraction }
  | {
      readonly kind: 'join';
      /** The last bar before the join and the bar after it. */
      readonly barId: string;
      readonly nextBarId: string;
      readonly from: Pick<Play, 'part' | 'pass'>;
      readonly to: Pick<Play, 'part' | 'pass'>;
      /** Last bar plus pickup. */
      readonly length: Fraction;
      readonly expected: Fraction;
      /** The join is the tune begun again. */
      readonly again: boolean;
    };

/**
 * Checks that every bar adds up, and that last bar plus pickup make one bar on every path through the repeats,
 * the tune begun again included. Bars at the edge of a pass may be short where their partner completes them.
 */
export function barSumFaults(tune: Tune): BarSumFault[] {
  const bars = writtenBars(tune);
  const plays = playsOf(tune);
  const faults: BarSumFault[] = [];
  const seen = new Set<string>();
  const edgeIds = new Set(
    plays.flatMap(({ played }) => [played[0], played[played.length - 1]].flatMap((bar) => bar?.event.id ?? [])),
  );
  for (const list of bars.values())
    for (const bar of list) {
      const expected = barLength(bar.meter);
      const order = compare(bar.duration, expected);
      if (order === 0 || (order < 0 && edgeIds.has(bar.event.id))) continue;
      faults.push({ kind: order < 0 ? 'short' : 'long', barId: bar.event.id, length: bar.duration, expected });
    }

  for (const [i, from] of plays.entries()) {
    const again = i === plays.length - 1;
    const to = plays[again ? 0 : i + 1]!;
    const last = from.played[from.played.length - 1];
    const first = to.played[0];
    if (!last || !first) continue;
    const expected = barLength(last.meter);
    const lastIsShort = compare(last.duration, expected) < 0;
    // A last bar that is full by itself holds the lead-in already: the tune begins again at its first full bar.
    if (!lastIsShort && (again || !to.hasPickup)) continue;
    const length = to.hasPickup ? add(last.duration, first.duration) : last.duration;
    const key = `${last.event.id} ${first.event.id}`;
    if (equals(length, expected) || seen.has(key)) continue;
    seen.add(key);
    faults.push({ kind: 'join', barId: last.event.id, nextBarId: first.event.id, from, to, length, expected, again });
  }
  return faults;
}
