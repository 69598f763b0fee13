import { compare, type Fraction, fraction, multiply } from '#core/base';
import { mapEvents, type Tune } from '#core/tune';

/** Lengths beyond these are not written. */
const SHORTEST = fraction(1, 128);
const LONGEST = fraction(4);

export type LengthChange = 'longer' | 'shorter' | 'dotted';

/** Doubles, halves, or dots and undots notes and rests; what would become too short or too long stays as it is. */
export function changeLengths(tune: Tune, ids: ReadonlySet<string>, change: LengthChange): Tune {
  return mapEvents(tune, (event) => {
    if (event.kind === 'bar' || !ids.has(event.id)) return event;
    const duration = multiply(event.duration, factorOf(change, event.duration));
    if (compare(duration, SHORTEST) < 0 || compare(duration, LONGEST) > 0) return event;
    return { ...event, duration };
  });
}

function factorOf(change: LengthChange, duration: Fraction): Fraction {
  if (change === 'longer') return fraction(2);
  if (change === 'shorter') return fraction(1, 2);
  return isDotted(duration) ? fraction(2, 3) : fraction(3, 2);
}

/** Three times a plain value. */
export function isDotted({ n }: Fraction): boolean {
  return n % 3 === 0;
}
