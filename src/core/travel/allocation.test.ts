import { solveQP } from 'quadprog';
import { FULL_SIZE, instrumentWith } from '#core/instrument';
import { reportTune } from '#core/report';
import { counted } from '../testing/reads';
import { part, seeded, tune } from '../testing/tunes';
import {
  allocateTravel,
  allocationCost,
  MIN_SHARE,
  sharedTravel,
  type StrokeWish,
  strokeWishes,
  SWEET_SPOT_WEIGHT,
} from './allocation';
import { rawTravel } from './travel';

/** Strokes that turn each time, with lifts now and then; lengths up to what a long note draws. */
function randomWishes(seed: number, count: number): StrokeWish[] {
  const random = seeded(seed);
  let sign: 1 | -1 = random() < 0.5 ? 1 : -1;
  return Array.from({ length: count }, (_, i) => {
    const isFree = i === 0 || random() < 0.08;
    if (!isFree) sign = sign === 1 ? -1 : 1;
    return { nominalCm: 1 + 44 * random() ** 2, sign, isFree };
  });
}

/** The same objective for a general solver: ½xᵀDx - dᵀx over all points of one chain, Aᵀx ≥ b. Arrays count from 1. */
function generalOptimum(wishes: readonly StrokeWish[], hairCm: number, sweetSpotCm: number): number {
  const n = wishes.length + 1;
  const square = () => Array.from({ length: n + 1 }, () => Array.from({ length: n + 1 }, () => 0));
  const D = square();
  const d = Array.from({ length: n + 1 }, () => 0);
  let constant = 0;
  for (let i = 1; i <= n; i++) {
    D[i]![i]! += (2 * SWEET_SPOT_WEIGHT) / 100;
    d[i]! += (2 * SWEET_SPOT_WEIGHT * sweetSpotCm) / 100;
    constant += (SWEET_SPOT_WEIGHT * sweetSpotCm ** 2) / 100;
  }
  const columns: { at: Record<number, number>; least: number }[] = [];
  for (const [j, { nominalCm, sign }] of wishes.entries()) {
    const [a, b, weight] = [j + 1, j + 2, 1 / nominalCm ** 2];
    D[a]![a]! += 2 * weight;
    D[b]![b]! += 2 * weight;
    D[a]![b]! -= 2 * weight;
    D[b]![a]! -= 2 * weight;
    d[b]! += 2 * weight * sign * nominalCm;
    d[a]! -= 2 * weight * sign * nominalCm;
    constant += 1;
    columns.push({ at: { [a]: -sign, [b]: sign }, least: MIN_SHARE * nominalCm });
  }
  for (let i = 1; i <= n; i++) columns.push({ at: { [i]: 1 }, least: 0 }, { at: { [i]: -1 }, least: -hairCm });
  const A = Array.from({ length: n + 1 }, (_, row) => [0, ...columns.map(({ at }) => at[row] ?? 0)]);
  const { value, message } = solveQP(D, d, A, [0, ...columns.map(({ least }) => least)]);
  expect(message).toBe('');
  return value[1]! + constant;
}

test('the optimum is that of a general quadratic solver, within 1e-6', () => {
  const held = { frog: 0, tip: 0, short: 0 };
  for (let seed = 1; seed <= 120; seed++) {
    const wishes = randomWishes(seed, 3 + (seed % 25)).map((wish, i) => ({ ...wish, isFree: i === 0 }));
    const turned = wishes.map((wish, i) => ({ ...wish, sign: ((i + seed) % 2 === 0 ? 1 : -1) as 1 | -1 }));
    const instrument = instrumentWith({ hairCm: [63, 50, 30][seed % 3]! });
    const strokes = allocateTravel(turned, instrument);
    const cost = allocationCost(turned, strokes, instrument);
    expect([seed, cost - generalOptimum(turned, instrument.hairCm, instrument.sweetSpotCm)]).toEqual([
      seed,
      expect.closeTo(0, 6),
    ]);
    for (const [i, { fromCm, toCm }] of strokes.entries()) {
      if (Math.min(fromCm, toCm) < 1e-7) held.frog += 1;
      if (Math.max(fromCm, toCm) > instrument.hairCm - 1e-7) held.tip += 1;
      if (Math.abs(toCm - fromCm) < MIN_SHARE * turned[i]!.nominalCm + 1e-7) held.short += 1;
    }
  }
  // Each kind of limit is really met somewhere.
  expect(Math.min(held.frog, held.tip, held.short)).toBeGreaterThan(20);
});

test('no stroke leaves the hair or is cut below its least share; one begins where the one before ended', () => {
  for (let seed = 1; seed <= 60; seed++) {
    const wishes = randomWishes(seed, 80);
    const strokes = allocateTravel(wishes, FULL_SIZE);
    for (const [i, { fromCm, toCm }] of strokes.entries()) {
      const { sign, nominalCm, isFree } = wishes[i]!;
      expect(Math.min(fromCm, toCm)).toBeGreaterThan(-1e-9);
      expect(Math.max(fromCm, toCm)).toBeLessThan(FULL_SIZE.hairCm + 1e-9);
      expect(sign * (toCm - fromCm)).toBeGreaterThan(MIN_SHARE * nominalCm - 1e-9);
      if (!isFree) expect(fromCm).toBeCloseTo(strokes[i - 1]!.toCm, 9);
    }
  }
});

test('even strokes about the sweet spot keep nearly their lengths; a shuffle recovers on its short strokes', () => {
  const even = Array.from({ length: 8 }, (_, i) => wish(10, i));
  for (const { fromCm, toCm } of allocateTravel(even, FULL_SIZE)) expect(Math.abs(toCm - fromCm)).toBeCloseTo(9.8, 0);
  // Three-and-one: the single must come back as far as the three went.
  const drifting = Array.from({ length: 40 }, (_, i) => wish(i % 2 === 0 ? 24 : 8, i));
  const lengths = allocateTravel(drifting, FULL_SIZE).map(({ fromCm, toCm }) => Math.abs(toCm - fromCm));
  expect(lengths[20]! - lengths[21]!).toBeLessThan(2);
  expect(lengths[21]!).toBeGreaterThan(9);
});

test('a stroke that is longer than the hair even when cut takes all of it', () => {
  const [stroke] = allocateTravel([wish(45, 0)], { ...FULL_SIZE, hairCm: 10, sweetSpotCm: 4.2 });
  expect(stroke!.fromCm).toBeCloseTo(0, 9);
  expect(stroke!.toCm).toBeCloseTo(10, 9);
});

test('notes share their stroke by time, and each stroke begins where the one before ended', () => {
  const t = tune([part('A', '(D4:2 E4) F#4 (G4 A4 B4) C#5 D5:4')], { start: 'down' });
  const { figures, timing } = reportTune(t);
  const strokes = allocateTravel(strokeWishes(figures.bowed, timing.durations, 45), FULL_SIZE);
  const travel = sharedTravel(figures.bowed, timing.durations, strokes);
  const raw = rawTravel(figures.bowed, timing.durations, 45, FULL_SIZE);
  for (const [i, { bowStartCm, bowEndCm }] of travel.entries()) {
    if (i > 0) expect(bowStartCm).toBeCloseTo(travel[i - 1]!.bowEndCm, 9);
    expect(Math.sign(bowEndCm - bowStartCm)).toBe(Math.sign(raw[i]!.bowEndCm - raw[i]!.bowStartCm));
  }
  const length = (i: number) => travel[i]!.bowEndCm - travel[i]!.bowStartCm;
  expect(length(0) / length(1)).toBeCloseTo(2, 9);
});

function wish(nominalCm: number, i: number): StrokeWish {
  return { nominalCm, sign: i % 2 === 0 ? 1 : -1, isFree: i === 0 };
}

test('a chain longer than any tune’s is shared out in windows, as the whole would be, and in a time that grows with it', () => {
  for (const seed of [1, 2, 3]) {
    const wishes = randomWishes(seed, 1500).map(({ nominalCm }, i): StrokeWish => ({
      nominalCm,
      sign: i % 2 === 0 ? 1 : -1,
      isFree: i === 0,
    }));
    const long = allocateTravel(wishes, FULL_SIZE);
    expect(long).toHaveLength(1500);
    const exact = allocateTravel(wishes.slice(0, 950), FULL_SIZE);
    for (let i = 0; i < 700; i++) expect(Math.abs(long[i]!.toCm - exact[i]!.toCm)).toBeLessThan(0.001);
    for (const [i, { fromCm, toCm }] of long.entries()) {
      if (i > 0) expect(fromCm).toBe(long[i - 1]!.toCm);
      expect(Math.min(fromCm, toCm)).toBeGreaterThan(-1e-9);
      expect(Math.max(fromCm, toCm)).toBeLessThan(FULL_SIZE.hairCm + 1e-9);
    }
  }
});

test('the steps of sharing the hair grow with the strokes, also where every one of them is cut short', () => {
  const steps = (count: number, nominalCm: (i: number) => number) => {
    const wishes = Array.from({ length: count }, (_, i): StrokeWish => ({
      nominalCm: nominalCm(i),
      sign: i % 2 === 0 ? 1 : -1,
      isFree: i === 0,
    }));
    const { value, reads } = counted(wishes);
    allocateTravel(value, FULL_SIZE);
    return reads() / count;
  };
  for (const nominalCm of [
    () => 10,
    () => 60,
    (i: number) => (i % 2 === 0 ? 90 : 20),
    (i: number) => 5 + ((i * 37) % 110),
  ])
    expect(steps(4000, nominalCm) / steps(1200, nominalCm)).toBeLessThan(1.5);
});
