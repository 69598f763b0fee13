import { BOOK_SORTS, type BookQuery } from '#contract/book';
import type { Database } from '../db';
import { testApp } from '../testApp';
import { fillBook } from '../testBook';
import { type NearWords, nearWords } from './nearSpelling';
import { pageStatement, writeCursor } from './pageSql';

const TUNES = 20_000;
let db: Database;
let close: () => Promise<void>;

beforeAll(async () => {
  ({ db, close } = await testApp('book_plans'));
  await fillBook(db, TUNES);
}, 60_000);
afterAll(() => close());

interface Plan {
  readonly 'Node Type': string;
  readonly 'Relation Name'?: string;
  readonly 'Actual Rows': number;
  readonly Plans?: readonly Plan[];
}

/** Every step of how the database goes about a statement, really run. */
async function stepsOf(query: BookQuery, near: NearWords | null = null): Promise<Plan[]> {
  const { text, values } = pageStatement(query, near);
  const { rows } = await db.query<{ 'QUERY PLAN': [{ Plan: Plan }] }>(`EXPLAIN (ANALYZE, FORMAT JSON) ${text}`, [
    ...values,
  ]);
  const flat = (plan: Plan): Plan[] => [plan, ...(plan.Plans ?? []).flatMap(flat)];
  return flat(rows[0]!['QUERY PLAN'][0].Plan);
}

async function expectIndexed(query: BookQuery, near: NearWords | null = null) {
  const steps = await stepsOf(query, near);
  expect(steps.filter((step) => step['Node Type'] === 'Seq Scan' && step['Relation Name'] === 'tunes')).toEqual([]);
  return steps;
}

test.each(BOOK_SORTS)(
  'a page sorted by %s walks an index, up and down, at the beginning and in the middle',
  async (sort) => {
    for (const down of [undefined, 'yes'] as const) {
      const query: BookQuery = { sort, ...(down ? { down } : {}) };
      const steps = await expectIndexed(query);
      // No more rows are read than the page holds: nothing is sorted.
      expect(Math.max(...steps.map((step) => step['Actual Rows']))).toBeLessThanOrEqual(61);
      const { text, values } = pageStatement({ ...query, limit: 200 });
      const { rows } = await db.query<{ sort_key: string; sort_title: string; id: string }>(text, [...values]);
      const { sort_key: key, sort_title: title, id } = rows[150]!;
      const after = writeCursor({ key, title, id, near: null });
      const later = await expectIndexed({ ...query, after });
      expect(Math.max(...later.map((step) => step['Actual Rows']))).toBeLessThanOrEqual(61);
    }
  },
);

test.each<BookQuery>([
  { words: 'heron' },
  { words: 'heron slip' },
  { words: 'boathouse', sort: 'title' },
  { notes: 'd f a d e f' },
  { notes: 'd f a d', type: 'reel' },
  { type: 'reel' },
  { type: 'none', sort: 'tempo' },
  { key: 'A dorian' },
  { tuning: 'A3 E4 A4 E5' },
  { tag: 'slow' },
  { round: 'no' },
  { tempo: 'short' },
  { tempo: 'stands', sort: 'changed' },
  { findings: 'problems' },
  { findings: 'none' },
  { practised: 'never' },
  { practised: 'not-30', sort: 'practised' },
  { removed: 'yes' },
  { type: 'jig', key: 'G major', round: 'yes', tempo: 'short', sort: 'tempo', down: 'yes' },
])(
  '%j is answered from an index',
  async (query) => {
    await expectIndexed(query);
  },
  60_000,
);

test('a word that is far too long is like none, and poisons no search for others', async () => {
  const long = 'w'.repeat(281);
  await db.query('INSERT INTO book_words VALUES ($1)', [long]);
  for (const text of ['wwww herron', `${long} herron`]) {
    const near = await nearWords(db, text);
    expect(near![1]).toContain('heron');
  }
  await db.query('DELETE FROM book_words WHERE word = $1', [long]);
});

test('a misspelt search is answered from an index', async () => {
  const near = await nearWords(db, 'herron slipwai');
  expect(near).toEqual([['heron'], ['slipway']]);
  await expectIndexed({ words: 'herron slipwai' }, near);
});
