import { midiOf } from '#core/pitch';
import { parseTuning, STANDARD_TUNING, tensionRatio, tuningFigures, tuningName, TUNINGS } from './tunings';

test('tension grows by 26 % for a tone up and falls by 44 % for a fourth down', () => {
  expect(tensionRatio(2)).toBeCloseTo(1.26, 2);
  expect(tensionRatio(-5)).toBeCloseTo(0.561, 3);
  expect(tensionRatio(0)).toBe(1);
  // Twice the frequency takes four times the tension.
  expect(tensionRatio(12)).toBe(4);
});

test('two changes one after the other are as one of both', () => {
  for (const [a, b] of [
    [2, 3],
    [-5, 2],
    [7, -12],
  ] as const)
    expect(tensionRatio(a) * tensionRatio(b)).toBeCloseTo(tensionRatio(a + b), 12);
});

test('A3 E4 A4 E5 raises two strings by a tone, and the whole by what they weigh', () => {
  const figures = tuningFigures('x', parseTuning('A3 E4 A4 E5')!);
  expect(figures.semitones).toEqual([2, 2, 0, 0]);
  expect(figures.neighbourSemitones).toEqual([7, 5, 7]);
  // (44.5 + 44) of 218.5 newtons grow by 2^(1/3).
  expect(figures.totalTensionRatio).toBeCloseTo(1 + (88.5 / 218.5) * (2 ** (1 / 3) - 1), 9);
});

test('every named tuning is written low to high with octaves, and read back', () => {
  for (const { tuning } of TUNINGS) {
    const midis = tuning.map(midiOf);
    expect([...midis].sort((a, b) => a - b)).toEqual(midis);
    expect(parseTuning(tuningName(tuning))).toEqual(tuning);
  }
  expect(tuningName(STANDARD_TUNING)).toBe('G3 D4 A4 E5');
});

test.each(['', 'G3 D4 A4', 'G3 D4 A4 E5 B5', 'G D A E', 'G3,D4,A4,E5', 'H3 D4 A4 E5'])('%j is no tuning', (text) => {
  expect(parseTuning(text)).toBeNull();
});
