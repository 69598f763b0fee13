import { cases } from '../testing/share';
import { takeReel, takeTrials } from '../testing/takeTrials';
import { withoutConsequences } from './consequences';
import type { TakeFinding } from './finding';
import { median, quantile } from './measure';
import type { MistakeKind } from './mistakes';

const sum = (counts: Partial<Record<string, number>>) => Object.values(counts).reduce<number>((a, b) => a + b!, 0);

test('of seeded takes in rooms and noise hardly a note is lost, beginnings and pitches hold, mistakes are found and few are invented', () => {
  const tally = takeTrials([takeReel()], { takes: Math.max(6, cases(60)), noise: [25, 40], seed: 3 });
  expect((tally.heard - tally.derailed) / tally.notes).toBeGreaterThanOrEqual(0.97);
  expect(median(tally.onsetMs)).toBeLessThanOrEqual(8);
  expect(quantile(tally.onsetMs, 0.9)).toBeLessThanOrEqual(25);
  expect(median(tally.cents)).toBeLessThanOrEqual(5);
  expect(quantile(tally.cents, 0.9)).toBeLessThanOrEqual(15);
  expect(sum(tally.found) / sum(tally.made)).toBeGreaterThanOrEqual(0.8);
  expect((200 * sum(tally.falseAlarms)) / tally.notes).toBeLessThan(3);
});

test('at 15 dB there are no more false alarms than at 25, only fewer findings', () => {
  const tally = takeTrials([takeReel()], { takes: Math.max(3, cases(30)), noise: [15, 15], seed: 4, kinds: [] });
  expect((tally.heard - tally.derailed) / tally.notes).toBeGreaterThanOrEqual(0.97);
  expect((200 * sum(tally.falseAlarms)) / tally.notes).toBeLessThan(3);
});

test('what follows of itself from a mistake beside it is not told', () => {
  const finding = (code: MistakeKind, index: number): TakeFinding => ({
    code,
    notes: [index],
    loop: 0,
    seconds: index,
    figure: 1,
    unit: 'ms',
    uncertainty: 0,
    threshold: 1,
    drill: null,
  });
  const told = [
    finding('late-finger', 5),
    finding('hold-cut-short', 4),
    finding('hold-cut-short', 9),
    finding('sharp', 5),
  ];
  expect(withoutConsequences(told).map(({ code, notes }) => `${code} ${notes[0]}`)).toEqual([
    'late-finger 5',
    'hold-cut-short 9',
    'sharp 5',
  ]);
});
