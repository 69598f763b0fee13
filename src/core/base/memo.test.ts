import { memoByIdentity } from './memo';

test('a value is computed once, also one that is nothing; an equal value is another', () => {
  let count = 0;
  const size = memoByIdentity((list: readonly number[]) => {
    count += 1;
    return list.length > 0 ? list.length : undefined;
  });
  const [one, empty] = [[1, 2], [] as number[]];
  expect([size(one), size(one), size(empty), size(empty)]).toEqual([2, 2, undefined, undefined]);
  expect(count).toBe(2);
  expect(size([1, 2])).toBe(2);
  expect(count).toBe(3);
});
