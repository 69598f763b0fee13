import { bookFilterSchema, type BookQuery, type BookSort, viewQuerySchema } from '#contract/book';

/** What of the book is shown, as it stands in the address; what is not understood is left out. */
export function readQuery(params: URLSearchParams): BookQuery {
  const query: Record<string, string> = {};
  for (const [name, schema] of Object.entries(viewQuerySchema.shape)) {
    const value = params.get(name);
    if (value !== null && value !== '' && schema.safeParse(value).success) query[name] = value;
  }
  return query;
}

/** The address of what is shown. */
export function writeQuery(query: BookQuery): URLSearchParams {
  const given = Object.entries(query).filter(([, value]) => value !== undefined && value !== '');
  return new URLSearchParams(given.map(([name, value]) => [name, String(value)]));
}

/** The query without its order: which tunes it lets through. */
export function filterOf(query: BookQuery) {
  return bookFilterSchema.parse(query);
}

/** How many conditions a query has besides its search. */
export function countConditions(query: BookQuery): number {
  const { words: _words, notes: _notes, ...rest } = filterOf(query);
  return Object.values(rest).filter((value) => value !== undefined).length;
}

/** The order after a heading is pressed: the other way round where it is sorted by it already. */
export function sortedBy(query: BookQuery, sort: BookSort, current: BookSort): BookQuery {
  const { down, ...rest } = query;
  return sort === current && !down ? { ...rest, sort, down: 'yes' } : { ...rest, sort };
}

/** By what the book is sorted where nothing is asked for: a search shows the best first. */
export function sortInForce(query: BookQuery): BookSort {
  return query.sort ?? (query.words ? 'best' : 'title');
}
