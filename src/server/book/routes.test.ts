import type { Express } from 'express';
import request from 'supertest';
import {
  BOOK_SORTS,
  bookCountSchema,
  bookFacetsSchema,
  type BookFilter,
  bookViewsSchema,
  bulkDoneSchema,
} from '#contract/book';
import { tuneListSchema, type TuneSummary } from '#contract/tunes';
import { readAbc } from '#formats/abc';
import type { Database } from '../db';
import { testApp } from '../testApp';
import { nearWords } from './nearSpelling';
import { writeCursor } from './pageSql';

let app: Express;
let db: Database;
let close: () => Promise<void>;

/** Titles with what is told apart by: type, key, tuning, first notes. */
const TUNES = [
  ['The Pewter Heron', 'reel', 'D', 'd2 fa b2 fa', 'N:learnt at the slipway\nC:Wenna Tarr'],
  ['Sälzige Brise', 'jig', 'G', 'gbd gbd', 'N:a crossing tune'],
  ['Tide over Sandbar', 'polka', 'G', 'g2b2', 'T:The Wet Sands'],
  ['Lamp in the Reeds', 'waltz', 'A', 'A2c2e2', '%%morrin-tuning A3 E4 A4 E5'],
  ['Nameless', '', 'Em', 'e2 ge b2 ge', ''],
] as const;
const METERS: Record<string, string> = { reel: '4/4', jig: '6/8', polka: '2/4', waltz: '3/4', '': '4/4' };

beforeAll(async () => {
  ({ app, db, close } = await testApp('book_routes'));
  const tunes = TUNES.map(([title, type, key, notes, more]) => {
    const text = `X:1\nT:${title}\n${more ? `${more}\n` : ''}${type ? `R:${type}\n` : ''}M:${METERS[type]}\nL:1/8\nK:${key}\n${notes}|${notes}|\n`;
    return { tune: readAbc(text).tunes[0]!.tune };
  });
  const added = await request(app).post('/api/tunes').send({ tunes });
  expect(added.status).toBe(201);
}, 60_000);
afterAll(() => close());

async function list(query: Record<string, string | number> = {}) {
  const response = await request(app).get('/api/book/tunes').query(query);
  expect(response.status).toBe(200);
  return tuneListSchema.parse(response.body);
}
const titles = async (query: Record<string, string | number> = {}) =>
  (await list(query)).tunes.map(({ title }) => title);
const idOf = async (title: string) => (await list()).tunes.find((tune) => tune.title === title)!.id;

describe('a search', () => {
  test.each([
    ['a word of the title', 'heron', ['The Pewter Heron']],
    ['the beginning of a word', 'pew', ['The Pewter Heron']],
    ['another title', 'wet sands', ['Tide over Sandbar']],
    ['the composer', 'tarr', ['The Pewter Heron']],
    ['a note', 'crossing', ['Sälzige Brise']],
    ['letters without their signs', 'salzige', ['Sälzige Brise']],
  ])('finds by %s', async (_what, words, found) => {
    const page = await list({ words });
    expect(page.tunes.map(({ title }) => title)).toEqual(found);
    expect(page.isNear).toBe(false);
  });

  test('that is misspelt finds what is spelt nearly so, and says that it is not the same', async () => {
    const page = await list({ words: 'peuter herron' });
    expect(page.tunes[0]!.title).toBe('The Pewter Heron');
    expect(page.isNear).toBe(true);
    expect(await titles({ words: 'sandbarr' })).toEqual(['Tide over Sandbar']);
    expect(await titles({ words: 'tide ovre' })).toEqual(['Tide over Sandbar']);
  });

  test('for what is nowhere finds nothing, and signs of a query language are words like any', async () => {
    for (const words of ["xylophone'; DROP TABLE tunes; --", '&|!:*()', '<->', '%', '\\', '½', '½ ¼', 'ß½'])
      expect(await list({ words })).toEqual({ tunes: [], next: null, isNear: false });
  });

  test('puts a title before a note of the same word', async () => {
    await request(app)
      .post('/api/tunes')
      .send({ tunes: [{ tune: readAbc('X:1\nT:A Crossing\nM:4/4\nL:1/8\nK:D\nd8|\n').tunes[0]!.tune }] });
    expect(await titles({ words: 'crossing' })).toEqual(['A Crossing', 'Sälzige Brise']);
    expect(await titles({ words: 'crossing', sort: 'title', down: 'yes' })).toEqual(['Sälzige Brise', 'A Crossing']);
    const id = await idOf('A Crossing');
    await db.query('DELETE FROM tunes WHERE id = $1', [id]);
  });
});

describe('first notes', () => {
  test('find tunes in whatever key, as letters or as calls', async () => {
    // D F♯ A, G B D and A C♯ E are the same three steps; “The” is passed over where titles are sorted.
    const all = ['Lamp in the Reeds', 'The Pewter Heron', 'Sälzige Brise'];
    expect(await titles({ notes: 'dfa' })).toEqual(all);
    expect(await titles({ notes: 'D:0 D:2 A:0' })).toEqual(all);
    expect(await titles({ notes: 'd f a b' })).toEqual(['The Pewter Heron']);
    expect(await titles({ notes: 'dfa', type: 'jig' })).toEqual(['Sälzige Brise']);
  });

  test('that cannot be read are refused with their place', async () => {
    const refused = await request(app).get('/api/book/tunes').query({ notes: 'd f h' });
    expect(refused.status).toBe(400);
    expect(JSON.stringify(refused.body)).toContain('column 5: expected letters (d f# a) or calls');
  });
});

test.each<[BookFilter, string[]]>([
  [{ type: 'reel' }, ['The Pewter Heron']],
  [{ type: 'none' }, ['Nameless']],
  [{ key: 'G major' }, ['Sälzige Brise', 'Tide over Sandbar']],
  [{ tuning: 'A3 E4 A4 E5' }, ['Lamp in the Reeds']],
  [{ key: 'G major', type: 'polka' }, ['Tide over Sandbar']],
  [{ practised: 'never', type: 'waltz' }, ['Lamp in the Reeds']],
  [{ removed: 'yes' }, []],
])('the filter %j lets through its own', async (filter, found) => {
  expect(await titles(filter)).toEqual(found);
  expect(bookCountSchema.parse((await request(app).get('/api/book/count').query(filter)).body).tunes).toBe(
    found.length,
  );
});

test('what comes round, what stands and what has findings parts the book in two', async () => {
  const all = (await titles()).length;
  for (const [one, other] of [
    [{ round: 'yes' }, { round: 'no' }],
    [{ tempo: 'stands' }, { tempo: 'short' }],
  ]) {
    const [these, those] = [await titles(one), await titles(other)];
    expect(these.length + those.length).toBe(all);
    expect(these.filter((title) => those.includes(title))).toEqual([]);
  }
  const rows = (await list()).tunes;
  expect(await titles({ findings: 'problems' })).toEqual(
    rows.filter(({ problems }) => problems! > 0).map(({ title }) => title),
  );
  expect(rows.every(({ isCounted, cares }) => isCounted && cares !== null)).toBe(true);
});

describe('pages', () => {
  test.each(BOOK_SORTS)('sorted by %s follow one another without gap or repeat, both ways', async (sort) => {
    for (const down of [undefined, 'yes']) {
      const order = { sort, ...(down ? { down } : {}) };
      const whole = (await list({ ...order, limit: 200 })).tunes.map(({ id }) => id);
      const paged: string[] = [];
      let after: string | null = null;
      do {
        const page: { tunes: TuneSummary[]; next: string | null } = await list({
          ...order,
          limit: 2,
          ...(after ? { after } : {}),
        });
        paged.push(...page.tunes.map(({ id }) => id));
        after = page.next;
      } while (after !== null);
      expect(paged).toEqual(whole);
      expect(new Set(paged).size).toBe(TUNES.length);
    }
  });

  test('down is up turned round', async () => {
    for (const sort of BOOK_SORTS) {
      const up = await titles({ sort });
      expect(await titles({ sort, down: 'yes' })).toEqual(up.reverse());
    }
  });

  test('of a search of a hundred words fit into an address', async () => {
    await db.query(
      "INSERT INTO book_words SELECT letter || repeat('x', 59 - n) FROM unnest(string_to_array('abcdefghijklm', NULL)) AS letter, generate_series(0, 3) AS n",
    );
    const asked = [...'abcdefghijklm']
      .map((letter) => letter + 'x'.repeat(13))
      .join(' ')
      .slice(0, 200);
    const near = (await nearWords(db, asked))!;
    expect(near.some((words) => words.length === 4)).toBe(true);
    const cursor = writeCursor({ key: '1', title: 'w'.repeat(300), id: '7c5e2f5e-0000-4000-8000-000000000000', near });
    expect(cursor.length).toBeLessThan(8000);
    await db.query("DELETE FROM book_words WHERE word LIKE '%xxx'");
  });

  test('that begin nowhere are refused', async () => {
    for (const after of ['x', Buffer.from('["a"]').toString('base64url'), Buffer.from('{}').toString('base64url')])
      expect((await request(app).get('/api/book/tunes').query({ after })).status).toBe(400);
  });

  test.each([{ limit: 0 }, { limit: 201 }, { sort: 'colour' }, { type: 'tango' }])('%j is refused', async (query) => {
    expect((await request(app).get('/api/book/tunes').query(query)).status).toBe(400);
  });
});

describe('a change of many tunes', () => {
  const change = (body: object) => request(app).post('/api/book/changes').send(body);
  const undo = (id: string) => request(app).post(`/api/book/changes/${id}/undo`);
  const tagsOf = async (title: string) => (await list()).tunes.find((tune) => tune.title === title)!.tags;

  test('tags what it names and nothing else, finds it by the tag, and is taken back whole', async () => {
    const ids = [await idOf('Nameless'), await idOf('The Pewter Heron')];
    await change({ choice: { ids: [ids[0]] }, deed: { kind: 'tag', tag: 'class' } });
    const done = bulkDoneSchema.parse((await change({ choice: { ids }, deed: { kind: 'tag', tag: 'Saturday' } })).body);
    expect(done.changed).toBe(2);
    expect(await titles({ tag: 'Saturday' })).toEqual(['Nameless', 'The Pewter Heron']);
    expect(await titles({ words: 'saturday' })).toEqual(['Nameless', 'The Pewter Heron']);
    expect(await tagsOf('Nameless')).toEqual(['class', 'Saturday']);
    expect((await undo(done.undo)).body).toEqual({ changed: 2 });
    expect(await titles({ tag: 'Saturday' })).toEqual([]);
    expect(await tagsOf('Nameless')).toEqual(['class']);
    expect((await undo(done.undo)).status).toBe(404);
  });

  test('is taken back only where it still is so: what came later stays', async () => {
    const ids = [await idOf('Nameless'), await idOf('The Pewter Heron')];
    const tag = async (deed: object, some = ids) =>
      bulkDoneSchema.parse((await change({ choice: { ids: some }, deed })).body);
    const tagged = await tag({ kind: 'tag', tag: 'Friday' });
    await tag({ kind: 'tag', tag: 'loud' });
    await tag({ kind: 'untag', tag: 'Friday' }, [ids[0]!]);
    expect((await undo(tagged.undo)).body).toEqual({ changed: 1 });
    expect(await tagsOf('The Pewter Heron')).toEqual(['loud']);
    expect(await tagsOf('Nameless')).toEqual(expect.arrayContaining(['loud']));
    const untagged = await tag({ kind: 'untag', tag: 'loud' });
    await tag({ kind: 'tag', tag: 'loud' }, [ids[0]!]);
    expect((await undo(untagged.undo)).body).toEqual({ changed: 1 });
    expect((await tagsOf('Nameless')).filter((own) => own === 'loud')).toHaveLength(1);
    const first = await tag({ kind: 'practised', at: '2026-01-01T10:00:00.000Z' });
    await tag({ kind: 'practised', at: '2026-02-01T10:00:00.000Z' }, [ids[0]!]);
    expect((await undo(first.undo)).body).toEqual({ changed: 1 });
    await tag({ kind: 'untag', tag: 'loud' });
  });

  test('that comes again because its answer was lost is made once', async () => {
    const key = '7c5e2f5e-1111-4000-8000-00000000000a';
    const ids = [await idOf('Nameless')];
    const send = (tag: string) => change({ choice: { ids }, deed: { kind: 'tag', tag } }).set('Idempotency-Key', key);
    const answers = await Promise.all([send('once'), send('once'), send('once')]);
    for (const answer of [...answers, await send('once')]) expect(answer.body).toEqual(answers[0]!.body);
    const elsewhere = await request(app)
      .post('/api/book/views')
      .set('Idempotency-Key', key)
      .send({ name: 'Other', query: {} });
    expect([elsewhere.status, JSON.stringify(elsewhere.body)]).toEqual([
      400,
      expect.stringContaining('used for another request'),
    ]);
    await undo(bulkDoneSchema.parse(answers[0]!.body).undo);
    expect(await tagsOf('Nameless')).not.toContain('once');
  });

  test('of the same tunes from several windows at once: nobody waits for ever, and each is kept', async () => {
    const ids = (await list()).tunes.map(({ id }) => id);
    const tags = ['a1', 'a2', 'a3', 'a4', 'a5', 'a6'];
    const answers = await Promise.all(
      tags.map((tag, i) =>
        change({ choice: { ids: i % 2 === 0 ? ids : [...ids].reverse() }, deed: { kind: 'tag', tag } }),
      ),
    );
    expect(answers.map(({ status }) => status)).toEqual(tags.map(() => 200));
    expect(await tagsOf('Nameless')).toEqual(expect.arrayContaining(tags));
    for (const { body } of answers) await undo(bulkDoneSchema.parse(body).undo);
  });

  test('by a filter reaches every tune that it lets through', async () => {
    const done = bulkDoneSchema.parse(
      (await change({ choice: { filter: { key: 'G major' } }, deed: { kind: 'tag', tag: 'in G' } })).body,
    );
    expect(done.changed).toBe(2);
    expect(await titles({ tag: 'in G' })).toEqual(['Sälzige Brise', 'Tide over Sandbar']);
    const untagged = await change({ choice: { filter: { tag: 'in G' } }, deed: { kind: 'untag', tag: 'in G' } });
    expect(bulkDoneSchema.parse(untagged.body).changed).toBe(2);
  });

  test('leaves alone what is already so', async () => {
    const choice = { filter: { type: 'polka' } };
    const deed = { kind: 'practised', at: '2026-03-01T10:00:00.000Z' };
    expect(bulkDoneSchema.parse((await change({ choice, deed })).body).changed).toBe(1);
    expect(bulkDoneSchema.parse((await change({ choice, deed })).body).changed).toBe(0);
    expect(await titles({ practised: 'not-90', type: 'polka' })).toEqual(['Tide over Sandbar']);
    expect(await titles({ practised: 'never', type: 'polka' })).toEqual([]);
  });

  test('takes tunes out of the book, where they can be brought back from or be gone for good', async () => {
    const choice = { ids: [await idOf('Nameless')] };
    const done = bulkDoneSchema.parse((await change({ choice, deed: { kind: 'remove' } })).body);
    expect(await titles()).not.toContain('Nameless');
    expect(await titles({ removed: 'yes' })).toEqual(['Nameless']);
    expect(bookFacetsSchema.parse((await request(app).get('/api/book/facets')).body)).toMatchObject({
      tunes: 4,
      removed: 1,
    });
    await undo(done.undo);
    expect(await titles()).toContain('Nameless');
    await change({ choice, deed: { kind: 'remove' } });
    expect(bulkDoneSchema.parse((await change({ choice, deed: { kind: 'bring-back' } })).body).changed).toBe(1);
    await change({ choice, deed: { kind: 'remove' } });
    const later = { choice: { ids: [await idOf('The Pewter Heron')] }, deed: { kind: 'remove' } };
    const { asOf } = bookFacetsSchema.parse((await request(app).get('/api/book/facets')).body);
    const removedLater = bulkDoneSchema.parse((await change(later)).body);
    const emptied = await request(app).delete('/api/book/removed').query({ by: asOf });
    expect(emptied.body).toEqual({ changed: 1 });
    // What another window took out after that was not among those that were seen.
    expect(await titles({ removed: 'yes' })).toEqual(['The Pewter Heron']);
    await undo(removedLater.undo);
    expect(await titles({ removed: 'yes' })).toEqual([]);
  });

  test.each([
    [{ choice: { ids: [] }, deed: { kind: 'remove' } }],
    [{ choice: { ids: ['x'] }, deed: { kind: 'remove' } }],
    [{ choice: { filter: {} }, deed: { kind: 'tag', tag: ' ' } }],
    [{ choice: { filter: {} }, deed: { kind: 'tag', tag: 'a,b' } }],
    [{ choice: { filter: {} }, deed: { kind: 'burn' } }],
  ])('%j is refused', async (body) => {
    expect((await change(body)).status).toBe(400);
  });
});

test('what there is to filter by is told with its counts', async () => {
  const { keys, types } = bookFacetsSchema.parse((await request(app).get('/api/book/facets')).body);
  expect(keys[0]).toEqual({ value: 'G major', count: 2 });
  expect(types.map(({ value }) => value).sort()).toEqual(['jig', 'polka', 'reel', 'waltz']);
});

describe('views', () => {
  const views = async () => bookViewsSchema.parse((await request(app).get('/api/book/views')).body).views;

  test('are kept by name, replaced under the same name, and taken away', async () => {
    const query = { type: 'reel', sort: 'tempo', down: 'yes' };
    expect((await request(app).post('/api/book/views').send({ name: 'Reels to mend', query })).status).toBe(201);
    expect((await views()).map(({ name, query: kept }) => [name, kept])).toEqual([['Reels to mend', query]]);
    await request(app)
      .post('/api/book/views')
      .send({ name: 'Reels to mend', query: { type: 'reel' } });
    const [view] = await views();
    expect(view!.query).toEqual({ type: 'reel' });
    expect((await request(app).delete(`/api/book/views/${view!.id}`)).status).toBe(204);
    expect((await request(app).delete(`/api/book/views/${view!.id}`)).status).toBe(404);
    expect(await views()).toEqual([]);
  });

  test('are sixty at the most', async () => {
    await db.query(
      `INSERT INTO book_views (id, name, query) SELECT gen_random_uuid(), 'v' || n, '{}' FROM generate_series(1, 60) AS n`,
    );
    const full = await request(app).post('/api/book/views').send({ name: 'One more', query: {} });
    expect([full.status, (full.body as { code: string }).code]).toEqual([409, 'too-many-views']);
    expect(
      (
        await request(app)
          .post('/api/book/views')
          .send({ name: 'v7', query: { type: 'jig' } })
      ).status,
    ).toBe(201);
  });
});
