import { deedWords, summaryWords } from './book';

test.each([
  [{ tunes: 13, notRound: 3, short: 1 }, false, '13 tunes; 3 do not come round, 1 breaks below its tempo'],
  [{ tunes: 1, notRound: 1, short: 2 }, true, '1 tune found; 1 does not come round, 2 break below their tempo'],
  [{ tunes: 0, notRound: 0, short: 0 }, true, '0 tunes found'],
  [{ tunes: 0, notRound: 0, short: 0 }, false, ''],
  [undefined, false, ''],
])('%j is told as “%s”', (count, isSearching, words) => {
  expect(summaryWords(count, isSearching)).toBe(words);
});

test('a change tells how many tunes it changed, and when it changed none', () => {
  expect(deedWords({ kind: 'tag', tag: 'class' }, 2)).toBe('2 tunes tagged “class”.');
  expect(deedWords({ kind: 'untag', tag: 'class' }, 1)).toBe('“class” removed from 1 tune.');
  expect(deedWords({ kind: 'remove' }, 1)).toBe('1 tune removed from the book.');
  expect(deedWords({ kind: 'bring-back' }, 3)).toBe('3 tunes back in the book.');
  expect(deedWords({ kind: 'practised', at: '2026-01-01T00:00:00Z' }, 0)).toBe('Nothing to change.');
});
