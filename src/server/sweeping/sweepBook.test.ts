import type { Express } from 'express';
import request from 'supertest';
import { bookSizeSchema } from '#contract/bookSize';
import { readAbc } from '#formats/abc';
import type { Database } from '../db';
import { testApp } from '../testApp';
import { sweepBook } from './sweepBook';

let app: Express;
let db: Database;
let close: () => Promise<void>;
const { tune } = readAbc('X:1\nT:The Quillwort\nM:4/4\nL:1/8\nK:D\n|:d2 (AF) DFA2:|\n').tunes[0]!;
const KEY = '7c5e2f5e-2222-4000-8000-00000000000a';

beforeAll(async () => {
  ({ app, db, close } = await testApp('sweep_book'));
}, 60_000);
afterAll(() => close());

test('what no tune needs any more goes, what one is read from stays', async () => {
  const made = await request(app)
    .post('/api/tunes')
    .set('Idempotency-Key', KEY)
    .send({ tunes: [{ tune }, { tune: { ...tune, title: 'Sedgewater' } }] });
  const [stays, goes] = (made.body as { tunes: { id: string }[] }).tunes.map(({ id }) => id);
  await db.query(
    `INSERT INTO imports (id, file_name, original, begun_at, finished_at)
     SELECT ('7c5e2f5e-3333-4000-8000-00000000000' || n)::uuid, 'a.abc', 'x', now() - interval '9 days',
            CASE WHEN n < 3 THEN now() - interval '9 days' END FROM generate_series(1, 3) AS n`,
  );
  await db.query(
    `INSERT INTO tune_sources (tune_id, import_id) SELECT tune, ('7c5e2f5e-3333-4000-8000-00000000000' || n)::uuid
       FROM unnest($1::uuid[]) WITH ORDINALITY AS t(tune, n)`,
    [[stays, goes]],
  );
  await db.query("UPDATE answered_requests SET answered_at = now() - interval '9 days'");
  await db.query('DELETE FROM tunes WHERE id = $1', [goes]);
  await sweepBook(db, new Date());
  const column = async (sql: string) => (await db.query<{ value: string }>(sql)).rows.map(({ value }) => value);
  expect(await column('SELECT right(id::text, 1) AS value FROM imports')).toEqual(['1']);
  expect(await column('SELECT word AS value FROM book_words ORDER BY word')).toEqual(['quillwort', 'the']);
  expect(await column('SELECT key::text AS value FROM answered_requests')).toEqual([]);
});

test('what the book takes is told', async () => {
  const size = bookSizeSchema.parse((await request(app).get('/api/book/size')).body);
  expect(size.whole).toBeGreaterThan(size.tunes + size.revisions + size.originals);
  const before = size.revisions;
  await db.query(
    `INSERT INTO tune_revisions (tune_id, revision, document)
     SELECT (SELECT id FROM tunes), n, to_jsonb((SELECT string_agg(md5(n || '.' || m), '') FROM generate_series(1, 100) AS m)) FROM generate_series(2, 300) AS n`,
  );
  expect(bookSizeSchema.parse((await request(app).get('/api/book/size')).body).revisions).toBeGreaterThan(
    before + 500_000,
  );
});
