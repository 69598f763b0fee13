import type { Seconds } from '#core/base';

/** Notes on each side from which the player's own time about a note is taken, and the least of them. */
const NEIGHBOURS = 10;
const LEAST = 4;
/** Notes farther off than so many times the usual are left out of a second fit. */
const OUTLIER = 3;

export interface TimedNote {
  /** In the plan's seconds, and in the take's. */
  readonly at: Seconds;
  readonly onset: Seconds;
  /** Stretches that were played without stopping have one number each. */
  readonly run: number;
}

export interface TempoPoint {
  /** How much longer the take goes than the plan about here. */
  readonly slower: number;
  /** When the note would have begun by the player's own time; NaN where too little was heard around it. */
  readonly own: Seconds;
}

/**
 * The player's own time about each note: a straight line of take against plan through its neighbours in the same run,
 * nearer ones weighing more (tricube; Cleveland, 1979), without the note itself and without outliers. Time O(n · neighbours).
 */
export function tempoCurve(notes: readonly TimedNote[]): TempoPoint[] {
  return notes.map(({ at, run }, i) => {
    const around: { readonly x: number; readonly y: number; readonly weight: number }[] = [];
    for (const way of [-1, 1]) {
      for (let j = i + way, count = 0; j >= 0 && j < notes.length && count < NEIGHBOURS; j += way, count++) {
        if (notes[j]!.run !== run) break;
        const weight = (1 - (count / NEIGHBOURS) ** 3) ** 3;
        around.push({ x: notes[j]!.at - at, y: notes[j]!.onset, weight });
      }
    }
    if (around.length < LEAST) return { slower: NaN, own: NaN };
    const first = lineThrough(around);
    const offs = around.map(({ x, y }) => Math.abs(y - first.at0 - first.slope * x)).sort((a, b) => a - b);
    const usual = Math.max(0.004, offs[offs.length >> 1]! / 0.6745);
    const kept = around.filter(({ x, y }) => Math.abs(y - first.at0 - first.slope * x) <= OUTLIER * usual);
    const { slope, at0 } = kept.length >= LEAST ? lineThrough(kept) : first;
    return { slower: slope, own: at0 };
  });
}

/** Normal quantile of an 80 % interval’s half. */
const HALF_80 = 1.2816;

/**
 * Half of an 80 % interval about the slope of a line through points: t·s⁄√Σ(x − x̄)², s² = Σ residual²⁄(n − 2), Student’s
 * t by its expansion in 1⁄ν (Abramowitz and Stegun, 26.7.5); ∞ for fewer than three points or all at one place.
 */
export function slopeUncertainty(points: readonly { readonly x: number; readonly y: number }[]): number {
  const freedom = points.length - 2;
  const middle = points.reduce((sum, { x }) => sum + x, 0) / points.length;
  const spread = points.reduce((sum, { x }) => sum + (x - middle) ** 2, 0);
  if (freedom < 1 || !(spread > 1e-12)) return Infinity;
  const { at0, slope } = lineThrough(points);
  const residual = points.reduce((sum, { x, y }) => sum + (y - at0 - slope * x) ** 2, 0);
  const z = HALF_80;
  const t = z + (z ** 3 + z) / (4 * freedom) + (5 * z ** 5 + 16 * z ** 3 + 3 * z) / (96 * freedom ** 2);
  return t * Math.sqrt(residual / freedom / spread);
}

/** The line through points by least squares: its value at 0, and its slope; steady where all points are at one place. */
export function lineThrough(points: readonly { readonly x: number; readonly y: number; readonly weight?: number }[]): {
  readonly at0: number;
  readonly slope: number;
} {
  let [w, wx, wy, wxx, wxy] = [0, 0, 0, 0, 0];
  for (const { x, y, weight = 1 } of points) {
    w += weight;
    wx += weight * x;
    wy += weight * y;
    wxx += weight * x * x;
    wxy += weight * x * y;
  }
  const spread = w * wxx - wx * wx;
  if (!(spread > 1e-12)) return { at0: w > 0 ? wy / w : NaN, slope: 1 };
  const slope = (w * wxy - wx * wy) / spread;
  return { at0: (wy - slope * wx) / w, slope };
}
