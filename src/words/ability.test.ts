import { betterWords, restsOnWords } from './ability';
import { bindsWords } from './eventKind';
import { rangeWords } from './tempo';

test('an own limit is told in per cent of the time it takes, and what is alike is not told apart', () => {
  expect(betterWords(Math.log(1.25))).toBe('20 % quicker than the limit');
  expect(betterWords(-Math.log(1.25))).toBe('25 % slower than the limit');
  expect(betterWords(0.01)).toBe('as quick as the limit');
});

test('what sets a ceiling is told with how often, unless it always does', () => {
  expect(bindsWords({ crossing: 0.98, stroke: 0.02 })).toBe('crossings set the limit');
  expect(bindsWords({ crossing: 0.7, stroke: 0.3 })).toBe('crossings set the limit (7 times in 10), otherwise strokes');
  expect(rangeWords({ low: 98.7, high: 112.2 })).toBe('98–112');
});

test('it is said what an own ceiling rests on, and what is not known yet', () => {
  const kinds = {
    crossing: { mean: Math.log(1.14), low: 0.05, high: 0.2, attempts: 64 },
    hop: { mean: 0, low: -0.38, high: 0.38, attempts: 12 },
  };
  expect(restsOnWords({ attempts: 64, since: '2026-05-03', kinds }, ['crossing', 'hop'])).toBe(
    'From 64 attempts since 3 May 2026: your crossings are 12 % quicker than the limit. Your hops are not known yet.',
  );
  expect(restsOnWords({ attempts: 3, since: '2026-05-03', kinds: {} }, ['hop'])).toBe(
    'From 3 attempts since 3 May 2026: too few to say how quick your hands are. Your hops are not known yet.',
  );
  expect(restsOnWords({ attempts: 0, since: null, kinds: {} })).toBe(
    'Nothing is logged yet that says how quick your hands are.',
  );
});
