import { freeName, MAX_SET_TUNES, MAX_TIMES, newSet, type TuneSet } from '#contract/sets';
import { movedTune, placeKeys, withoutTune, withSet, withTimes, withTune } from './editSet';

const set: TuneSet = newSet('s', 'First dance', ['a', 'b', 'c']);
const order = (own: TuneSet) => own.tunes.map(({ tuneId }) => tuneId).join('');

test('tunes move to where they are put, and not beyond the ends', () => {
  expect(order(movedTune(set, 0, 2))).toBe('bca');
  expect(order(movedTune(set, 2, 0))).toBe('cab');
  expect([movedTune(set, 0, -1), movedTune(set, 2, 3), movedTune(set, 1, 1)]).toEqual([set, set, set]);
});

test('a tune may come again; its places stay told apart', () => {
  const again = withTune(set, 'a');
  expect(order(again)).toBe('abca');
  expect(new Set(placeKeys(again.tunes)).size).toBe(4);
  expect(order(withoutTune(again, 0))).toBe('bca');
});

test('times through are whole and within what is played', () => {
  expect(withTimes(set, 1, 5).tunes[1]!.times).toBe(5);
  for (const wrong of [0, MAX_TIMES + 1, 1.5, Number.NaN]) expect(withTimes(set, 1, wrong)).toBe(set);
});

test('a full set takes no more', () => {
  const full = newSet(
    's',
    'Long',
    Array.from({ length: MAX_SET_TUNES + 5 }, (_, i) => `t${i}`),
  );
  expect(full.tunes).toHaveLength(MAX_SET_TUNES);
  expect(withTune(full, 'x')).toBe(full);
});

test('a new set has a name of its own, and one that is kept is put in its place', () => {
  const all = withSet({ sets: [] }, newSet('x', 'New set'));
  expect(freeName(all)).toBe('New set 2');
  expect(withSet(all, { ...all.sets[0]!, name: 'Waltzes' }).sets).toHaveLength(1);
});
