import { countConditions, filterOf, readQuery, sortedBy, sortInForce, writeQuery } from './bookQuery';

test('what stands in an address comes back from it', () => {
  const query = { words: 'salt & marsh', type: 'reel', round: 'no', sort: 'tempo', down: 'yes' } as const;
  expect(readQuery(writeQuery(query))).toEqual(query);
  expect(writeQuery({}).toString()).toBe('');
});

test('what an address says wrongly is left out', () => {
  expect(readQuery(new URLSearchParams('type=tango&key=D+major&sort=colour&nonsense=1&down=maybe'))).toEqual({
    key: 'D major',
  });
});

test('a heading sorts by its column, and turned round when it is pressed again', () => {
  const once = sortedBy({ type: 'reel' }, 'tempo', 'title');
  expect(once).toEqual({ type: 'reel', sort: 'tempo' });
  const twice = sortedBy(once, 'tempo', sortInForce(once));
  expect(twice).toEqual({ type: 'reel', sort: 'tempo', down: 'yes' });
  expect(sortedBy(twice, 'tempo', sortInForce(twice))).toEqual({ type: 'reel', sort: 'tempo' });
});

test('a search shows the best first, a book its titles', () => {
  expect(sortInForce({ words: 'heron' })).toBe('best');
  expect(sortInForce({})).toBe('title');
});

test('conditions are counted besides the search, and an order is none', () => {
  expect(countConditions({ words: 'a', notes: 'd f', type: 'jig', tag: 'class', sort: 'key' })).toBe(2);
  expect(filterOf({ type: 'jig', sort: 'key', down: 'yes' })).toEqual({ type: 'jig' });
});
