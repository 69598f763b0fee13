import { type Fraction, toNumber } from '#core/base';
import type { Tune } from './tune';

/**
 * How much music a document may hold, far beyond any tune. Lengths are exact: with a least common denominator L of all lengths
 * and T whole notes played, sums stay below T·L² ≤ 2⁵³, so that no number of them is ever rounded.
 */
export const MUSIC_BOUNDS = {
  /** Whole notes of one note or rest. */
  noteWholes: 64,
  /** Least common denominator of all lengths: 512ths with tuplets of 3, 5, 7 and 9 together are 161,280ths. */
  commonDenominator: 250_000,
  /** Whole notes played, repeats counted. */
  playedWholes: 20_000,
} as const;

/** What is out of bounds, and what was found. */
export interface LengthFault {
  readonly code: 'too-long' | 'too-fine' | 'too-much';
  readonly found: number;
  /** The part and event that it is about; null where it is the tune played through. */
  readonly part: number | null;
  readonly event: number | null;
}

/** Looks at lengths one after the other. Time O(1) for a length, and O(log d) for a denominator that was not seen before. */
export class LengthGuard {
  private common = 1;
  private readonly seen = new Set<number>([1]);

  /** What is wrong with the next length; null where nothing is. */
  fault(length: Fraction): Pick<LengthFault, 'code' | 'found'> | null {
    const wholes = toNumber(length);
    if (!(wholes <= MUSIC_BOUNDS.noteWholes)) return { code: 'too-long', found: wholes };
    if (this.seen.has(length.d)) return null;
    const common = leastCommonMultiple(this.common, length.d);
    if (common > MUSIC_BOUNDS.commonDenominator) return { code: 'too-fine', found: common };
    this.seen.add(length.d);
    this.common = common;
    return null;
  }
}

function leastCommonMultiple(a: number, b: number): number {
  let [x, y] = [a, b];
  while (y !== 0) [x, y] = [y, x % y];
  return (a / x) * b;
}

/** The first length of a tune that is out of bounds, or all of it together; null for every tune that can be counted. O(n). */
export function lengthFault({ parts, form }: Pick<Tune, 'parts' | 'form'>): LengthFault | null {
  const guard = new LengthGuard();
  const wholes = new Map<string, number>();
  for (const [p, { name, events }] of parts.entries()) {
    let sum = 0;
    for (const [e, event] of events.entries()) {
      if (event.kind === 'bar') continue;
      const fault = guard.fault(event.duration);
      if (fault) return { ...fault, part: p, event: e };
      sum += toNumber(event.duration);
    }
    wholes.set(name, sum);
  }
  const played = form.reduce((sum, name) => sum + (wholes.get(name) ?? 0), 0);
  return played > MUSIC_BOUNDS.playedWholes ? { code: 'too-much', found: played, part: null, event: null } : null;
}
