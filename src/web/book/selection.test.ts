import { countChosen, extended, isChosen, NOTHING, toggled } from './selection';

const shown = ['a', 'b', 'c', 'd'];

test('a tune is chosen and let go', () => {
  const one = toggled(NOTHING, 'b', shown);
  expect([isChosen(one, 'b'), isChosen(one, 'a'), countChosen(one, 9)]).toEqual([true, false, 1]);
  expect(toggled(one, 'b', shown)).toEqual(NOTHING);
});

test('a stretch is chosen whichever way it is drawn, what was chosen stays', () => {
  const first = toggled(NOTHING, 'a', shown);
  for (const [from, to] of [
    ['b', 'd'],
    ['d', 'b'],
  ] as const)
    expect(extended(first, from, to, shown)).toEqual({ kind: 'some', ids: new Set(shown) });
  expect(extended(first, 'x', 'b', shown)).toBe(first);
});

test('everything is what the filter lets through; one taken from it leaves those that are shown', () => {
  const all = { kind: 'all' } as const;
  expect(countChosen(all, 20_000)).toBe(20_000);
  expect(isChosen(all, 'anything')).toBe(true);
  expect(toggled(all, 'b', shown)).toEqual({ kind: 'some', ids: new Set(['a', 'c', 'd']) });
});
