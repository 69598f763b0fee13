import { createHash } from 'node:crypto';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { gunzipSync, gzipSync } from 'node:zlib';
import type { Express } from 'express';
import request from 'supertest';
import { keptCopiesSchema, restoredSchema } from '#contract/exports';
import { settingsRecordSchema } from '#contract/settings';
import { tuneListSchema } from '#contract/tunes';
import { inventedTune } from '../../core/testing/books';
import type { Database } from '../db';
import { loadDemo } from '../demo/loadDemo';
import { jobsHere } from '../jobs/jobs';
import { testApp } from '../testApp';
import { isCopyDue, keepCopy, keptCopies } from './keptCopies';
import { BACKUP_TABLES } from './tables';
import { backupLines } from './writeBackup';

let app: Express;
let db: Database;
let copiesFolder: string;
let close: () => Promise<void>;

beforeAll(async () => {
  ({ app, db, copiesFolder, close } = await testApp('backup_routes'));
  await loadDemo(db, jobsHere, 'demo');
  const rows = tuneListSchema.parse((await request(app).get('/api/book/tunes')).body).tunes;
  const { id } = rows[0]!;
  const { tune } = (await request(app).get(`/api/tunes/${id}`)).body as { tune: object };
  await request(app)
    .put(`/api/tunes/${id}`)
    .send({ baseRevision: 1, tune: { ...tune, composer: 'Zoë & “friends” \\ \u2028' } });
  await request(app)
    .post(`/api/tunes/${id}/versions`)
    .send({ name: 'Slow', tune, kind: 'setting', taughtBy: 'Wenna', learnedOn: '2025-03-04' });
  await request(app)
    .post('/api/book/changes')
    .send({ choice: { filter: {} }, deed: { kind: 'tag', tag: 'class' } });
  await request(app)
    .post('/api/book/changes')
    .send({ choice: { ids: [rows[1]!.id] }, deed: { kind: 'practised', at: '2026-01-02T03:04:05.678Z' } });
  await request(app)
    .post('/api/book/changes')
    .send({ choice: { ids: [rows[2]!.id] }, deed: { kind: 'remove' } });
  await request(app)
    .post('/api/book/views')
    .send({ name: 'Reels', query: { type: 'reel' } });
  const record = settingsRecordSchema.parse((await request(app).get('/api/settings')).body);
  await request(app)
    .put('/api/settings')
    .send({
      baseRevision: 0,
      settings: { ...record.settings, limits: { strokeMs: { value: 91, source: 'measured' } } },
    });
  const begun = await request(app).post('/api/imports').send({ fileName: 'x.mxl' });
  const importId = (begun.body as { id: string }).id;
  await request(app)
    .put(`/api/imports/${importId}/original`)
    .set('Content-Type', 'application/octet-stream')
    .send(Buffer.from([0, 1, 255, 10, 13]));
  await request(app)
    .put(`/api/imports/${importId}/tunes`)
    .send({ from: 0, tunes: [{ tune: inventedTune(3) }] });
  await request(app).post(`/api/imports/${importId}/finish`).send({ expected: 1, leftOut: [], joins: [] });
}, 60_000);
afterAll(() => close());

const VERSION_1 = 'src/server/backup/version1.jsonl';

function bytesOf(answer: request.Response, done: (error: Error | null, body: Buffer) => void): void {
  const chunks: Buffer[] = [];
  answer.on('data', (chunk: Buffer) => chunks.push(chunk));
  answer.on('end', () => done(null, Buffer.concat(chunks)));
}

async function backup(): Promise<Buffer> {
  const response = await request(app).get('/api/backup').buffer(true).parse(bytesOf);
  expect(response.status).toBe(200);
  return response.body as Buffer;
}
const restore = (bytes: Buffer) => request(app).post('/api/backup').set('Content-Type', 'application/gzip').send(bytes);

/** Every row of every table that is backed up, as text; revisions are told apart, since they are moved. */
async function contents(): Promise<Record<string, string[]>> {
  const found: Record<string, string[]> = {};
  for (const table of BACKUP_TABLES) {
    const { rows } = await db.query<{ row: string }>(
      `SELECT (to_jsonb(t) - 'revision')::text AS row FROM ${table} AS t ORDER BY 1`,
    );
    found[table] = rows.map(({ row }) => row);
  }
  return found;
}
const revisionOf = async () =>
  (await db.query<{ revision: number }>('SELECT revision FROM tunes ORDER BY id LIMIT 1')).rows[0]!.revision;

test('a backup taken back gives the very same rows, whatever was done meanwhile', async () => {
  const before = await contents();
  for (const table of BACKUP_TABLES) expect([table, before[table]!.length > 0]).toEqual([table, true]);
  const bytes = await backup();
  await db.query("UPDATE tunes SET title = 'spoilt', tags = '{}'");
  await db.query('DELETE FROM tune_versions');
  await db.query('DELETE FROM player_settings');
  await request(app)
    .post('/api/tunes')
    .send({ tunes: [{ tune: inventedTune(99) }] });
  const { tunes } = restoredSchema.parse((await restore(bytes)).body);
  expect(tunes).toBe(before.tunes!.length);
  expect(await contents()).toEqual(before);
});

test('the book works on after it: a search finds, and a misspelt one too', async () => {
  const find = async (words: string) =>
    tuneListSchema.parse((await request(app).get('/api/book/tunes').query({ words })).body).tunes.length;
  expect(await find('ferry')).toBeGreaterThan(0);
  expect(await find('ferrey')).toBeGreaterThan(0);
});

test.each<[string, (lines: string[]) => string[], RegExp]>([
  ['one that was cut off', (lines) => lines.slice(0, -2), /the end of the backup: the file was cut off/],
  ['one with a row taken out', (lines) => lines.filter((_, i) => i !== 5), /the rows of \w+ as they were written/],
  ['a file of something else', () => ['{"hello":1}', '{}'], /line 1.*the head of a Morrin backup/],
  ['one that is not JSON', (lines) => [lines[0]!, 'x'], /line 2.*a line of JSON/],
  [
    'one with a table of its own',
    (lines) => [lines[0]!, '{"table":"pg_user","row":{}}', ...lines.slice(1)],
    /line 2.*a row of a known table/,
  ],
  [
    'one with a tune that is none',
    (lines) =>
      resummed(lines.map((line) => line.replace('"form": ["A"', '"form": ["Q"').replace('"form":["A"', '"form":["Q"'))),
    /a tunes? row|a tune_\w+ row/,
  ],
  [
    'one with a row that does not fit',
    (lines) => resummed(lines.map((line) => line.replace(/"revision":\d+/, '"revision":"many"'))),
    /rows that fit/,
  ],
  [
    'one with a letter that was changed',
    (lines) => lines.map((line) => line.replace('"title":"T', '"title":"S')),
    /the rows of tunes as they were written: the file is damaged above this line/,
  ],
  [
    'one with a column of a later version',
    (lines) => resummed(lines.map((line) => line.replace('"row":{"id"', '"row":{"colour":"red","id"'))),
    /only what this version keeps of \w+, found colour/,
  ],
  [
    'one of a newer version',
    (lines) => lines.map((line) => line.replace('"version":3', '"version":4')),
    /version 3 or older: this one, of version 4, was made by a newer Morrin/,
  ],
  [
    'one with something after its end',
    (lines) => [...lines.filter((line) => line !== ''), lines[1]!],
    /nothing after the end/,
  ],
])('%s is refused with the line, and the book stays as it was', async (_what, spoil, words) => {
  const before = await contents();
  const lines = gunzipSync(await backup())
    .toString('utf8')
    .split('\n');
  const refused = await restore(gzipSync(spoil(lines).join('\n')));
  expect([refused.status, (refused.body as { code: string }).code]).toEqual([422, 'bad-backup']);
  expect(JSON.stringify(refused.body)).toMatch(words);
  expect(await contents()).toEqual(before);
});

test('a backup of version 2, which knew no sets, is taken back without any', async () => {
  const now = await backup();
  const lines = gunzipSync(now)
    .toString('utf8')
    .split('\n')
    .filter((line) => !/^\{"(table|section)":"sets"/.test(line))
    .map((line) => line.replace('"version":3', '"version":2').replace(/"sets":\d+,?/, ''));
  const before = await contents();
  expect((await restore(gzipSync(lines.join('\n')))).status).toBe(200);
  expect(await contents()).toEqual({ ...before, sets: [] });
  expect((await restore(now)).status).toBe(200);
  expect(await contents()).toEqual(before);
});

/** Lines with the sums of their sections as they are now: what was changed is then no damage. */
function resummed(lines: readonly string[]): string[] {
  let sum = createHash('sha256');
  return lines.map((line) => {
    if (line.startsWith('{"table"')) sum.update(`${line}\n`);
    if (!line.startsWith('{"section"')) return line;
    const section = JSON.parse(line) as object;
    const done = JSON.stringify({ ...section, sha256: sum.digest('hex') });
    sum = createHash('sha256');
    return done;
  });
}

test('after a backup is back no tab of before can overwrite: its revision is one that nobody names', async () => {
  const before = await revisionOf();
  const { id, tune } = (await request(app).get('/api/book/tunes')).body.tunes[0] as { id: string; tune: object };
  expect((await restore(await backup())).status).toBe(200);
  expect((await revisionOf()) - before).toBeGreaterThanOrEqual(1000);
  const open = (await request(app).get(`/api/tunes/${id}`)).body as { revision: number; tune: object };
  const stale = await request(app)
    .put(`/api/tunes/${id}`)
    .send({ baseRevision: 1, tune: { ...open.tune, title: 'Overwritten', ...tune } });
  expect(stale.status).toBe(409);
});

test('the book as it was is kept before a backup is taken back, can be had, and brings all of it back', async () => {
  const before = await contents();
  const { copy } = restoredSchema.parse((await restore(gzipSync(readFileSync(VERSION_1)))).body);
  expect((await contents()).tunes).toHaveLength(1);
  const { copies } = keptCopiesSchema.parse((await request(app).get('/api/backup/copies')).body);
  expect(copies.map(({ name, kind }) => [name, kind])).toContainEqual([copy, 'before-restore']);
  expect(readdirSync(copiesFolder).filter((name) => name.endsWith('.unfinished'))).toEqual([]);
  const kept = await request(app).get(`/api/backup/copies/${copy}`).buffer(true).parse(bytesOf);
  expect((await restore(kept.body as Buffer)).status).toBe(200);
  expect(await contents()).toEqual(before);
  for (const name of ['..%2f..%2fpackage.json', 'other.jsonl.gz'])
    expect((await request(app).get(`/api/backup/copies/${name}`)).status).toBe(404);
});

test('a backup of the first version comes in: what it has not is as usual, what follows from documents is made anew', async () => {
  const before = await backup();
  const spoilt = readFileSync(VERSION_1, 'utf8')
    .replace(/,"tags":\[\],/, ',')
    .replace('"title":"Tide over the Sill"', '"title":"spoilt"');
  expect((await restore(gzipSync(spoilt))).status).toBe(200);
  const { rows } = await db.query<{ title: string; tags: string[] }>('SELECT title, tags FROM tunes');
  expect(rows).toEqual([{ title: 'Tide over the Sill', tags: [] }]);
  await restore(before);
});

test('a copy is due each day, and seven of them are kept', async () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'morrin-daily-'));
  const at = (day: number) => new Date(Date.UTC(2026, 10, day, 5));
  for (let day = 1; day <= 9; day++) {
    expect(await isCopyDue(folder, at(day))).toBe(true);
    await keepCopy(db, folder, 'daily', at(day));
    expect(await isCopyDue(folder, new Date(at(day).getTime() + 23 * 3600_000))).toBe(false);
  }
  expect((await keptCopies(folder)).map(({ madeAt }) => madeAt.slice(8, 10))).toEqual([
    '09',
    '08',
    '07',
    '06',
    '05',
    '04',
    '03',
  ]);
  rmSync(folder, { recursive: true });
});

test('a file that is not packed is refused', async () => {
  const refused = await restore(Buffer.from('{"format":"morrin-backup"}'));
  expect([refused.status, (refused.body as { code: string }).code]).toEqual([422, 'bad-backup']);
});

test('tens of thousands of rows go out and come back, and a reader that goes away leaves no connection behind', async () => {
  const many = 25_000;
  await db.query(
    `INSERT INTO book_views (id, name, query) SELECT gen_random_uuid(), 'many ' || i, '{}' FROM generate_series(1, ${many}) AS i`,
  );
  const before = await contents();
  const bytes = await backup();
  const restored = restoredSchema.parse((await restore(bytes)).body);
  expect(restored.rows).toBeGreaterThan(many);
  expect((await contents()).book_views).toEqual(before.book_views);
  const lines = backupLines(db, new Date());
  for (let i = 0; i < 3; i++) await lines.next();
  await lines.return(undefined);
  expect(db.idleCount).toBe(db.totalCount);
  await db.query("DELETE FROM book_views WHERE name LIKE 'many %'");
});
