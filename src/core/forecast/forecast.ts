import { type BeatsPerMinute, normalOf, seeded, weightedQuantiles } from '#core/base';

/** The best of a day of practice: minutes spent on the stretch until then, and the tempo that came out clean. */
export interface BestOfDay {
  readonly minutes: number;
  readonly bpm: BeatsPerMinute;
}

export interface ForecastWish {
  readonly bpm: BeatsPerMinute;
  readonly minutesADay: number;
  /** Up to which tempo the player's own limits let it hold. */
  readonly ownCeilingBpm: BeatsPerMinute;
}

/** Why there is no answer: too few days, or days that say too little. */
export type TooLittle = 'few-days' | 'wide';

export type Forecast =
  | { readonly tooLittle: TooLittle; readonly days: number }
  | {
      /** Days of practice until the tempo is clean, where it comes to that: 10, 50 and 90 %. */
      readonly days: { readonly p10: number; readonly p50: number; readonly p90: number };
      /** The chance that it does not come to that on this path. */
      readonly never: number;
    };

/** How far a day's best lies off the path, in natural logarithms; and what is expected before anything is known. Guesses. */
const NOISE = 0.04;
const CEILING_SD = 0.1;
const GAIN_SD = 0.5;
const PACE = { median: 120, sd: 0.7 } as const;

/** Fewer days than these say nothing of a path; nor does an answer whose late end is so many times its early one. */
export const MIN_DAYS = 4;
const WIDEST = 8;
/** Days are told by whole ones: what lies within the next is not told apart from it. */
const SOON = 1;

/** Paces that are looked at, from the least likely slow to the least likely quick one, and draws for each. */
const PACES = 61;
const PACE_RANGE = 3.2;
const DRAWS = 80;
const SEED = 20_260_301;
/** Paces so much less likely than the likeliest change no answer. */
const NEGLIGIBLE = 1e-5;

/**
 * When a tempo will be clean. The logarithm of the clean tempo after x minutes is c - g·exp(-x/r) + N(0, 0.04²), with
 * c ~ N(ln own ceiling, 0.1²), g half-normal 0.5 and r log-normal (ln 120 min, 0.7). For each of a row of paces r the rest is
 * linear with normal priors and so exact: the evidence weighs the pace, and c and g are drawn from their bivariate normal,
 * those with g < 0 left out. Each draw reaches the tempo after r·ln(g/(c - ln wish)) minutes, at once, or never.
 * Answers are of draws that reach it; `never` is the weight of those that do not. The same input gives the same answer.
 * Time O(n·p + p·d) for n days, p paces and d draws.
 */
export function forecastOf(best: readonly BestOfDay[], wish: ForecastWish): Forecast {
  if (best.length < MIN_DAYS) return { tooLittle: 'few-days', days: best.length };
  const { days, weights, never } = reachedDays(best, wish);
  if (days.length === 0) return { days: { p10: Infinity, p50: Infinity, p90: Infinity }, never };
  const [p10, p50, p90] = weightedQuantiles(days, weights, [0.1, 0.5, 0.9]) as [number, number, number];
  if (p90 > WIDEST * Math.max(SOON, p10)) return { tooLittle: 'wide', days: best.length };
  return { days: { p10, p50, p90 }, never };
}

/** Draws that reach the tempo, in days from now, with their weights; and the share of the others. */
export function reachedDays(
  best: readonly BestOfDay[],
  { bpm, minutesADay, ownCeilingBpm }: ForecastWish,
): { readonly days: readonly number[]; readonly weights: readonly number[]; readonly never: number } {
  const goal = Math.log(bpm);
  const now = minutesSpent(best);
  const { log } = Math;
  const days: number[] = [];
  const weights: number[] = [];
  let [reached, all] = [0, 0];
  drawPaths(best, ownCeilingBpm, (c, g, pace, weight) => {
    all += weight;
    if (c <= goal) return;
    reached += weight;
    const minutes = pace * log(g / (c - goal)) - now;
    days.push(minutes > 0 ? minutes / minutesADay : 0);
    weights.push(weight);
  });
  return { days, weights, never: all > 0 ? 1 - reached / all : 1 };
}

/** The clean tempo to be expected on a day from now: 10, 50 and 90 %. */
export interface FanDay {
  readonly day: number;
  readonly low: BeatsPerMinute;
  readonly median: BeatsPerMinute;
  readonly high: BeatsPerMinute;
}

/** Where the path leads from here on, at days from now: c - g·exp(-x/r) of the same draws. Time O(n·p + p·d·k) for k days. */
export function forecastFan(
  best: readonly BestOfDay[],
  { minutesADay, ownCeilingBpm }: Omit<ForecastWish, 'bpm'>,
  days: readonly number[],
): FanDay[] {
  const now = minutesSpent(best);
  const paths: { c: number; g: number; pace: number }[] = [];
  const weights: number[] = [];
  drawPaths(best, ownCeilingBpm, (c, g, pace, weight) => {
    paths.push({ c, g, pace });
    weights.push(weight);
  });
  return days.map((day) => {
    const minutes = now + day * minutesADay;
    const tempos = paths.map(({ c, g, pace }) => c - g * Math.exp(-minutes / pace));
    const [low, median, high] = weightedQuantiles(tempos, weights, [0.1, 0.5, 0.9]).map(Math.exp) as [
      number,
      number,
      number,
    ];
    return { day, low, median, high };
  });
}

const minutesSpent = (best: readonly BestOfDay[]): number => Math.max(0, ...best.map(({ minutes }) => minutes));

/** Draws of c, g and r by what the days say of them, each with its weight. */
function drawPaths(
  best: readonly BestOfDay[],
  ownCeilingBpm: BeatsPerMinute,
  visit: (c: number, g: number, pace: number, weight: number) => void,
): void {
  const normal = normalOf(seeded(SEED));
  const fits = paces().map(({ pace, weight }) => ({ pace, weight, fit: fitAt(best, pace, Math.log(ownCeilingBpm)) }));
  const likely = fits.map(({ weight, fit }) => Math.log(weight) + fit.evidence);
  const most = Math.max(...likely);
  for (const [i, { pace, fit }] of fits.entries()) {
    const weight = Math.exp(likely[i]! - most);
    if (weight < NEGLIGIBLE) continue;
    for (let draw = 0; draw < DRAWS; draw++) {
      const [u, v] = [normal(), normal()];
      const c = fit.mean[0] + fit.root[0] * u;
      const g = fit.mean[1] + fit.root[1] * u + fit.root[2] * v;
      if (g >= 0) visit(c, g, pace, weight);
    }
  }
}

/** Paces by their logarithms, evenly, each with its density. */
function paces(): { readonly pace: number; readonly weight: number }[] {
  return Array.from({ length: PACES }, (_, i) => {
    const z = PACE_RANGE * ((2 * i) / (PACES - 1) - 1);
    return { pace: PACE.median * Math.exp(PACE.sd * z), weight: Math.exp(-(z ** 2) / 2) };
  });
}

interface Fit {
  /** Most likely c and g. */
  readonly mean: readonly [number, number];
  /** Their covariance's root: c = mean + a·u, g = mean + b·u + d·v. */
  readonly root: readonly [a: number, b: number, d: number];
  /** The logarithm of how likely the days are at this pace, but for what is the same at all. */
  readonly evidence: number;
}

/** c and g at one pace: y = c - g·e with normal priors, in closed form. */
function fitAt(best: readonly BestOfDay[], pace: number, ceiling: number): Fit {
  // Precision of the prior and of the days together, and their right-hand side.
  const [pc, pg] = [1 / CEILING_SD ** 2, 1 / GAIN_SD ** 2];
  let [a, b, d] = [pc, 0, pg];
  let [s, t] = [pc * ceiling, 0];
  let squares = pc * ceiling ** 2;
  for (const { minutes, bpm } of best) {
    const e = Math.exp(-minutes / pace);
    const y = Math.log(bpm);
    const w = 1 / NOISE ** 2;
    a += w;
    b -= w * e;
    d += w * e * e;
    s += w * y;
    t -= w * e * y;
    squares += w * y * y;
  }
  const det = a * d - b * b;
  const mean: [number, number] = [(d * s - b * t) / det, (a * t - b * s) / det];
  const [vc, cov, vg] = [d / det, -b / det, a / det];
  const root = Math.sqrt(vc);
  return {
    mean,
    root: [root, cov / root, Math.sqrt(Math.max(0, vg - cov ** 2 / vc))],
    evidence: -0.5 * Math.log(det) - 0.5 * (squares - (mean[0] * s + mean[1] * t)),
  };
}
