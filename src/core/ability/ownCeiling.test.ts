import { reportTune } from '#core/report';
import { part, tune } from '../testing/tunes';
import { learntTogether, PRIOR_SD } from './learnAbility';
import { kindCeilings, ownCeiling } from './ownCeiling';

const NOTHING = learntTogether([]);

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
    draws: [[0, 0]],
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

test('a stretch holds no lower than the tune it is of, and the way to its first note is none of it', () => {
  const report = reportTune(tune([part('A', 'D4 A4 E5 A4 D4 F#4 A4 D5')], { form: ['A'] }));
  const whole = kindCeilings(report);
  for (let first = 0; first < 6; first++) {
    const own = kindCeilings(report, { first, last: first + 2 });
    for (const [kind, ceiling] of Object.entries(own)) expect(ceiling).toBeGreaterThanOrEqual(whole[kind as 'stroke']!);
  }
  expect(kindCeilings(report, { first: 1, last: 1 })).not.toHaveProperty('crossing');
});
