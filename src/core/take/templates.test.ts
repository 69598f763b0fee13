import { hertzOf } from '#core/pitch';
import { seeded } from '../testing/tunes';
import { emptySpectrum, LONG_WINDOW, templateOf } from './spectra';
import { cosine, Templates } from './templates';

const length = (spectrum: ArrayLike<number>) => Math.sqrt(Array.from(spectrum).reduce((sum, x) => sum + x * x, 0));

test('the cosine is the sum of products, four at a time or one by one', () => {
  const random = seeded(5);
  for (let n = 0; n < 20; n++) {
    const [a, b] = [emptySpectrum().map(random), emptySpectrum().map(random)];
    expect(cosine(a, b)).toBeCloseTo(
      a.reduce((sum, x, k) => sum + x * b[k]!, 0),
      9,
    );
  }
});

test('a spectrum is of length 1 and agrees with itself fully', () => {
  for (const hertz of [[196], [440], [293.66, 440], [1318.5]]) {
    const one = templateOf(hertz, LONG_WINDOW);
    expect(length(one)).toBeCloseTo(1, 6);
    expect(cosine(one, one)).toBeCloseTo(1, 6);
  }
});

test.each([440, 415])('on a fiddle tuned to %i each pitch is told from all others by its own spectrum', (a4) => {
  const templates = new Templates(a4, LONG_WINDOW);
  for (let midi = 55; midi <= 88; midi++) {
    const heard = templateOf([hertzOf(midi, a4)], LONG_WINDOW);
    expect(templates.best(heard)).toEqual({ midi, score: expect.closeTo(1, 6) });
    expect(templates.midiOf(hertzOf(midi, a4))).toBeCloseTo(midi, 9);
  }
});

test('a fiddle tuned a semitone lower, listened to as one that is not, sounds a semitone lower', () => {
  const heard = templateOf([hertzOf(69, hertzOf(68, 440))], LONG_WINDOW);
  expect(new Templates(440, LONG_WINDOW).best(heard).midi).toBe(68);
});

test('over an open string the finger that was meant agrees best, and another is told from it', () => {
  const templates = new Templates(440, LONG_WINDOW);
  const drone = hertzOf(62, 440);
  for (const midi of [69, 71, 72]) {
    const heard = templateOf([hertzOf(midi, 440), drone], LONG_WINDOW);
    const own = templates.agreement([hertzOf(midi, 440), drone], heard);
    expect(own).toBeCloseTo(1, 6);
    // Whichever finger near it was meant.
    for (const meant of [midi, midi - 1, midi + 2])
      expect(templates.bestBeside(heard, meant, drone)).toEqual({ midi, score: expect.closeTo(own, 6) });
    expect(templates.best(heard).score).toBeLessThan(0.9);
  }
});

test('the same pitches are made once', () => {
  const templates = new Templates(440, LONG_WINDOW);
  const before = templates.all.length;
  const id = templates.idOf([440, 660]);
  expect(templates.idOf([440, 660])).toBe(id);
  expect(templates.all.length).toBe(before + 1);
});
