import { DEFAULT_WISHES } from '#core/search';
import { keepWishes, readWishes } from './wishesKept';

beforeEach(() => localStorage.clear());

test('wishes come back as they were kept, and are the usual ones where none were', () => {
  expect(readWishes()).toEqual(DEFAULT_WISHES);
  const wishes = { ...DEFAULT_WISHES, shuffle: 0.9, slurAcrossStrings: false };
  keepWishes(wishes);
  expect(readWishes()).toEqual(wishes);
});

test('what cannot be read is as good as none', () => {
  for (const kept of ['{', '{"shuffle":7}', 'null', '[]']) {
    localStorage.setItem('morrin.wishes', kept);
    expect(readWishes()).toEqual(DEFAULT_WISHES);
  }
});
