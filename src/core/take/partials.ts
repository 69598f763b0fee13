import type { Seconds } from '#core/base';
import { RATE } from './resample';

// Looked up once: they are called for millions of times.
const { abs, atan2, ceil, cos, floor, log2, max, round, sin, sqrt } = Math;

/** Samples that are summed before the window is laid over them. */
const BLOCK = 12;
const BLOCK_SECONDS = BLOCK / RATE;
const MOST_PARTIALS = 8;
const HIGHEST = 6000;
/** Partials of another pitch nearer than this are not told apart. */
const APART_HERTZ = 60;

/** One partial of a pitch through time: what is left of it when its own frequency is turned back, real and imaginary. */
export interface Track {
  readonly partial: number;
  readonly re: Float64Array;
  readonly im: Float64Array;
}

export interface Tracks {
  readonly hertz: number;
  readonly from: Seconds;
  readonly step: Seconds;
  readonly count: number;
  readonly tracks: readonly Track[];
}

const partialsOf = (hertz: number) =>
  Array.from({ length: MOST_PARTIALS }, (_, k) => k + 1).filter((k) => k * hertz < HIGHEST);

/** Which partials of a pitch can be told from those of others. */
export function distinctPartials(hertz: number, others: readonly number[]): number[] {
  return partialsOf(hertz).filter((k) =>
    others.every((other) => {
      const nearest = max(1, round((k * hertz) / other));
      return abs(k * hertz - nearest * other) > APART_HERTZ;
    }),
  );
}

/** The same; all of them where none can be told. */
export function ownPartials(hertz: number, others: readonly number[]): number[] {
  const own = distinctPartials(hertz, others);
  return own.length > 0 ? own : partialsOf(hertz);
}

/**
 * Partials of a pitch by heterodyning: X_k(t) = Σ w(n − t)·x(n)·e^(−2πi·k·f·n), w a Hann window of `window` seconds; in
 * blocks of half a millisecond, which is exact enough for what lies within 200 Hz. |X_k| is the partial's amplitude, and
 * the slope of its phase how far its frequency is from k·f (Flanagan and Golden, “Phase vocoder”, 1966).
 * Time O((to − from)·partials).
 */
export function tracksOf(
  samples: Float32Array,
  hertz: number,
  partials: readonly number[],
  {
    from,
    to,
    step,
    window,
  }: { readonly from: Seconds; readonly to: Seconds; readonly step: Seconds; readonly window: Seconds },
): Tracks {
  const count = max(0, floor((to - from) / step + 1e-9) + 1);
  const half = round(window / 2 / BLOCK_SECONDS);
  const firstBlock = floor(from / BLOCK_SECONDS) - half;
  const blocks = ceil((to - from) / BLOCK_SECONDS) + 2 * half + 2;
  const shape = Float64Array.from(
    { length: 2 * half + 1 },
    (_, i) => 0.5 + 0.5 * cos((Math.PI * (i - half)) / (half + 1)),
  );
  const scale = 2 / (shape.reduce((a, w) => a + w, 0) * BLOCK);
  if (count === 0) return { hertz, from, step, count, tracks: [] };
  const tracks = partials.map((partial): Track => {
    const re = new Float64Array(count);
    const im = new Float64Array(count);
    const [blockRe, blockIm] = blockSums(samples, (2 * Math.PI * partial * hertz) / RATE, firstBlock, blocks);
    for (let i = 0; i < count; i++) {
      const middle = round((from + i * step) / BLOCK_SECONDS) - firstBlock;
      let sumRe = 0;
      let sumIm = 0;
      for (let j = -half; j <= half; j++) {
        const w = shape[j + half]!;
        sumRe += w * blockRe[middle + j]!;
        sumIm += w * blockIm[middle + j]!;
      }
      re[i] = scale * sumRe;
      im[i] = scale * sumIm;
    }
    return { partial, re, im };
  });
  return { hertz, from, step, count, tracks };
}

/**
 * For each block Σ x(n)·e^(−i·turn·n), as its own sum from its beginning on, turned by where it begins.
 * @param turn radians a sample
 */
function blockSums(samples: Float32Array, turn: number, firstBlock: number, blocks: number) {
  const re = new Float64Array(blocks);
  const im = new Float64Array(blocks);
  const inBlock = Array.from({ length: BLOCK }, (_, j) => turn * j);
  const cosines = Float64Array.from(inBlock, cos);
  const sines = Float64Array.from(inBlock, sin);
  const [stepCos, stepSin] = [cos(turn * BLOCK), sin(turn * BLOCK)];
  const begin = (turn * firstBlock * BLOCK) % (2 * Math.PI);
  let c = cos(begin);
  let s = sin(begin);
  for (let b = 0; b < blocks; b++) {
    const start = (firstBlock + b) * BLOCK;
    if (start >= 0 && start + BLOCK <= samples.length) {
      // Two by two, since each sum waits for itself.
      let sumCos = 0;
      let sumSin = 0;
      let otherCos = 0;
      let otherSin = 0;
      for (let j = 0; j < BLOCK; j += 2) {
        const x = samples[start + j]!;
        const other = samples[start + j + 1]!;
        sumCos += x * cosines[j]!;
        sumSin += x * sines[j]!;
        otherCos += other * cosines[j + 1]!;
        otherSin += other * sines[j + 1]!;
      }
      sumCos += otherCos;
      sumSin += otherSin;
      re[b] = c * sumCos - s * sumSin;
      im[b] = -s * sumCos - c * sumSin;
    }
    const turned = c * stepCos - s * stepSin;
    s = c * stepSin + s * stepCos;
    c = turned;
  }
  return [re, im] as const;
}

/** Amplitude of all partials together. */
export function envelopeOf({ tracks, count }: Tracks): Float64Array {
  const sum = new Float64Array(count);
  for (const { re, im } of tracks) for (let i = 0; i < count; i++) sum[i]! += re[i]! ** 2 + im[i]! ** 2;
  return sum.map(sqrt);
}

/** A pitch at a moment: cents from the frequency that was turned back, and how much of it there is. */
export interface PitchPoint {
  readonly time: Seconds;
  readonly cents: number;
  readonly weight: number;
}

/**
 * The pitch from each step to the next: the phase of each partial k turns by 2π·Δf_k·step; cents = 1200·log₂(1 + Δf_k⁄(k·f)),
 * partials weighed by k²·|X_k|², as a higher one tells as much more exactly.
 */
export function pitchCurve({ hertz, from, step, count, tracks }: Tracks): PitchPoint[] {
  const points: PitchPoint[] = [];
  for (let i = 0; i + 1 < count; i++) {
    let [sum, weights] = [0, 0];
    for (const { partial, re, im } of tracks) {
      const cross = re[i]! * im[i + 1]! - im[i]! * re[i + 1]!;
      const dot = re[i]! * re[i + 1]! + im[i]! * im[i + 1]!;
      const off = atan2(cross, dot) / (2 * Math.PI * step);
      const ratio = 1 + off / (partial * hertz);
      const weight = partial ** 2 * sqrt(cross * cross + dot * dot);
      if (ratio <= 0.5) continue;
      sum += weight * 1200 * log2(ratio);
      weights += weight;
    }
    if (weights > 0) points.push({ time: from + (i + 0.5) * step, cents: sum / weights, weight: weights });
  }
  return points;
}
