import { centsFrom, simulatedFiddle, soundingMidi, soundOf, turnPeg, waitMinutes } from '#core/creep';
import { midiOf } from '#core/pitch';
import { PLACES } from '#core/tune';
import { retunePlan, STANDARD_TUNING, TUNINGS } from '#core/tuning';
import { some } from '../../core/testing/share';
import { readCents } from './readPitch';

const RATE = 44_100;
const SAMPLES = 8192;
/** What the page shows is the middle of about a second of readings. */
const middle = (midi: number, target: number, from: number) => {
  const readings = Array.from({ length: 4 }, (_, k) =>
    readCents(soundOf(midi, SAMPLES, RATE, { noise: 0.02, seed: from + k }), RATE, target)!,
  );
  return readings.reduce((sum, cents) => sum + cents, 0) / readings.length;
};

test('the detector reads every open string of the library within a cent, a little off pitch too', () => {
  const open = new Set(TUNINGS.flatMap(({ tuning }) => tuning.map(midiOf)));
  for (const target of some([...open]))
    for (const off of [-0.3, 0.07]) expect(Math.abs(middle(target + off, target, 1) - 100 * off)).toBeLessThan(1);
});

test('silence, noise and another string far off are no reading', () => {
  expect(readCents(new Float32Array(SAMPLES), RATE, 69)).toBeNull();
  expect(readCents(soundOf(62, SAMPLES, RATE), RATE, 76)).toBeNull();
  const noise = Float32Array.from({ length: SAMPLES }, (_, i) => 0.1 * Math.sin(i * i * 0.37));
  expect(readCents(noise, RATE, 69)).toBeNull();
});

test('the plan followed by the detector alone ends within 2 cents on the simulated fiddle', () => {
  const { tuning } = TUNINGS.find(({ name }) => name === 'double D')!;
  const plan = retunePlan(STANDARD_TUNING, tuning);
  if (!plan.ok) throw new Error('implausible');
  let fiddle = simulatedFiddle(STANDARD_TUNING, 5);
  for (const { place, to } of plan.steps)
    for (let tries = 0; tries < 20; tries++) {
      fiddle = waitMinutes(fiddle, 0.05);
      const off = middle(soundingMidi(fiddle, place), midiOf(to), tries * 10);
      if (Math.abs(off) < 0.5) break;
      fiddle = turnPeg(fiddle, place, -off);
    }
  for (const [i, place] of PLACES.entries())
    expect(Math.abs(centsFrom(fiddle, place, midiOf(tuning[i]!)))).toBeLessThanOrEqual(2);
});

test('strings are read against the pitch that fiddles are tuned to', () => {
  const low = soundOf(69, SAMPLES, RATE, { a4: 415 });
  expect(readCents(low, RATE, 69, 415)).toBeCloseTo(0, 0);
  expect(readCents(low, RATE, 69)).toBeCloseTo(1200 * Math.log2(415 / 440), 0);
});
