import { straysOf } from './closer';
import type { ExpectedNote } from './expected';
import { onsetOf } from './onset';
import { distinctPartials, envelopeOf, ownPartials, pitchCurve, tracksOf } from './partials';
import { RATE } from './resample';

/** A tone of partials 1/k that begins at a time and may glide by so many cents a second. */
function tone(hertz: number, { seconds = 1, from = 0, amplitude = 0.2, centsPerSecond = 0 } = {}): Float32Array {
  const rate = (centsPerSecond * Math.LN2) / 1200;
  return Float32Array.from({ length: seconds * RATE }, (_, n) => {
    const t = n / RATE - from;
    if (t < 0) return 0;
    const phase = 2 * Math.PI * hertz * (rate === 0 ? t : (Math.exp(rate * t) - 1) / rate);
    return amplitude * [1, 2, 3, 4].reduce((sum, k) => sum + Math.sin(k * phase) / k, 0);
  });
}
const SPAN = { from: 0.2, to: 0.8, step: 0.01, window: 0.04 };

test('a partial has the amplitude that it was made with', () => {
  for (const k of [1, 2, 3, 4]) {
    const level = envelopeOf(tracksOf(tone(440), 440, [k], SPAN));
    for (const value of level) expect(value).toBeCloseTo(0.2 / k, 3);
  }
});

test('the pitch is read to a tenth of a cent, off by up to a quarter tone, and follows a glide', () => {
  for (const cents of [-50, -3, 0, 0.5, 20, 50]) {
    const curve = pitchCurve(tracksOf(tone(440 * 2 ** (cents / 1200)), 440, [1, 2, 3], SPAN));
    for (const point of curve) expect(Math.abs(point.cents - cents)).toBeLessThan(0.1);
  }
  const glide = pitchCurve(tracksOf(tone(440, { centsPerSecond: 40 }), 440, [1, 2], SPAN));
  for (const point of glide) expect(Math.abs(point.cents - 40 * point.time)).toBeLessThan(0.3);
});

test('partials that another pitch has as well are left out; of an octave above none is its own', () => {
  expect(distinctPartials(440, [])).toHaveLength(8);
  // A fifth: each second partial of the upper one is a third one of the lower.
  expect(distinctPartials(660, [440])).toEqual([1, 3, 5, 7]);
  expect(distinctPartials(880, [440])).toEqual([]);
  expect(ownPartials(880, [440])).toHaveLength(6);
});

const note = (hertz: number, more: Partial<ExpectedNote> = {}) =>
  ({ hertz, begins: [hertz], secondHertz: null, ...more }) as ExpectedNote;

test('a beginning is found within four milliseconds, alone, after another note and over a string that sounds on', () => {
  const before = note(440);
  const held = tone(440).map((x, n) => (n < 0.5 * RATE ? x : 0));
  const drone = tone(293.66, { amplitude: 0.1 });
  const own = tone(493.88, { from: 0.5 });
  const next = note(493.88);
  for (const samples of [own, own.map((x, n) => x + held[n]!), own.map((x, n) => x + drone[n]!)]) {
    const onset = onsetOf(samples, { ...next, secondHertz: 293.66 }, before, 0.51, { from: 0.3, to: 0.9 });
    expect(Math.abs(onset.seconds - 0.5)).toBeLessThan(0.004);
    expect(onset.uncertaintyMs).toBeLessThan(10);
  }
});

test('where nothing begins the rough time stays, with a wide interval', () => {
  expect(onsetOf(tone(440), note(440), null, 0.5, { from: 0.3, to: 0.9 })).toEqual({ seconds: 0.5, uncertaintyMs: 25 });
});

test('frames of one other pitch are one stretch', () => {
  const frame = (time: number, midi: number, isOther: boolean) => ({ time, midi, isOther, own: 0, best: 1, level: 0 });
  const frames = [frame(0, 60, false), frame(0.01, 62, true), frame(0.02, 62, true), frame(0.03, 64, true)];
  expect(straysOf(frames).map(({ midi, from, to }) => [midi, Math.round(1000 * (to - from))])).toEqual([
    [62, 20],
    [64, 10],
  ]);
});
