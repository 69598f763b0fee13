import { parse as parseCsv } from 'csv-parse/sync';
import type { Express } from 'express';
import { unzipSync } from 'fflate';
import request from 'supertest';
import { tuneListSchema } from '#contract/tunes';
import type { Tune } from '#core/tune';
import { readFile } from '#formats/file';
import { inventedTune } from '../../core/testing/books';
import { part, tune as tuneOf } from '../../core/testing/tunes';
import type { Database } from '../db';
import { testApp } from '../testApp';
import { fileStem } from './writers';

let app: Express;
let db: Database;
let close: () => Promise<void>;
const tunes = Array.from({ length: 12 }, (_, i) => inventedTune(i + 1));

beforeAll(async () => {
  ({ app, db, close } = await testApp('export_routes'));
  await request(app)
    .post('/api/tunes')
    .send({ tunes: tunes.map((tune) => ({ tune })) });
}, 60_000);
afterAll(() => close());

async function exported(format: string, choice: object = { filter: {} }, name?: string) {
  const response = await request(app)
    .post('/api/export')
    .send({ format, choice, name })
    .buffer(true)
    .parse((answer, done) => {
      const chunks: Buffer[] = [];
      answer.on('data', (chunk: Buffer) => chunks.push(chunk));
      answer.on('end', () => done(null, Buffer.concat(chunks)));
    });
  return {
    status: response.status,
    bytes: response.body as Buffer,
    name: response.headers['content-disposition'] ?? '',
  };
}
const titlesIn = (bytes: Buffer) =>
  [...readFile(bytes)].map((read) => ('tune' in read ? read.tune.title : JSON.stringify(read.failed))).sort();
const all = tunes.map(({ title }) => title).sort();

test.each(['abc', 'json', 'musicxml', 'midi'])('the book as %s holds every tune', async (format) => {
  const { status, bytes, name } = await exported(format);
  expect(status).toBe(200);
  expect(name).toContain({ abc: 'book.abc', json: 'book.morrin.json' }[format] ?? 'book.zip');
  expect(titlesIn(bytes)).toEqual(all);
});

test('a book larger than a batch is whole and in order', async () => {
  const more = Array.from({ length: 110 }, (_, i): Tune => ({
    ...tuneOf([part('A', 'D4:4 E4:4')], { form: ['A'] }),
    title: `M ${String(i).padStart(3, '0')}`,
  }));
  for (let at = 0; at < more.length; at += 50)
    await request(app)
      .post('/api/tunes')
      .send({ tunes: more.slice(at, at + 50).map((tune) => ({ tune })) });
  const { bytes } = await exported('abc', { filter: { words: 'm' } });
  const titles = [...readFile(bytes)].map((read) => ('tune' in read ? read.tune.title : ''));
  const own = titles.filter((title) => /^M \d{3}$/.test(title));
  expect(own).toEqual(more.map(({ title }) => title));
  await db.query("DELETE FROM tunes WHERE title LIKE 'M %'");
}, 60_000);

test('a set goes out in its own order, each tune once, under its own name', async () => {
  const rows = tuneListSchema.parse((await request(app).get('/api/book/tunes')).body).tunes;
  const order = [rows[7]!, rows[2]!, rows[9]!];
  const ids = [...order, rows[7]!].map(({ id }) => id);
  const { bytes, name } = await exported('abc', { ids, inOrder: true }, 'First dance');
  expect(name).toContain('First dance.abc');
  expect([...readFile(bytes)].map((read) => ('tune' in read ? read.tune.title : ''))).toEqual(
    order.map(({ title }) => title),
  );
  const list = parseCsv((await exported('csv', { ids, inOrder: true })).bytes.toString('utf8'), { columns: true });
  expect((list as unknown as { Title: string }[]).map(({ Title }) => Title)).toEqual(order.map(({ title }) => title));
});

test('one tune is a file of its own, under its title', async () => {
  const rows = tuneListSchema.parse((await request(app).get('/api/book/tunes')).body).tunes;
  for (const [format, ending] of [
    ['abc', '.abc'],
    ['musicxml', '.musicxml'],
    ['midi', '.mid'],
    ['json', '.morrin.json'],
  ]) {
    const { bytes, name } = await exported(format!, { ids: [rows[0]!.id] });
    expect(name).toContain(`${rows[0]!.title}${ending}`);
    expect(titlesIn(bytes)).toEqual([rows[0]!.title]);
  }
});

test('equal titles are files of their own in an archive', async () => {
  const twin = { ...tunes[0]!, title: 'Twin' };
  const added = await request(app)
    .post('/api/tunes')
    .send({ tunes: [{ tune: twin }, { tune: twin }] });
  const ids = (added.body as { tunes: { id: string }[] }).tunes.map(({ id }) => id);
  const { bytes } = await exported('musicxml', { ids });
  expect(Object.keys(unzipSync(bytes)).sort()).toEqual(['Twin (2).musicxml', 'Twin.musicxml']);
  await db.query('DELETE FROM tunes WHERE id = ANY($1)', [ids]);
});

test('the list as a table can be read by a reader of tables, and no cell is a formula', async () => {
  const formulas = ['=1+1', '+cmd', '-2', '@SUM(A1)', '\t=1'];
  const added = await request(app)
    .post('/api/tunes')
    .send({ tunes: formulas.map((title) => ({ tune: { ...tunes[0]!, title, composer: '=HYPERLINK("x")' } })) });
  const ids = (added.body as { tunes: { id: string }[] }).tunes.map(({ id }) => id);
  const { bytes } = await exported('csv');
  const rows = parseCsv(bytes.toString('utf8'), { columns: true }) as unknown as Record<string, string>[];
  expect(rows).toHaveLength(tunes.length + formulas.length);
  for (const row of rows) for (const cell of Object.values(row)) expect(cell).not.toMatch(/^[=+@\t\r]|^-(?!\d)/);
  const known = rows.find((row) => row.Title === tunes[0]!.title)!;
  expect(known).toMatchObject({
    Type: tunes[0]!.danceType,
    Form: 'AABB',
    Bars: '32',
    Beat: expect.any(String) as string,
  });
  await db.query('DELETE FROM tunes WHERE id = ANY($1)', [ids]);
});

test('nothing chosen and no such format are refused', async () => {
  expect((await exported('abc', { filter: { words: 'xylophone' } })).status).toBe(404);
  expect((await exported('waltz')).status).toBe(400);
  expect((await exported('abc', { ids: [] })).status).toBe(400);
});

test.each([
  ['a/b\\c:d*e?f"g<h>i|j', 'a b c d e f g h i j'],
  ['..', 'tune'],
  ['../../etc/passwd', 'etc passwd'],
  ['x'.repeat(300), 'x'.repeat(80)],
  ['  ', 'tune'],
])('the title %s makes a harmless file name', (title, name) => {
  expect(fileStem(title)).toBe(name);
});

test('a tune that cannot be written keeps no other back, and is told in the archive', async () => {
  const added = await request(app)
    .post('/api/tunes')
    .send({ tunes: ['Whole', 'Broken', 'Whole too'].map((title) => ({ tune: { ...tunes[0]!, title } })) });
  const ids = (added.body as { tunes: { id: string }[] }).tunes.map(({ id }) => id);
  await db.query("UPDATE tunes SET document = document - 'parts' WHERE id = $1", [ids[1]]);
  const files = unzipSync((await exported('midi', { ids })).bytes);
  expect(Object.keys(files).sort()).toEqual(['Whole too.mid', 'Whole.mid', 'left out.txt']);
  expect(Buffer.from(files['left out.txt']!).toString()).toMatch(/^Broken: left out\. ./);
  const text = (await exported('abc', { ids })).bytes.toString('utf8');
  expect(text).toMatch(/^% Broken: left out\. ./m);
  expect(text.match(/^T:/gm)).toHaveLength(2);
  await db.query('DELETE FROM tunes WHERE id = ANY($1)', [ids]);
});
