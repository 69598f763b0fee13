import { z } from 'zod';
import { type BookQuery, type BookSort, DEFAULT_PAGE } from '#contract/book';
import { AppError } from '../errors';
import { filterConditions, SEARCH, textQuery } from './filterSql';
import { nearQuery, type NearWords } from './nearSpelling';

/** By what a sort orders, and how its key is read back from a cursor. Each has an index with title and id after it. */
const SORT_KEYS: Readonly<Record<Exclude<BookSort, 'best'>, { readonly key: string; readonly type: string }>> = {
  title: { key: 'title_order(title)', type: 'text' },
  type: { key: "coalesce(dance_type, '')", type: 'text' },
  key: { key: 'key_name', type: 'text' },
  tuning: { key: 'tuning', type: 'text' },
  bars: { key: 'bars', type: 'integer' },
  round: { key: 'coalesce(comes_round::integer, -1)', type: 'integer' },
  tempo: { key: 'room', type: 'double precision' },
  findings: { key: 'coalesce(problems, -1)', type: 'integer' },
  ready: { key: 'coalesce(cardinality(missing), 1000)', type: 'integer' },
  practised: { key: "coalesce(practised_at, '-infinity')", type: 'timestamptz' },
  changed: { key: 'updated_at', type: 'timestamptz' },
};

export interface Statement {
  readonly text: string;
  readonly values: readonly unknown[];
}

export const SUMMARY_COLUMNS = `id, revision, title, dance_type, meter, key_name, tuning, form, bars, comes_round, flipped_parts,
       ceiling_bpm, own_low, own_ceiling, own_high, own_binds, missing, wish_bpm, beat, problems, cares, tags, practised_at, updated_at, counted_by,
       failed_by, failed_why, count_tries`;

/** The sort that holds where none is asked for: a search shows the best first. */
export function sortOf({ sort, words }: BookQuery): BookSort {
  if (sort === 'best' && !words) return 'title';
  return sort ?? (words ? 'best' : 'title');
}

/**
 * One page of the book in the order asked for, with one row more than the page holds, to see whether there is another.
 * Paged by key: what comes after the last row's sort key, title and id, so that the tenth page costs what the first does
 * and a tune that is added meanwhile neither repeats nor hides another.
 * `near` searches in place of the words as they are spelt; a cursor brings its own along.
 */
export function pageStatement(query: BookQuery, near: NearWords | null = null): Statement {
  const cursor = query.after === undefined ? null : readCursor(query.after);
  const stand = cursor?.near ?? near;
  const search = stand ? nearQuery(stand) : textQuery(query.words ?? '');
  const conditions = filterConditions(query, search);
  const values = [...conditions.values];
  const where = [...conditions.where];
  const { key, type } = sortKey(query, search !== null);
  const isByTitle = key === SORT_KEYS.title.key;
  const [compare, direction] = query.down ? ['<', 'DESC'] : ['>', 'ASC'];
  const order = [...(isByTitle ? [] : [key]), 'title_order(title)', 'id'];
  if (cursor) {
    const place = (value: string, cast: string) => `$${values.push(value)}::${cast}`;
    const after = [
      ...(isByTitle ? [] : [place(cursor.key, type)]),
      place(cursor.title, 'text'),
      place(cursor.id, 'uuid'),
    ];
    where.push(`(${order.join(', ')}) ${compare} (${after.join(', ')})`);
  }
  const limit = `$${values.push((query.limit ?? DEFAULT_PAGE) + 1)}`;
  const usedIn = query.technique === undefined ? 'NULL' : `technique_parts -> $${values.push(query.technique)}::text`;
  const text = `SELECT ${SUMMARY_COLUMNS}, ${usedIn} AS used_in, (${key})::text AS sort_key, title_order(title) AS sort_title
  FROM tunes
 WHERE ${where.join('\n   AND ')}
 ORDER BY ${order.map((expression) => `${expression} ${direction}`).join(', ')}
 LIMIT ${limit}`;
  return { text, values };
}

/** Small is good where the best come first; `$1` is the text search. */
function sortKey(query: BookQuery, isSearch: boolean): { key: string; type: string } {
  const sort = sortOf(query);
  if (sort !== 'best') return SORT_KEYS[sort];
  return isSearch ? { key: `0 - ts_rank(words, ${SEARCH})`, type: 'real' } : SORT_KEYS.title;
}

/** Where a page ended. */
interface Cursor {
  readonly key: string;
  readonly title: string;
  readonly id: string;
  /** What stands for the words searched for, where they are not taken as they are spelt. */
  readonly near: NearWords | null;
}

const cursorSchema = z.object({
  key: z.string().max(400),
  title: z.string().max(400),
  id: z.uuid(),
  near: z
    .array(z.array(z.string().max(100)).min(1).max(10))
    .min(1)
    .max(100)
    .nullable(),
});

/** A cursor as an opaque word. */
export function writeCursor(cursor: Cursor): string {
  return Buffer.from(JSON.stringify(cursor)).toString('base64url');
}

/** @throws AppError `bad-request` for anything but a cursor that was handed out */
function readCursor(word: string): Cursor {
  try {
    return cursorSchema.parse(JSON.parse(Buffer.from(word, 'base64url').toString()));
  } catch {
    throw new AppError('bad-request', [{ path: 'after', message: 'expected `next` of the page before' }]);
  }
}
