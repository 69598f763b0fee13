import { randomUUID } from 'node:crypto';
import type { Express } from 'express';
import request from 'supertest';
import { importFinishedSchema, importStateSchema, likenessesSchema, partLikenessesSchema } from '#contract/imports';
import { tuneListSchema, tuneRecordSchema } from '#contract/tunes';
import { tuneVersionsSchema } from '#contract/versions';
import { transposeToKey } from '#core/editing';
import { melodyLines, melodyPrint, wholeLine } from '#core/likeness';
import type { Tune } from '#core/tune';
import { inventedTune } from '../../core/testing/books';
import type { Database } from '../db';
import { testApp } from '../testApp';
import { deleteStaleImports } from './queries';

let app: Express;
let db: Database;
let close: () => Promise<void>;

beforeAll(async () => {
  ({ app, db, close } = await testApp('import_routes'));
}, 60_000);
afterAll(() => close());
beforeEach(async () => {
  await db.query('DELETE FROM tunes');
  await db.query('DELETE FROM imports');
});

const tunes = (count: number, first = 1) => Array.from({ length: count }, (_, i) => inventedTune(first + i));
async function begin(): Promise<string> {
  const begun = await request(app).post('/api/imports').send({ fileName: 'class book.abc' });
  expect(begun.status).toBe(201);
  return (begun.body as { id: string }).id;
}
const send = (id: string, from: number, list: readonly Tune[], more: object = {}) =>
  request(app)
    .put(`/api/imports/${id}/tunes`)
    .send({ from, tunes: list.map((tune, i) => ({ tune, source: `X:${from + i + 1}\n`, ...more })) });
const finish = (id: string, expected: number, more: object = {}) =>
  request(app)
    .post(`/api/imports/${id}/finish`)
    .send({ expected, leftOut: [], joins: [], ...more });
const inBook = async () => tuneListSchema.parse((await request(app).get('/api/book/tunes?limit=200')).body).tunes;

test('tunes that come in pieces are in the book at once when the import is finished, and not before', async () => {
  const list = tunes(25);
  const id = await begin();
  await request(app)
    .put(`/api/imports/${id}/original`)
    .set('Content-Type', 'application/octet-stream')
    .send(Buffer.from('the whole file'));
  expect((await send(id, 0, list.slice(0, 20))).status).toBe(204);
  expect((await send(id, 20, list.slice(20))).status).toBe(204);
  expect(await inBook()).toEqual([]);
  const finished = importFinishedSchema.parse((await finish(id, 25)).body);
  expect(finished).toMatchObject({ tunes: 25, settings: 0 });
  const rows = await inBook();
  expect(rows.map(({ title }) => title).sort()).toEqual(list.map(({ title }) => title).sort());
  expect(rows.every(({ isCounted, comesRound }) => !isCounted && comesRound === null)).toBe(true);
  const record = tuneRecordSchema.parse((await request(app).get(`/api/tunes/${finished.first}`)).body);
  expect(record.tune).toEqual(list[0]);
  expect((await request(app).get(`/api/tunes/${finished.first}/source`)).text).toBe('X:1\n');
});

test('the first save of a tune that came in so keeps what it was before', async () => {
  const id = await begin();
  const [tune] = tunes(1);
  await send(id, 0, [tune!]);
  const { first } = importFinishedSchema.parse((await finish(id, 1)).body);
  await request(app)
    .put(`/api/tunes/${first}`)
    .send({ baseRevision: 1, tune: { ...tune, title: 'Later' } });
  const { rows } = await db.query(
    "SELECT revision, document->>'title' AS title FROM tune_revisions WHERE tune_id = $1 ORDER BY 1",
    [first],
  );
  expect(rows).toEqual([
    { revision: 1, title: tune!.title },
    { revision: 2, title: 'Later' },
  ]);
});

test('a file without a text for each tune is kept as a whole, and comes back to the byte', async () => {
  const id = await begin();
  const file = Buffer.from([0x50, 0x4b, 0, 255, 1, 2]);
  await request(app).put(`/api/imports/${id}/original`).set('Content-Type', 'application/octet-stream').send(file);
  await send(id, 0, tunes(1), { source: undefined });
  const { first } = importFinishedSchema.parse((await finish(id, 1)).body);
  const source = await request(app)
    .get(`/api/tunes/${first}/source`)
    .buffer(true)
    .parse((response, done) => {
      const chunks: Buffer[] = [];
      response.on('data', (chunk: Buffer) => chunks.push(chunk));
      response.on('end', () => done(null, Buffer.concat(chunks)));
    });
  expect(source.body).toEqual(file);
  expect(source.headers['content-disposition']).toContain('class-book.abc');
});

test('every step may come again, and what did not arrive is told', async () => {
  const list = tunes(3);
  const id = await begin();
  await send(id, 0, list.slice(0, 2));
  const early = await finish(id, 3);
  expect([early.status, early.body]).toMatchObject([409, { code: 'import-incomplete', details: { missing: 2 } }]);
  await send(id, 0, list.slice(0, 2));
  await send(id, 2, list.slice(2));
  expect(importStateSchema.parse((await request(app).get(`/api/imports/${id}`)).body)).toMatchObject({
    arrived: 3,
    isFinished: false,
  });
  expect(importFinishedSchema.parse((await finish(id, 3)).body).tunes).toBe(3);
  expect(importFinishedSchema.parse((await finish(id, 3)).body).tunes).toBe(3);
  expect(await inBook()).toHaveLength(3);
  expect((await send(id, 0, list)).status).toBe(404);
});

test('one that is given up leaves nothing behind', async () => {
  const id = await begin();
  await send(id, 0, tunes(5));
  expect((await request(app).delete(`/api/imports/${id}`)).status).toBe(204);
  for (const table of ['imports', 'import_tunes', 'tunes', 'tune_sources', 'tune_prints']) {
    const { rows } = await db.query<{ count: number }>(`SELECT count(*)::integer AS count FROM ${table}`);
    expect([table, rows[0]!.count]).toEqual([table, 0]);
  }
  expect((await finish(id, 5)).status).toBe(404);
  expect((await request(app).delete(`/api/imports/${id}`)).status).toBe(404);
});

test('one that was left a day ago is forgotten, one of today is not', async () => {
  const [old, young] = [await begin(), await begin()];
  await db.query("UPDATE imports SET begun_at = now() - interval '25 hours' WHERE id = $1", [old]);
  expect(await deleteStaleImports(db)).toBe(1);
  expect((await request(app).get(`/api/imports/${young}`)).status).toBe(200);
});

test('where the database fails in the middle of finishing, nothing is in the book', async () => {
  const id = await begin();
  await send(id, 0, tunes(2));
  await db.query(`CREATE FUNCTION fail() RETURNS trigger LANGUAGE plpgsql AS 'BEGIN RAISE EXCEPTION ''no''; END'`);
  await db.query('CREATE TRIGGER fail BEFORE INSERT ON tune_sources FOR EACH ROW EXECUTE FUNCTION fail()');
  expect((await finish(id, 2)).status).toBe(500);
  expect(await inBook()).toEqual([]);
  await db.query('DROP TRIGGER fail ON tune_sources');
  expect(importFinishedSchema.parse((await finish(id, 2)).body).tunes).toBe(2);
});

test.each([[{ fileName: '' }], [{ fileName: 'x'.repeat(301) }], [{}]])('%j is refused', async (body) => {
  expect((await request(app).post('/api/imports').send(body)).status).toBe(400);
});

test('a tune that is not as expected is refused with its place, the others of its piece too', async () => {
  const id = await begin();
  const refused = await send(id, 0, [tunes(1)[0]!, { ...tunes(1)[0]!, form: ['Q'] }]);
  expect(refused.status).toBe(422);
  expect(JSON.stringify(refused.body)).toContain('tunes.1.tune.form.0');
  expect(importStateSchema.parse((await request(app).get(`/api/imports/${id}`)).body).arrived).toBe(0);
});

describe('likeness', () => {
  const melody = (tune: Tune) => {
    const pitches = wholeLine(melodyLines(tune));
    return { pitches, print: melodyPrint(pitches) };
  };
  const ask = async (list: readonly Tune[]) =>
    likenessesSchema.parse(
      (
        await request(app)
          .post('/api/likenesses')
          .send({ melodies: list.map(melody) })
      ).body,
    ).found;

  async function fill(list: readonly Tune[]): Promise<void> {
    const id = await begin();
    await send(id, 0, list);
    await finish(id, list.length);
  }

  test('a tune in another key under another name is found, strangers are not', async () => {
    await fill(tunes(30));
    const known = inventedTune(7);
    const setting = { ...transposeToKey(known, { letter: 'F', alter: 0 }), title: 'Another name' };
    const [like, strange] = await ask([setting, inventedTune(900)]);
    expect(like).toHaveLength(1);
    expect(like![0]).toMatchObject({ title: known.title, share: 1 });
    expect(strange).toEqual([]);
  });

  test('a setting joins the tune that it is of, one whose tune is gone is a tune of its own, one that is left out is nowhere', async () => {
    await fill([inventedTune(7)]);
    const known = (await inBook())[0]!.id;
    const id = await begin();
    await send(id, 0, [{ ...inventedTune(7), title: 'The other setting' }, inventedTune(8), inventedTune(9)]);
    const joins = [
      { at: 0, tune: known },
      { at: 1, tune: randomUUID() },
    ];
    const finished = await finish(id, 3, { joins, leftOut: [2] });
    expect(importFinishedSchema.parse(finished.body)).toMatchObject({ tunes: 1, settings: 1 });
    const { versions } = tuneVersionsSchema.parse((await request(app).get(`/api/tunes/${known}/versions`)).body);
    expect(versions).toMatchObject([{ name: 'The other setting', kind: 'setting', note: 'from class book.abc' }]);
    expect((await inBook()).map(({ title }) => title).sort()).toEqual(
      [inventedTune(7).title, inventedTune(8).title].sort(),
    );
  });

  test('a part that is a part of another tune is told with both names', async () => {
    const [one, other] = [inventedTune(11), inventedTune(12)];
    const borrowed: Tune = {
      ...other,
      meter: one.meter,
      key: one.key,
      title: 'Borrowed',
      parts: [
        other.parts[0]!,
        {
          name: 'B',
          events: one.parts[0]!.events.map((event) => ({
            ...event,
            id: `x${event.id}`,
            ...(event.kind === 'note' && event.link === 'start' ? { link: 'change' as const } : {}),
          })),
        },
      ],
      form: ['A', 'B'],
    };
    await fill([one, borrowed]);
    const { id } = (await inBook()).find(({ title }) => title === 'Borrowed')!;
    const { parts } = partLikenessesSchema.parse((await request(app).get(`/api/likenesses/${id}`)).body);
    expect(parts).toMatchObject([{ title: one.title, part: 'B', ofPart: 'A', share: 1 }]);
  });
});
