import { newFiddle, withChecks } from '#contract/pegs';
import {
  checkOf,
  forecastOf,
  isNewString,
  keptReadings,
  NO_SESSIONS,
  shownCents,
  sinceTuned,
  withReading,
  withTuned,
  withTurned,
} from './tuningSession';

const ID = '0b0d6a3e-2f4c-4c0a-8a51-8e9b7c1d2e3f';
const NOW = Date.parse('2026-11-25T12:00:00Z');
const read = (sessions = NO_SESSIONS, from = 0, count = 8, cents = 0) =>
  Array.from({ length: count }).reduce<typeof NO_SESSIONS>(
    (before, _, i) => withReading(before, 'D', from + i / 100, cents),
    sessions,
  );

test('what is shown is the middle of the last readings, and nothing while there are none', () => {
  expect(shownCents(NO_SESSIONS.D)).toBeNull();
  expect(shownCents(read(read(NO_SESSIONS, 0, 8, -40), 1, 8, 2).D)).toBeCloseTo(2, 9);
  expect(read().G.readings).toEqual([]);
});

test('drift begins when the string stands and is forgotten when its peg is turned; the change is remembered', () => {
  const stood = withTuned(read(), 'D', 0.5, 2);
  const drifted = read(stood, 1, 4, -3);
  expect(sinceTuned(drifted.D).map(({ cents }) => cents)).toEqual([-3, -3, -3, -3]);
  expect(sinceTuned(drifted.D)[0]!.minutes).toBeCloseTo(0.5, 9);
  const turned = withTurned(drifted, 'D');
  expect(sinceTuned(turned.D)).toEqual([]);
  expect(turned.D.change).toBe(2);
});

test('a forecast without readings is the guess, with them it follows them', () => {
  const stood = withTuned(NO_SESSIONS, 'D', 0, 2);
  const guess = forecastOf(2, false, stood.D);
  expect(guess.creep.readings).toBe(0);
  let quick = stood;
  for (let i = 0; i < 60; i++) quick = withReading(quick, 'D', i / 20, -(i / 20) * 4);
  expect(forecastOf(2, false, quick.D).check!).toBeLessThan(guess.check!);
  expect(forecastOf(0, false, stood.D).check).toBeNull();
});

test('a check is kept with its times and comes back as a reading of the same tuning', () => {
  const sessions = read(withTuned(read(), 'D', 0, 2), 3, 8, -4);
  const check = checkOf('D', sessions.D, { minutes: 3.5, change: 2, isNew: false, now: NOW })!;
  expect(check).toMatchObject({ place: 'D', change: 2, cents: -4, at: '2026-11-25T12:00:00.000Z' });
  const kept = keptReadings(withChecks(newFiddle(ID, 'x'), [check]), 'D')!;
  expect(kept.readings[0]!.minutes).toBeCloseTo(3.5, 6);
  expect(checkOf('D', read().D, { minutes: 1, change: 2, isNew: false, now: NOW })).toBeNull();
  expect(keptReadings(newFiddle(ID, 'x'), 'D')).toBeNull();
});

test('a string is new for a fortnight', () => {
  const fiddle = newFiddle(ID, 'x');
  const used = {
    ...fiddle,
    strings: fiddle.strings.map((string, i) => ({ ...string, fittedOn: ['2026-11-20', '2025-10-01', null, null][i]! })),
  };
  expect([0, 1, 2].map((at) => isNewString(used, at, NOW))).toEqual([true, false, false]);
});
