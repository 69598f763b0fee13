import { cleanChance, marginsAt } from '#core/ability';
import { seeded } from '../testing/tunes';
import {
  beginTempoLadder,
  held,
  ladderStart,
  ladderSteps,
  type LadderWish,
  nextRung,
  repeated,
  stretchStart,
  type TempoLadder,
} from './tempoLadder';

const WISH: LadderWish = {
  wishBpm: 109,
  startBpm: 66,
  stepPercent: 4,
  cleanInARow: 3,
  capMinutes: 60,
  known: null,
};
const played = (ladder: TempoLadder, repetitions: string) =>
  [...repetitions].reduce((own, one) => repeated(own, one === 'c', 0.1), ladder);

test('three clean in a row are a step up, two misses in a row a step down', () => {
  const ladder = beginTempoLadder(WISH);
  expect(played(ladder, 'cc').bpm).toBe(66);
  expect(played(ladder, 'ccc').bpm).toBeCloseTo(66 * 1.04, 9);
  expect(played(ladder, 'ccmcc').bpm).toBe(66);
  expect(played(ladder, 'cccmm').bpm).toBeCloseTo(66, 9);
  expect(played(ladder, 'mcm').bpm).toBe(66);
});

test('it never goes above the tempo wanted, ends there after clean ones, and stays ended', () => {
  for (let seed = 1; seed <= 50; seed++) {
    const random = seeded(seed);
    let ladder = beginTempoLadder({ ...WISH, cleanInARow: 1 + (seed % 6), stepPercent: 3 + (seed % 4) });
    for (let i = 0; i < 400 && !ladder.ended; i++) {
      ladder = repeated(ladder, random() < 0.85, 0.1);
      expect(ladder.bpm).toBeLessThanOrEqual(WISH.wishBpm);
    }
    expect(repeated(ladder, false, 1)).toEqual(ladder.ended ? ladder : expect.anything());
  }
  expect(played(beginTempoLadder({ ...WISH, startBpm: 109 }), 'ccc').ended).toBe('wish');
});

test('it ends when its minutes are over', () => {
  const ladder = beginTempoLadder({ ...WISH, capMinutes: 1 });
  expect(repeated(repeated(ladder, true, 0.5), true, 0.6).ended).toBe('cap');
});

test('held, it never steps on, and goes on when it is let go', () => {
  const ladder = held(beginTempoLadder(WISH), true);
  expect(played(ladder, 'cccccc').bpm).toBe(66);
  expect(played(ladder, 'mm').bpm).toBeLessThan(66);
  expect(played(held(played(ladder, 'cccccc'), false), 'ccc').bpm).toBeGreaterThan(66);
});

test('an air goes down: from a little faster to the slow tempo that is wanted', () => {
  const air: LadderWish = { ...WISH, wishBpm: 60, startBpm: 75 };
  const steps = ladderSteps(air);
  expect(steps[0]).toBe(75);
  expect(steps[steps.length - 1]).toBe(60);
  expect([...steps].sort((a, b) => b - a)).toEqual(steps);
  expect(played(beginTempoLadder(air), 'cccmm').bpm).toBeCloseTo(75, 9);
});

test('with nothing known it begins at 0.6 of the wish, at most at 0.8 of the ceiling', () => {
  expect(ladderStart(110, 200, null)).toBeCloseTo(66);
  expect(ladderStart(110, 60, null)).toBeCloseTo(48);
  expect(ladderStart(110, null, null)).toBeCloseTo(66);
});

test('with something known it begins where nine of ten come out clean, and steps where four of five do', () => {
  const known = { margins: { stroke: -0.1, crossing: 0.05 }, ability: { crossing: 0.02 } };
  const start = ladderStart(110, 90, known);
  expect(cleanChance(marginsAt(known.margins, 110, start), known.ability)).toBeCloseTo(0.9, 6);
  const wish: LadderWish = { ...WISH, wishBpm: 110, startBpm: start, known };
  const next = nextRung({ wish, bpm: start });
  const chance = cleanChance(marginsAt(known.margins, 110, next), known.ability);
  expect(next).toBeLessThanOrEqual(start * 1.04 + 1e-9);
  expect(chance).toBeGreaterThanOrEqual(0.8 - 1e-6);
  // Where it would stand still it goes on by a quarter of a step.
  expect(nextRung({ wish, bpm: 108 })).toBeCloseTo(108 * 1.01, 9);
});

test('quick hands do not know notes that were never clean: a stretch begins near what it was played at', () => {
  const known = { margins: { stroke: 1 }, ability: {} };
  expect(ladderStart(110, null, known)).toBe(110);
  expect(stretchStart(110, null, known, null)).toBeCloseTo(66);
  expect(stretchStart(110, null, known, 70)).toBeCloseTo(72.8);
  expect(stretchStart(110, null, known, 109)).toBe(110);
  // Where the hands have no time for what once came out clean, their figure holds.
  const slow = { margins: { stroke: -0.3 }, ability: {} };
  expect(stretchStart(110, null, slow, 109)).toBe(ladderStart(110, null, slow));
});

test('the steps ahead rise by the step to the wish', () => {
  const steps = ladderSteps(WISH);
  expect(steps.slice(0, 3).map((bpm) => Math.round(10 * bpm) / 10)).toEqual([66, 68.6, 71.4]);
  expect(steps[steps.length - 1]).toBe(109);
});
