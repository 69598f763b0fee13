import { bowSchedule } from './schedule';
import { fadeTo, REFERENCE_CONTACT, toneOf, toneWindow } from './toneWindow';
import { nominalLength } from './travel';

test('the max weight grows with speed over contact, the min with speed over contact squared', () => {
  const { min, max } = toneWindow(35, REFERENCE_CONTACT);
  const quicker = toneWindow(70, REFERENCE_CONTACT);
  const nearer = toneWindow(35, REFERENCE_CONTACT / 2);
  expect([quicker.min / min, quicker.max / max]).toEqual([2, 2]);
  expect(nearer.min / min).toBeCloseTo(4, 12);
  expect(nearer.max / max).toBeCloseTo(2, 12);
});

test('close to the bridge no weight fits any more', () => {
  // 1.25·r and 0.12·r² meet where r = 1.25/0.12.
  const meeting = REFERENCE_CONTACT / (1.25 / 0.12);
  const { min, max } = toneWindow(35, meeting);
  expect(min).toBeCloseTo(max, 9);
  expect(toneWindow(35, meeting / 2).min).toBeGreaterThan(toneWindow(35, meeting / 2).max);
});

test('too much weight scratches, too little whistles', () => {
  expect(toneOf(35, REFERENCE_CONTACT, 0.6)).toBe('clean');
  expect(toneOf(35, REFERENCE_CONTACT, 1.3)).toBe('scratch');
  expect(toneOf(35, REFERENCE_CONTACT, 0.1)).toBe('whistle');
  expect(toneOf(8, REFERENCE_CONTACT, 0.6)).toBe('scratch');
});

test('a fade gets lighter, slower and moves toward the fingerboard, and what spoke speaks to its end', () => {
  for (const speed of [15, 35, 60])
    for (const contact of [0.06, REFERENCE_CONTACT, 0.15, 0.2]) {
      const { min, max } = toneWindow(speed, contact);
      for (const weight of [1.01 * min, Math.sqrt(min * max), 0.99 * max]) {
        const fade = fadeTo(speed, speed / 3, contact, weight);
        expect(fade.contact).toBeGreaterThanOrEqual(contact);
        expect(fade.weight).toBeLessThan(weight);
        expect(toneOf(speed / 3, fade.contact, fade.weight)).toBe('clean');
      }
    }
  expect(fadeTo(35, 12, REFERENCE_CONTACT, 0.6).contact).toBeCloseTo(1.5 * REFERENCE_CONTACT, 12);
});

test('both schools draw the nominal length at dance tempo; short strokes keep it, the whole bow comes down to it', () => {
  const short = bowSchedule('short-strokes', { seconds: 0.3, danceBpm: 110, speed: 45, hairCm: 63 });
  const whole = bowSchedule('whole-bow', { seconds: 0.5, danceBpm: 110, speed: 45, hairCm: 63 });
  const nominal = nominalLength(0.3, 45);
  expect(short.map(({ cm }) => cm)).toEqual(short.map(() => nominal));
  expect(whole[0]!.cm).toBeCloseTo(0.9 * 63, 9);
  expect(whole[5]!.cm).toBeCloseTo(nominalLength(0.5, 45), 9);
  expect(short[0]!.bpm).toBe(55);
  expect(short[5]!.bpm).toBe(110);
  // Half the tempo, half the speed for the same length.
  expect(short[0]!.speed).toBeCloseTo(short[5]!.speed / 2, 9);
});

test('a whole bow is not asked of a stroke too short for it: it is drawn no quicker than calmly', () => {
  const short = bowSchedule('whole-bow', { seconds: 0.14, danceBpm: 110, speed: 45, hairCm: 63 });
  for (const { speed } of short) expect(speed).toBeLessThanOrEqual(80 + 1e-9);
  expect(short[0]!.cm).toBeCloseTo(80 * 0.28, 9);
  expect(short[5]!.cm).toBeCloseTo(nominalLength(0.14, 45), 9);
  for (let i = 1; i < short.length; i++) expect(short[i]!.cm).toBeLessThan(short[i - 1]!.cm);
});
