import { nelderMead } from 'fmin';
import { seeded } from '../testing/tunes';
import { cleanChance } from './cleanChance';
import { abilityOf, learnAbility, learntTogether, PRIOR_SD, weightOf } from './learnAbility';
import type { JudgedAttempt } from './likelihood';

const attempt = (margins: JudgedAttempt['margins'], clean: boolean, weight = 1): JudgedAttempt => ({
  margins,
  clean,
  weight,
});

/** The logarithm of the posterior, written out. */
function logPosterior(attempts: readonly JudgedAttempt[], ability: Record<string, number>): number {
  const likely = attempts.reduce((sum, { margins, clean, weight }) => {
    const p = cleanChance(margins, ability);
    return sum + weight * Math.log(clean ? p : 1 - p);
  }, 0);
  return Object.values(ability).reduce((sum, a) => sum - a ** 2 / (2 * PRIOR_SD.guess ** 2), likely);
}

/** A player who is better than the limits by so much. */
function played(truth: Record<string, number>, count: number, seed: number): JudgedAttempt[] {
  const random = seeded(seed);
  return Array.from({ length: count }, () => {
    const margins = Object.fromEntries(Object.keys(truth).map((kind) => [kind, -0.4 + 0.8 * random()]));
    return attempt(margins, random() < cleanChance(margins, truth));
  });
}

test('in one dimension it is where a fine grid has its highest point', () => {
  for (let seed = 1; seed <= 20; seed++) {
    const attempts = played({ stroke: -0.2 + 0.02 * seed }, 5 * seed, seed);
    const { mean } = learnAbility(attempts).stroke!;
    let [best, at] = [-Infinity, 0];
    for (let a = -1.5; a <= 1.5; a += 0.0005) {
      const value = logPosterior(attempts, { stroke: a });
      if (value > best) [best, at] = [value, a];
    }
    expect(Math.abs(mean - at)).toBeLessThan(0.001);
  }
});

test('in several it is where a general optimiser that knows no slopes has its highest point', () => {
  const kinds = ['stroke', 'crossing', 'hop'] as const;
  for (let seed = 1; seed <= 12; seed++) {
    const attempts = played({ stroke: 0.1, crossing: -0.1, hop: 0.25 }, 10 * seed, seed);
    const named = (a: readonly number[]) => Object.fromEntries(kinds.map((kind, i) => [kind, a[i]!]));
    const found = nelderMead((a) => -logPosterior(attempts, named(a)), [0, 0, 0], { minErrorDelta: 1e-11 });
    const own = learnAbility(attempts);
    for (const [i, kind] of kinds.entries()) expect(Math.abs(own[kind]!.mean - found.x[i]!)).toBeLessThan(0.001);
  }
});

/** Middle and width of what players may be, of one kind. */
function spreadOf({ draws }: ReturnType<typeof learntTogether>, kind: number) {
  const figures = draws.map((player) => player[kind]!);
  const middle = figures.reduce((sum, own) => sum + own, 0) / figures.length;
  return { middle, sd: Math.sqrt(figures.reduce((sum, own) => sum + (own - middle) ** 2, 0) / figures.length) };
}

test('players lie as the posterior does: in one dimension as a fine grid has its middle and width', () => {
  for (const [seed, count] of [
    [3, 12],
    [4, 60],
    [5, 300],
  ] as const) {
    const attempts = played({ stroke: 0.15 }, count, seed);
    let [all, first, second] = [0, 0, 0];
    for (let a = -1.5; a <= 1.5; a += 0.001) {
      const weight = Math.exp(logPosterior(attempts, { stroke: a }) - logPosterior(attempts, { stroke: 0.15 }));
      [all, first, second] = [all + weight, first + weight * a, second + weight * a * a];
    }
    const sd = Math.sqrt(second / all - (first / all) ** 2);
    const own = spreadOf(learntTogether(attempts), 0);
    expect(Math.abs(own.middle - first / all)).toBeLessThan(0.3 * sd);
    // Other slopes are thought possible, too: somewhat wider.
    expect(own.sd / sd).toBeGreaterThan(0.9);
    expect(own.sd / sd).toBeLessThan(1.5);
  }
});

test('in several nothing near it is more likely', () => {
  for (let seed = 1; seed <= 20; seed++) {
    const attempts = played({ stroke: 0.1, crossing: -0.1, hop: 0.25 }, 60, seed);
    const own = abilityOf(learnAbility(attempts)) as Record<string, number>;
    const here = logPosterior(attempts, own);
    const random = seeded(1000 + seed);
    for (let i = 0; i < 60; i++) {
      const beside = Object.fromEntries(Object.entries(own).map(([kind, a]) => [kind, a + 0.04 * (random() - 0.5)]));
      expect(logPosterior(attempts, beside)).toBeLessThanOrEqual(here + 1e-9);
    }
  }
});

test('more attempts know more, and what is long ago counts less', () => {
  const width = (count: number) => {
    const { low, high } = learnAbility(played({ stroke: 0.1 }, count, 3)).stroke!;
    return high - low;
  };
  expect(width(200)).toBeLessThan(width(20));
  expect([weightOf(0), weightOf(60), weightOf(-5)]).toEqual([1, expect.closeTo(1 / Math.E, 9), 1]);
});

test.each<[string, readonly JudgedAttempt[]]>([
  ['no attempts', []],
  ['all clean', Array.from({ length: 30 }, () => attempt({ stroke: 0.1 }, true))],
  ['all missed', Array.from({ length: 30 }, () => attempt({ stroke: 0.1, hop: -3 }, false))],
  ['the same clean and missed', [attempt({ shift: 0 }, true), attempt({ shift: 0 }, false)]],
  ['attempts in which nothing was tight', [attempt({}, true), attempt({}, false)]],
  ['margins beyond all measure', [attempt({ stroke: 40 }, false), attempt({ stroke: -40 }, true)]],
])('%s give figures that can be used', (_what, attempts) => {
  for (const { mean, low, high } of Object.values(learnAbility(attempts))) {
    for (const figure of [mean, low, high]) expect(Number.isFinite(figure)).toBe(true);
    expect(low).toBeLessThanOrEqual(mean);
    expect(high).toBeGreaterThanOrEqual(mean);
  }
});
