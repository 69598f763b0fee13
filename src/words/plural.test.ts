import { counted, percentWords } from './plural';

test('one is one, none and more are several', () => {
  expect([0, 1, 2].map((count) => counted(count, 'note'))).toEqual(['0 notes', '1 note', '2 notes']);
  expect([1, 4].map((count) => counted(count, 'pass', 'passes'))).toEqual(['1 pass', '4 passes']);
});

test('a share is told in whole hundredths', () => {
  expect([0, 0.004, 0.476, 1].map(percentWords)).toEqual(['0 %', '0 %', '48 %', '100 %']);
});
