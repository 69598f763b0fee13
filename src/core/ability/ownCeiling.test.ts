import { normalOf, seeded } from '#core/base';
import { reportTune } from '#core/report';
import { cases } from '../testing/share';
import { part, tune } from '../testing/tunes';
import { cleanChance } from './cleanChance';
import { type JudgedAttempt, learntTogether, PRIOR_SD } from './learnAbility';
import { kindCeilings, ownCeiling } from './ownCeiling';

const NOTHING = learntTogether([]);
const KINDS = ['stroke', 'crossing', 'hop'] as const;

test('of one kind alone it is spread as the kind is: 10, 50 and 90 % in closed form', () => {
  const { low, median, high, binds } = ownCeiling({ stroke: 120 }, NOTHING)!;
  expect(Math.log(median / 120)).toBeCloseTo(0, 1);
  expect(Math.log(high / low)).toBeCloseTo(2 * 1.2816 * PRIOR_SD.guess, 1);
  expect(binds).toEqual({ stroke: 1 });
});

test('what is far above binds never, and what is known well binds by itself', () => {
  const known = {
    kinds: ['stroke', 'crossing'] as const,
    mean: [0, 0],
    covariance: [
      [1e-8, 0],
      [0, 1e-8],
    ],
  };
  const { median, low, high, binds } = ownCeiling({ stroke: 120, crossing: 200 }, known)!;
  for (const bpm of [median, low, high]) expect(bpm).toBeCloseTo(120, 1);
  expect(binds).toEqual({ stroke: 1 });
});

test('two kinds alike bind half of the time each, and the lowest of two is lower than one', () => {
  const { binds, median } = ownCeiling({ stroke: 120, crossing: 120 }, NOTHING)!;
  expect(binds.stroke! + binds.crossing!).toBeCloseTo(1, 9);
  expect(Math.abs(binds.stroke! - 0.5)).toBeLessThan(0.06);
  expect(median).toBeLessThan(118);
});

test('before anything is logged the middle is at the default ceiling or below, and a tune without notes has none', () => {
  const report = reportTune(tune([part('A', 'D4 A4 E5 A4 D4 F#4 A4 D5')], { form: ['A', 'A'] }));
  const ceilings = kindCeilings(report);
  expect(Math.min(...Object.values(ceilings))).toBeCloseTo(report.figures.check.ceiling!.ceilingBpm, 9);
  expect(ownCeiling(ceilings, NOTHING)!.low).toBeLessThan(report.figures.check.ceiling!.ceilingBpm);
  expect(ownCeiling({}, NOTHING)).toBeNull();
});

test('80 % of players have their own ceiling within its interval, and it is nearer than the guess', () => {
  const players = Math.max(100, cases(400));
  const ceilings = { stroke: 118, crossing: 110, hop: 130 };
  let held = 0;
  const errors: { own: number; guess: number }[] = [];
  for (let seed = 1; seed <= players; seed++) {
    const random = seeded(seed);
    const normal = normalOf(random);
    const truth = Object.fromEntries(KINDS.map((kind) => [kind, PRIOR_SD.guess * normal()]));
    const attempts = Array.from({ length: 120 }, (): JudgedAttempt => {
      const margins = Object.fromEntries(KINDS.map((kind) => [kind, -0.5 + 0.9 * random()]));
      return { margins, clean: random() < cleanChance(margins, truth), weight: 1 };
    });
    const own = Math.min(...KINDS.map((kind) => ceilings[kind] * Math.exp(truth[kind]!)));
    const { low, median, high } = ownCeiling(ceilings, learntTogether(attempts))!;
    held += Number(own >= low && own <= high);
    errors.push({ own: Math.abs(Math.log(median / own)), guess: Math.abs(Math.log(110 / own)) });
  }
  expect(held / players).toBeGreaterThan(0.72);
  expect(held / players).toBeLessThan(0.88);
  const middle = (kind: 'own' | 'guess') =>
    errors.map((one) => one[kind]).sort((a, b) => a - b)[Math.floor(players / 2)]!;
  expect(middle('own')).toBeLessThan(0.4 * middle('guess'));
});
