import type { Seconds } from '#core/base';

/** A beginning in the plan and as it was played; those of one run were played without stopping. */
export interface TempoNote {
  readonly at: Seconds;
  readonly onset: Seconds;
  readonly run: number;
}

/** A stretch that is so much slower (less than 0: quicker) than what lies about it. */
export interface TempoStretch {
  /** The first note, and the one before which it ends. */
  readonly first: number;
  readonly end: number;
  readonly percent: number;
  /** Half of an 80 % interval. */
  readonly uncertainty: number;
}

/** Lengths that are tried, and the fewest notes. */
const LENGTHS: readonly Seconds[] = [2.4, 3.4, 4.8, 7, 10];
const LEAST_NOTES = 7;
/** So much on each side tells what is usual. */
const ABOUT: Seconds = 14;
/** The tempo of a take may drift by so much a second (standard deviation of the prior), and of a note by so much: s. */
const DRIFT = 0.004;
const LEAST_SPREAD: Seconds = 0.004;
/** Beyond so many spreads a note weighs less (Huber). */
const HUBER = 1.5;
const ROUNDS = 2;
/** Residuals of a tempo that wanders hang together: so many notes tell what one does. A trial. */
const TOGETHER = 3;
const HALF_80 = 1.28;

/**
 * Where a tempo changes for a while: y = a_run + b·x + c·x² + δ·overlap(x; s, L) by robust least squares, x in the plan
 * and y in the take, for every beginning s and some lengths L; δ⁄b is how much slower the stretch is. The one that explains
 * most is taken, then the next that does not overlap with it (matching pursuit over a change of slope; Bai and Perron,
 * “Estimating and testing linear models with multiple structural changes”, 1998). Time O(n · notes within reach).
 */
export function tempoStretches(
  notes: readonly TempoNote[],
  isWorth: (percent: number, uncertainty: number) => boolean,
): TempoStretch[] {
  const onsets = Float64Array.from(notes, ({ onset }) => onset);
  const candidates = candidatesOf(notes);
  const fits: (Fit | null | undefined)[] = candidates.map(() => undefined);
  const found: Found[] = [];
  for (;;) {
    let best: Found | null = null;
    for (const [i, candidate] of candidates.entries()) {
      if (found.some((one) => candidate.from < one.to && candidate.to > one.from)) continue;
      fits[i] ??= fitted(notes, onsets, candidate);
      const fit = fits[i];
      if (!fit || (best && fit.gain <= best.gain) || !isWorth(fit.percent, fit.uncertainty)) continue;
      best = { ...candidate, ...fit };
    }
    if (!best) break;
    const { from, to, slower } = best;
    found.push(best);
    // What is known is taken out, and all that it reaches is looked at anew.
    for (const [i, { at }] of notes.entries()) onsets[i]! -= slower * overlap(at, from, to);
    for (const [i, one] of candidates.entries())
      if (one.from < to + ABOUT && one.to > from - ABOUT) fits[i] = undefined;
  }
  return found
    .sort((a, b) => a.first - b.first)
    .map(({ first, end, percent, uncertainty }) => ({ first, end, percent, uncertainty }));
}

interface Candidate {
  readonly first: number;
  readonly end: number;
  readonly from: Seconds;
  readonly to: Seconds;
}

interface Fit {
  readonly percent: number;
  readonly uncertainty: number;
  /** Seconds a second of the plan. */
  readonly slower: number;
  /** How much is explained by it: the square of the change in its standard deviations. */
  readonly gain: number;
}

type Found = Candidate & Fit;

function candidatesOf(notes: readonly TempoNote[]): Candidate[] {
  const candidates: Candidate[] = [];
  for (let first = 0; first + LEAST_NOTES <= notes.length; first++) {
    let last = -1;
    for (const length of LENGTHS) {
      const from = notes[first]!.at;
      let end = first;
      while (
        end < notes.length &&
        notes[end]!.at >= from &&
        (notes[end]!.at <= from + length || end - first < LEAST_NOTES)
      )
        end += 1;
      if (end - first < LEAST_NOTES || end === last) continue;
      last = end;
      candidates.push({ first, end, from, to: notes[end - 1]!.at });
    }
  }
  return candidates;
}

const overlap = (at: Seconds, from: Seconds, to: Seconds) => Math.max(0, Math.min(at, to) - from);

/** A change smaller than this, in shares, is not looked at more closely. */
const SLIGHT = 0.025;

function fitted(notes: readonly TempoNote[], onsets: Float64Array, { first, end, from, to }: Candidate): Fit | null {
  let low = first;
  while (low > 0 && notes[low - 1]!.at <= to && notes[low - 1]!.at >= from - ABOUT) low -= 1;
  let high = first + 1;
  while (high < notes.length && notes[high]!.at <= to + ABOUT && notes[high]!.at >= from) high += 1;
  const count = high - low;
  if (count < end - first + LEAST_NOTES) return null;
  const middle = (from + to) / 2;
  const runs = new Int32Array(count);
  const column = () => new Float64Array(count);
  const columns: Columns = [column(), column(), column(), column()];
  for (let i = 0; i < count; i++) {
    const { at, run } = notes[low + i]!;
    runs[i] = run;
    columns[0][i] = at - middle;
    columns[1][i] = (at - middle) ** 2;
    columns[2][i] = overlap(at, from, to);
    columns[3][i] = onsets[low + i]!;
  }
  const weights = new Float64Array(count).fill(1);
  let spread = LEAST_SPREAD;
  let solved = solve(columns, runs, weights, spread);
  if (Math.abs(solved.values[2]) < SLIGHT * solved.values[0]) return null;
  for (let round = 0; round < ROUNDS; round++) {
    const off = solved.residuals.map(Math.abs);
    spread = Math.max(LEAST_SPREAD, off.slice().sort()[off.length >> 1]! / 0.6745);
    for (let i = 0; i < count; i++) weights[i] = Math.min(1, (HUBER * spread) / Math.max(1e-9, off[i]!));
    solved = solve(columns, runs, weights, spread);
  }
  const [b, , slower] = solved.values;
  if (!(b > 0.2)) return null;
  return {
    percent: (100 * slower) / b,
    uncertainty: (100 * HALF_80 * Math.sqrt(TOGETHER * solved.variance) * spread) / b,
    slower,
    gain: slower ** 2 / (solved.variance * spread ** 2),
  };
}

/** x, x², overlap, and y. */
type Columns = readonly [Float64Array, Float64Array, Float64Array, Float64Array];

/** Weighted least squares with an intercept for each run, c held near 0; variance of the third coefficient at spread 1. */
function solve(columns: Columns, runs: Int32Array, weights: Float64Array, spread: number) {
  const count = runs.length;
  const centred = columns.map((column) => column.slice()) as unknown as Columns;
  for (let start = 0; start < count;) {
    let stop = start;
    let sum = 0;
    while (stop < count && runs[stop] === runs[start]) sum += weights[stop++]!;
    for (const column of centred) {
      let mean = 0;
      for (let i = start; i < stop; i++) mean += weights[i]! * column[i]!;
      mean /= sum;
      for (let i = start; i < stop; i++) column[i]! -= mean;
    }
    start = stop;
  }
  const product = (j: number, k: number) => {
    let sum = 0;
    for (let i = 0; i < count; i++) sum += weights[i]! * centred[j]![i]! * centred[k]![i]!;
    return sum;
  };
  // A drift d a second is c = d / 2.
  const [a, b, c, e, f, g] = [
    product(0, 0) + 1e-9,
    product(0, 1),
    product(0, 2),
    product(1, 1) + (spread / (DRIFT / 2)) ** 2,
    product(1, 2),
    product(2, 2) + 1e-9,
  ];
  const inverse = [
    [e * g - f * f, c * f - b * g, b * f - c * e],
    [c * f - b * g, a * g - c * c, b * c - a * f],
    [b * f - c * e, b * c - a * f, a * e - b * b],
  ] as const;
  const determinant = a * inverse[0][0] + b * inverse[0][1] + c * inverse[0][2];
  const right = [product(0, 3), product(1, 3), product(2, 3)] as const;
  const valueOf = (row: readonly [number, number, number]) =>
    (row[0] * right[0] + row[1] * right[1] + row[2] * right[2]) / determinant;
  const values = [valueOf(inverse[0]), valueOf(inverse[1]), valueOf(inverse[2])] as const;
  const residuals = centred[3].map(
    (y, i) => y - values[0] * centred[0][i]! - values[1] * centred[1][i]! - values[2] * centred[2][i]!,
  );
  return { values, variance: inverse[2][2] / determinant, residuals };
}
