import { midiOf } from '#core/pitch';
import { type Place, PLACES } from '#core/tune';
import { parseTuning, retunePlan, STANDARD_TUNING, type Tuning, TUNINGS } from '#core/tuning';
import { seeded } from '../testing/tunes';
import { creepAt, creepScale, fitCreep, guessedCreep, guessedDrift, nextCheck, type Reading } from './creep';
import {
  centsFrom,
  type SimulatedFiddle,
  simulatedFiddle,
  soundingMidi,
  soundOf,
  turnPeg,
  waitMinutes,
} from './simulatedFiddle';

test('a string goes back 8 % of its change, at most 30 cents, a new one three times as far, half of it in six minutes', () => {
  expect(guessedDrift(2, false)).toBeCloseTo(-16, 9);
  expect(guessedDrift(-5, false)).toBeCloseTo(30, 9);
  expect(guessedDrift(2, true)).toBeCloseTo(-48, 9);
  expect(guessedDrift(0, true)).toBe(-30);
  expect(guessedDrift(0, false)).toBeCloseTo(0, 9);
  const creep = guessedCreep(2);
  expect(creepAt(creep, 6) / creepAt(creep, 1e6)).toBeCloseTo(0.5, 1);
});

test('the next check is when 5 cents are passed; a string that does not go so far needs none', () => {
  const creep = guessedCreep(2);
  const when = nextCheck(creep)!;
  expect(Math.abs(creepAt(creep, when))).toBeCloseTo(5, 2);
  expect(nextCheck(guessedCreep(0.5))).toBeNull();
  expect(nextCheck(creep, 60)).toBe(60);
});

test('readings on a curve of the forecast bring the curve back', () => {
  const truth = {
    offset: 0.4,
    parts: [
      { cents: -3, halfLife: 1.5 },
      { cents: -6, halfLife: 10 },
    ],
    readings: 0,
  };
  const readings = Array.from({ length: 120 }, (_, i) => ({ minutes: i / 4, cents: creepAt(truth, i / 4) }));
  const fitted = fitCreep(2, false, readings);
  for (const t of [1, 5, 15, 30]) expect(Math.abs(creepAt(fitted, t) - creepAt(truth, t))).toBeLessThan(0.5);
});

test('a fiddle whose strings go twice as far is known by its earlier checks; without any it is as guessed', () => {
  const twice = (minutes: number) => ({ minutes, cents: 2 * creepAt(guessedCreep(2), minutes) });
  const checked = [1, 2, 3].map(() => ({ change: 2, isNew: false, readings: [0, 1, 3, 6, 12].map(twice) }));
  expect(creepScale([])).toBe(1);
  expect(creepScale(checked)).toBeGreaterThan(1.5);
  expect(creepScale(checked)).toBeLessThan(2.2);
  // What ended too soon says nothing.
  expect(creepScale([{ change: 2, isNew: false, readings: [twice(0), twice(1)] }])).toBe(1);
  expect(nextCheck(guessedCreep(2, false, creepScale(checked)))!).toBeLessThan(nextCheck(guessedCreep(2))!);
});

test('a slip of the peg is told from the drift', () => {
  const creep = guessedCreep(2);
  const readings = Array.from({ length: 40 }, (_, i) => ({
    minutes: i / 10,
    cents: creepAt(creep, i / 10) - (i >= 20 ? 4 : 0),
  }));
  const fitted = fitCreep(2, false, readings);
  expect(creepAt(fitted, 4)).toBeCloseTo(creepAt(creep, 4) - 4, 0);
});

/** Reads with 1 cent of noise: the only thing the player and the forecast know of the fiddle. */
function reader(seed: number) {
  const random = seeded(seed);
  const gauss = () => Math.sqrt(-2 * Math.log(random() + 1e-12)) * Math.cos(2 * Math.PI * random());
  return (fiddle: SimulatedFiddle, place: Place, target: number) => centsFrom(fiddle, place, target) + gauss();
}

/** Follows the plan's steps by readings alone: turns until the middle of twelve readings is within half a cent. */
function follow(
  fiddle: SimulatedFiddle,
  to: Tuning,
  read: ReturnType<typeof reader>,
): { fiddle: SimulatedFiddle; at: Map<Place, number> } {
  const plan = retunePlan(fiddle.first, to);
  if (!plan.ok) throw new Error('implausible');
  const at = new Map<Place, number>();
  let now = fiddle;
  for (const { place, to: pitch } of plan.steps) {
    for (let tries = 0; tries < 24; tries++) {
      now = waitMinutes(now, 0.05);
      let sum = 0;
      for (let k = 0; k < 12; k++) sum += read(now, place, midiOf(pitch));
      const off = sum / 12;
      if (Math.abs(off) < 0.5) break;
      now = turnPeg(now, place, -off);
    }
    at.set(place, now.minutes);
  }
  return { fiddle: now, at };
}

test('following the plan on the simulated fiddle ends within 2 cents of every target', () => {
  for (const [i, { tuning }] of TUNINGS.entries())
    for (let seed = 1; seed <= 6; seed++) {
      const read = reader(100 * i + seed);
      const { fiddle } = follow(simulatedFiddle(STANDARD_TUNING, seed + 1000 * i), tuning, read);
      for (const [k, place] of PLACES.entries())
        expect([i, seed, place, Math.abs(centsFrom(fiddle, place, midiOf(tuning[k]!))) <= 2]).toEqual([
          i,
          seed,
          place,
          true,
        ]);
    }
});

test('from readings alone the forecast of the next check is within a fifth of the truth in nine fiddles of ten', () => {
  const tuning = parseTuning('A3 E4 A4 E5')!;
  let good = 0;
  for (let seed = 1; seed <= 50; seed++) {
    const read = reader(seed);
    const { fiddle } = follow(simulatedFiddle(STANDARD_TUNING, seed), tuning, read);
    const target = midiOf(tuning[1]!);
    // Two readings a second for a minute and a half, then it is left alone.
    const readings: Reading[] = [];
    let now = fiddle;
    for (let k = 0; k < 180; k++) {
      readings.push({ minutes: now.minutes - fiddle.minutes, cents: read(now, 'D', target) });
      now = waitMinutes(now, 1 / 120);
    }
    const forecast = nextCheck(fitCreep(2, false, readings));
    let truth = now;
    while (Math.abs(centsFrom(truth, 'D', target)) < 5 && truth.minutes < fiddle.minutes + 120)
      truth = waitMinutes(truth, 0.1);
    const when = truth.minutes - fiddle.minutes;
    const isRight =
      when >= 119 ? forecast === null || forecast > 100 : forecast !== null && Math.abs(forecast - when) <= 0.2 * when;
    if (isRight) good += 1;
  }
  expect(good).toBeGreaterThanOrEqual(45);
});

test('tightening one string lowers the others, and a settled fiddle left alone stays', () => {
  const before = simulatedFiddle(STANDARD_TUNING, 7);
  const after = turnPeg(before, 'G', 200);
  expect(soundingMidi(after, 'G')).toBeGreaterThan(soundingMidi(before, 'G') + 1.8);
  for (const place of ['D', 'A', 'E'] as const)
    expect(soundingMidi(after, place)).toBeLessThan(soundingMidi(before, place));
  const rested = waitMinutes(before, 1);
  expect(soundingMidi(rested, 'A')).toBe(soundingMidi(before, 'A'));
});

test('the same seed gives the same fiddle, another seed another', () => {
  const play = (seed: number) =>
    soundingMidi(waitMinutes(turnPeg(simulatedFiddle(STANDARD_TUNING, seed), 'D', 200), 10), 'D');
  expect(play(3)).toBe(play(3));
  expect(play(3)).not.toBe(play(4));
});

test('the sound of a string repeats with its period', () => {
  const rate = 44100;
  const sound = soundOf(69, 4410, rate, { noise: 0 });
  // 440 Hz: 44 periods in a tenth of a second.
  for (const i of [0, 100, 1000]) expect(sound[i]!).toBeCloseTo(sound[i + 2205]!, 5);
});
