import { forecastWords } from './forecast';

const asked = { bpm: 109, minutesADay: 20 };
const days = { p10: 5.2, p50: 10.4, p90: 23.9 };

test.each([
  [{ days, never: 0.04 }, '109 in about 11 days of 20 minutes (6 to 24); 4 times in 100 it is not on this path.'],
  [{ days, never: 0 }, '109 in about 11 days of 20 minutes (6 to 24).'],
  [{ days, never: 0.7 }, '109 is not on this path 7 times in 10; else it takes about 11 days of 20 minutes (6 to 24).'],
  [{ days, never: 0.95 }, '109 is not on this path: you level off below it.'],
  [{ days: { p10: 0, p50: 0, p90: 0 }, never: 0 }, '109 comes out clean already.'],
  [{ days: { p10: 0.2, p50: 0.6, p90: 0.9 }, never: 0 }, '109 in about 1 day of 20 minutes.'],
] as const)('a forecast is told with its range and what may come of it', (forecast, words) => {
  expect(forecastWords(forecast, asked)).toBe(words);
});

test('what is too little is told with what is needed', () => {
  expect(forecastWords({ tooLittle: 'few-days', days: 1 }, asked)).toBe(
    'Too little to say when 109 will be clean: it takes 4 days on which something came out clean, and there is 1.',
  );
  expect(forecastWords({ tooLittle: 'wide', days: 5 }, asked)).toContain('a short way and a very long one');
});
