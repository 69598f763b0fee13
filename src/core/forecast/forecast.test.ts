import { normalOf, seeded, weightedQuantiles } from '#core/base';
import { cases } from '../testing/share';
import { type BestOfDay, forecastFan, forecastOf, type ForecastWish, reachedDays } from './forecast';
import { forecastTune } from './forecastTune';

interface Path {
  readonly c: number;
  readonly g: number;
  readonly r: number;
}
const CEILING = 120;

/** A player as is expected before anything is known. */
function playerOf(seed: number): { readonly path: Path; readonly normal: () => number; readonly random: () => number } {
  const random = seeded(seed);
  const normal = normalOf(random);
  const path = {
    c: Math.log(CEILING) + 0.1 * normal(),
    g: Math.abs(0.5 * normal()),
    r: 120 * Math.exp(0.7 * normal()),
  };
  return { path, normal, random };
}

const daysOf = ({ c, g, r }: Path, count: number, aDay: number, normal: () => number): BestOfDay[] =>
  Array.from({ length: count }, (_, i) => {
    const minutes = (i + 1) * aDay;
    return { minutes, bpm: Math.exp(c - g * Math.exp(-minutes / r) + 0.04 * normal()) };
  });

/** Days of a path until a tempo, from now; Infinity: never. */
function truth({ c, g, r }: Path, { bpm, minutesADay }: ForecastWish, now: number): number {
  const left = c - Math.log(bpm);
  return left <= 0 ? Infinity : Math.max(0, r * Math.log(g / left) - now) / minutesADay;
}

test('it is what a fine grid over ceiling, gain and pace comes to', () => {
  for (const seed of [3, 8]) {
    const { path, normal } = playerOf(seed);
    const best = daysOf(path, 6, 30, normal);
    const wish = { bpm: 110, minutesADay: 20, ownCeilingBpm: CEILING };
    const now = 180;
    const [days, weights]: [number[], number[]] = [[], []];
    let [never, all] = [0, 0];
    for (let i = 0; i <= 48; i++)
      for (let j = 0; j <= 80; j++)
        for (let k = 0; k <= 48; k++) {
          const [z, g, v] = [-3 + i / 8, j / 40, -3 + k / 8];
          const own = { c: Math.log(CEILING) + 0.1 * z, g, r: 120 * Math.exp(0.7 * v) };
          const misfit = best.reduce(
            (sum, { minutes, bpm }) => sum + (Math.log(bpm) - own.c + g * Math.exp(-minutes / own.r)) ** 2,
            0,
          );
          const weight = Math.exp(-misfit / (2 * 0.04 ** 2) - z ** 2 / 2 - g ** 2 / 0.5 - v ** 2 / 2);
          const reached = truth(own, wish, now);
          all += weight;
          if (reached === Infinity) never += weight;
          else {
            days.push(reached);
            weights.push(weight);
          }
        }
    const slow = weightedQuantiles(days, weights, [0.1, 0.5, 0.9]);
    const quick = forecastOf(best, wish);
    if ('tooLittle' in quick) {
      expect(slow[2]! / Math.max(1, slow[0]!)).toBeGreaterThan(7);
      continue;
    }
    expect(Math.abs(quick.never - never / all)).toBeLessThan(0.04);
    for (const [i, own] of [quick.days.p10, quick.days.p50, quick.days.p90].entries())
      expect(Math.abs(own - slow[i]!)).toBeLessThan(0.5 + 0.12 * slow[i]!);
  }
});

test('80 % of players reach the tempo between the early and the late day, evenly over the days between, and “never” is right', () => {
  /** Before the early day, up to the middle one, up to the late one, and after it. */
  const ranks = [0, 0, 0, 0];
  let [held, told, never, neverTold] = [0, 0, 0, 0];
  const players = Math.max(120, cases(400));
  for (let seed = 1; seed <= players; seed++) {
    const { path, normal, random } = playerOf(seed);
    const best = daysOf(path, 5 + Math.floor(12 * random()), 25, normal);
    const wish = { bpm: CEILING * (0.8 + 0.2 * random()), minutesADay: 25, ownCeilingBpm: CEILING };
    const answer = forecastOf(best, wish);
    const reached = truth(path, wish, best[best.length - 1]!.minutes);
    if ('tooLittle' in answer) continue;
    never += Number(reached === Infinity);
    neverTold += answer.never;
    // Whoever is there already is told so; there is nothing to forecast.
    if (reached === Infinity || answer.days.p90 === 0) continue;
    told += 1;
    const { p10, p50, p90 } = answer.days;
    held += Number(reached >= p10 - 1e-9 && reached <= p90 + 1e-9);
    ranks[[p10, p50, p90].filter((day) => reached >= day).length]! += 1;
  }
  expect(told).toBeGreaterThan(players / 6);
  expect(held / told).toBeGreaterThan(0.74);
  expect(held / told).toBeLessThan(0.88);
  // Chi-square of three degrees of freedom: 11.3 is passed once in a hundred times.
  const expected = [0.1, 0.4, 0.4, 0.1].map((share) => share * told);
  expect(ranks.reduce((sum, count, i) => sum + (count - expected[i]!) ** 2 / expected[i]!, 0)).toBeLessThan(11.3);
  expect(Math.abs(never - neverTold) / players).toBeLessThan(0.05);
});

test('few days, or days that say too little, are said to be so', () => {
  const wish = { bpm: 110, minutesADay: 20, ownCeilingBpm: CEILING };
  expect(forecastOf([], wish)).toEqual({ tooLittle: 'few-days', days: 0 });
  // Just below the tempo wanted, on a path that is nearly level: it may be tomorrow, or next year.
  const level = [100, 200, 300, 400].map((minutes) => ({ minutes, bpm: 108 }));
  expect(forecastOf(level, { bpm: 110, minutesADay: 1, ownCeilingBpm: 112 })).toEqual({ tooLittle: 'wide', days: 4 });
});

test('who is there already has no day to wait, and a tempo far above all that hands allow is not on this path', () => {
  const there = [20, 40, 60, 80, 100].map((minutes) => ({ minutes, bpm: 112 }));
  const now = forecastOf(there, { bpm: 90, minutesADay: 20, ownCeilingBpm: CEILING });
  expect(now).toMatchObject({ days: { p10: 0, p50: 0, p90: 0 } });
  const far = forecastOf(there, { bpm: 400, minutesADay: 20, ownCeilingBpm: CEILING });
  expect('never' in far && far.never).toBeGreaterThan(0.99);
});

test('more minutes a day bring the day nearer in proportion', () => {
  const { path, normal } = playerOf(8);
  const best = daysOf({ ...path, g: 0.5, r: 120, c: Math.log(120) }, 8, 20, normal);
  const at = (minutesADay: number) => forecastOf(best, { bpm: 110, minutesADay, ownCeilingBpm: CEILING });
  const [slow, quick] = [at(10), at(40)];
  if ('tooLittle' in slow || 'tooLittle' in quick) throw new Error('expected an answer to both');
  expect(slow.days.p50).toBeCloseTo(4 * quick.days.p50, 6);
});

test('the fan begins where the days are, never falls, and passes the tempo wanted on the middle day told', () => {
  const { normal } = playerOf(8);
  const best = daysOf({ g: 0.5, r: 120, c: Math.log(120) }, 8, 20, normal);
  const wish = { bpm: 110, minutesADay: 20, ownCeilingBpm: CEILING };
  const answer = forecastOf(best, wish);
  if ('tooLittle' in answer) throw new Error('expected an answer');
  const fan = forecastFan(best, wish, [0, 5, 10, 20, 40, 80]);
  expect(Math.abs(Math.log(fan[0]!.median / best[7]!.bpm))).toBeLessThan(0.1);
  for (const [i, { low, median, high }] of fan.entries()) {
    expect(low).toBeLessThanOrEqual(median);
    expect(median).toBeLessThanOrEqual(high);
    if (i > 0) expect(median).toBeGreaterThanOrEqual(fan[i - 1]!.median);
  }
  // Half of all draws are there when the median is; those that never come to it are not among the days told.
  const [at] = forecastFan(best, wish, [answer.days.p50]);
  expect(Math.abs(Math.log(at!.median / 110))).toBeLessThan(0.02);
});

test('a tune of one stretch waits as long as that; of two the days add up, since they share the minutes', () => {
  const { normal } = playerOf(8);
  const best = daysOf({ g: 0.5, r: 120, c: Math.log(120) }, 8, 20, normal);
  const wish = { bpm: 110, minutesADay: 20 };
  const one = forecastOf(best, { ...wish, ownCeilingBpm: CEILING });
  const stretch = { best, ownCeilingBpm: CEILING };
  const [alone, two] = [forecastTune([stretch], wish), forecastTune([stretch, stretch], wish)];
  if ('tooLittle' in one || 'tooLittle' in alone || 'tooLittle' in two) throw new Error('expected answers');
  expect(Math.abs(alone.days.p50 / one.days.p50 - 1)).toBeLessThan(0.05);
  // Every day of the one with every day of the other.
  const { days, weights } = reachedDays(best, { ...wish, ownCeilingBpm: CEILING });
  const shares = Array.from({ length: 199 }, (_, i) => (i + 1) / 200);
  const each = weightedQuantiles(days, weights, shares);
  const sums = each.flatMap((a) => each.map((b) => a + b)).sort((a, b) => a - b);
  expect(Math.abs(two.days.p50 / sums[Math.floor(sums.length / 2)]! - 1)).toBeLessThan(0.08);
  expect(two.never).toBeCloseTo(1 - (1 - one.never) ** 2, 9);
  expect(forecastTune([stretch, { ...stretch, best: [] }], wish)).toEqual({ tooLittle: 'few-days', days: 0 });
  expect(forecastTune([], wish)).toEqual({ tooLittle: 'few-days', days: 0 });
});
