import { DEFAULT_THRESHOLDS, MISTAKE_KINDS } from '#core/take';
import { figureWords, marginWords, mistakeName, mistakeWords, rowWords, takeVerdict, wavFaultWords } from './take';

test.each(MISTAKE_KINDS)('%s is told in a line with its figure, and by a name of its own', (code) => {
  const { unit } = DEFAULT_THRESHOLDS[code];
  const words = mistakeWords({ code, figure: 3, unit });
  expect(words).toMatch(code === 'left-out' ? /^left out$/ : /3/);
  expect(words).not.toMatch(/undefined|NaN/);
  expect(MISTAKE_KINDS.filter((kind) => mistakeName(kind) === mistakeName(code))).toEqual([code]);
});

test('figures have their units, and as many digits as tell something', () => {
  expect(figureWords(29.6, 'cents')).toBe('30 cents');
  expect(figureWords(0.42, 'cents')).toBe('0.4 cents');
  expect(figureWords(1, 'notes')).toBe('1 note');
  expect(figureWords(6.04, 'dB')).toBe('6.0 dB');
  expect(figureWords(30, 'percent')).toBe('30 %');
  expect(marginWords({ unit: 'ms', uncertainty: 12, threshold: 40 })).toBe('± 12 ms, told from 40 ms on');
});

test('the verdict is clean, how much there is to mend, or how little was heard', () => {
  expect(takeVerdict(true, 0, 40, 40)).toBe('Clean.');
  expect(takeVerdict(false, 1, 40, 40)).toBe('1 thing to mend.');
  expect(takeVerdict(false, 0, 12, 40)).toBe('Only 12 of 40 notes heard.');
  expect(takeVerdict(false, 0, 0, 40)).toBe('Nothing of the tune was heard.');
});

test('a drill tells its own figure, and a file that cannot be heard says what was expected', () => {
  expect(rowWords({ name: 'unbroken-pair', value: 3.24, unit: 's', count: 2 })).toBe('longest on both strings 3.2 s');
  expect(rowWords({ name: 'bumped-drone', value: 4, unit: 'dB', count: 2 })).toBe('bumped drone: 4.0 dB at worst');
  expect(wavFaultWords('rate', 3)).toBe('expected 8000 to 192000 samples a second, got 3');
  expect(wavFaultWords('too-long', 3600)).toBe('expected at most 10 minutes, got 60');
});
