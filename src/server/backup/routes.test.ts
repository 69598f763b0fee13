import { gunzipSync, gzipSync } from 'node:zlib';
import type { Express } from 'express';
import request from 'supertest';
import { restoredSchema } from '#contract/exports';
import { settingsRecordSchema } from '#contract/settings';
import { tuneListSchema } from '#contract/tunes';
import { inventedTune } from '../../core/testing/books';
import type { Database } from '../db';
import { loadDemo } from '../demo/loadDemo';
import { testApp } from '../testApp';
import { BACKUP_TABLES } from './tables';

let app: Express;
let db: Database;
let close: () => Promise<void>;

beforeAll(async () => {
  ({ app, db, close } = await testApp('backup_routes'));
  await loadDemo(db, 'demo');
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

async function backup(): Promise<Buffer> {
  const response = await request(app)
    .get('/api/backup')
    .buffer(true)
    .parse((answer, done) => {
      const chunks: Buffer[] = [];
      answer.on('data', (chunk: Buffer) => chunks.push(chunk));
      answer.on('end', () => done(null, Buffer.concat(chunks)));
    });
  expect(response.status).toBe(200);
  return response.body as Buffer;
}
const restore = (bytes: Buffer) => request(app).post('/api/backup').set('Content-Type', 'application/gzip').send(bytes);

/** Every row of every table that is backed up, as text. */
async function contents(): Promise<Record<string, string[]>> {
  const found: Record<string, string[]> = {};
  for (const table of BACKUP_TABLES) {
    const { rows } = await db.query<{ row: string }>(`SELECT t::text AS row FROM ${table} AS t ORDER BY 1`);
    found[table] = rows.map(({ row }) => row);
  }
  return found;
}

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
  ['one with a row taken out', (lines) => lines.filter((_, i) => i !== 5), /rows (of|that fit) \w+/],
  ['a file of something else', () => ['{"hello":1}', '{}'], /line 1.*the head of a Morrin backup/],
  ['one that is not JSON', (lines) => [lines[0]!, 'x'], /line 2.*a line of JSON/],
  [
    'one with a table of its own',
    (lines) => [lines[0]!, '{"table":"pg_user","row":{}}', ...lines.slice(1)],
    /line 2.*a row of a known table/,
  ],
  [
    'one with a tune that is none',
    (lines) => lines.map((line) => line.replace('"form": ["A"', '"form": ["Q"').replace('"form":["A"', '"form":["Q"')),
    /a tunes? row|a tune_\w+ row/,
  ],
  [
    'one with a row that does not fit',
    (lines) => lines.map((line) => line.replace(/"revision":\d+/, '"revision":"many"')),
    /rows that fit/,
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

test('a file that is not packed is refused', async () => {
  const refused = await restore(Buffer.from('{"format":"morrin-backup"}'));
  expect([refused.status, (refused.body as { code: string }).code]).toEqual([422, 'bad-backup']);
});
