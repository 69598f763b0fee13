import { reportTune } from '#core/report';
import { MISTAKE_KINDS } from '#core/take';
import { marked, takeReel } from '../testing/takeTrials';
import { mistakeAt, placesOf, simulate } from '.';
import { inRoom, withNoise } from './room';

const report = reportTune(takeReel(), { bpm: 90 });
const SPAN = { from: 0, to: 24 };
const RATE = 22050;
const take = (options: Parameters<typeof simulate>[1] = {}) =>
  simulate(report, { span: SPAN, sampleRate: RATE, player: 'steady', seed: 3, ...options });
const power = (samples: Float32Array) => samples.reduce((sum, x) => sum + x * x, 0) / samples.length;

test('the same seed plays the same samples, another seed others, and never beyond full scale', () => {
  const [one, same, other] = [take(), take(), take({ seed: 4 })];
  expect(same.samples).toEqual(one.samples);
  expect(other.samples).not.toEqual(one.samples);
  expect(one.samples.every((x) => Math.abs(x) <= 1)).toBe(true);
});

test('noise is so many decibels under what is played', () => {
  const { samples } = take();
  const noisy = withNoise(samples, 20, 5);
  const noise = noisy.map((x, i) => x - samples[i]!);
  expect(Math.abs(10 * Math.log10(power(samples) / power(noise)) - 20)).toBeLessThan(2);
});

test('in a room a click has died away by sixty decibels after its time of echo, and dry it is as it was', () => {
  const click = new Float32Array(RATE);
  click[0] = 1;
  expect(inRoom(click, RATE, 0)).toEqual(click);
  const echoed = inRoom(click, RATE, 0.4);
  const energy = (from: number, to: number) => power(echoed.subarray(from * RATE, to * RATE));
  const fall = 10 * Math.log10(energy(0.05, 0.1) / energy(0.25, 0.3));
  // A fall of 60 dB in 0.4 s is one of 30 dB in 0.2 s.
  expect(Math.abs(fall - 30)).toBeLessThan(6);
});

test('the truth tells when each note began, in order, and which were not played', () => {
  const { truth } = take({ mistakes: [mistakeAt('left-out', 10)] });
  expect(truth.notes.map(({ index }) => index)).toEqual(Array.from({ length: 24 }, (_, i) => i));
  expect(truth.notes.filter(({ played }) => !played).map(({ index }) => index)).toEqual([10]);
  const onsets = truth.notes.flatMap(({ onset }) => onset ?? []);
  expect(onsets.every((onset, i) => i === 0 || onset > onsets[i - 1]!)).toBe(true);
});

test('a note that is to be so much out of tune is so in all', () => {
  const index = placesOf(report, 'sharp').find((i) => i > 4 && i < 20)!;
  const { truth } = take({ player: 'shaky', mistakes: [mistakeAt('sharp', index, 24)] });
  expect(truth.notes[index]!.cents).toBe(24);
});

test('each kind of mistake changes what is played, wherever it can be made', () => {
  const full = reportTune(marked(takeReel()), { bpm: 76 });
  for (const kind of MISTAKE_KINDS) {
    const [index] = placesOf(full, kind).filter((i) => i > 6);
    if (index === undefined) continue;
    const span = { from: Math.max(0, index - 8), to: Math.min(full.unrolled.notes.length, index + 8) };
    const options = { span, sampleRate: 8000, seed: 9, player: 'steady' } as const;
    const plain = simulate(full, options);
    const wrong = simulate(full, { ...options, mistakes: [mistakeAt(kind, index)] });
    const isOther =
      wrong.samples.length !== plain.samples.length || wrong.samples.some((x, i) => x !== plain.samples[i]);
    expect([kind, isOther]).toEqual([kind, true]);
    expect(wrong.truth.mistakes).toMatchObject([{ kind, index }]);
  }
});
