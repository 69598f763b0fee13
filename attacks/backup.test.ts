import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { type IncomingMessage, request } from 'node:http';
import { text } from 'node:stream/consumers';
import { randomScore } from '../src/core/testing/scores';
import { BACKUP_TABLES } from '../src/server/backup/tables';
import { query, type RunningServer, startServer } from './running';

declare const TEST_SHARE: number;
const TUNES = TEST_SHARE === 1 ? 20_000 : 500;
/** Rows of other tables for each tune: revisions, versions, prints, sources. */
const REVISIONS = 3;
/** Memory by which the server may grow while a book of any size goes out. */
const MAX_GROWTH_MB = 250;

let server: RunningServer;
beforeAll(async () => {
  server = await startServer('attack_backup', { MORRIN_DEMO: '1' });
}, 60_000);
afterAll(() => server.stop());

const memoryMb = () =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.child.pid}/status`, 'utf8'))![1]) / 1024;

/** What is counted in the background, or moved on purpose when a book comes back. */
const COUNTED = [
  'revision',
  'words',
  'counted_by',
  'own_by',
  'own_low',
  'own_ceiling',
  'own_high',
  'own_binds',
  'missing',
];

/** Every table as its count and a sum over its rows, in whatever order. */
async function sums(): Promise<Record<string, unknown>> {
  const told: Record<string, unknown> = {};
  for (const table of BACKUP_TABLES)
    [told[table]] = await query(
      server.databaseUrl,
      `SELECT count(*)::integer AS rows, coalesce(sum(('x' || substr(md5((to_jsonb(t) - $1::text[])::text), 1, 15))::bit(60)::bigint), 0)::text AS sum
         FROM ${table} AS t`,
      [COUNTED],
    );
  return told;
}

/** As `fetch`, which waits five minutes for an answer and no longer. */
async function post(url: string, body: Buffer): Promise<{ status: number; body: string }> {
  const asked = request(url, { method: 'POST', headers: { 'Content-Type': 'application/gzip' } });
  asked.end(body);
  const [response] = (await once(asked, 'response')) as [IncomingMessage];
  return { status: response.statusCode!, body: await text(response) };
}

test('a large book goes out and comes back the same, table by table, in memory that does not grow with it', async () => {
  const documents = Array.from({ length: 10 }, (_, i) => ({ tune: { ...randomScore(i + 1), title: `Base ${i}` } }));
  const made = await fetch(`${server.url}/api/tunes`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ tunes: documents }),
  });
  expect(made.status).toBe(201);
  // On a busy machine figures come afterwards: copies of what is still to be counted would change under the sums.
  for (let left = 1; left > 0; await new Promise((resolve) => setTimeout(resolve, 100)))
    ({ left } = (await (await fetch(`${server.url}/api/book/counting`)).json()) as { left: number });
  const columns = (
    await query<{ name: string }>(
      server.databaseUrl,
      `SELECT column_name AS name FROM information_schema.columns WHERE table_name = 'tunes' AND column_name NOT IN ('id', 'title', 'document')`,
    )
  ).map(({ name }) => `"${name}"`);
  await query(
    server.databaseUrl,
    `INSERT INTO tunes (id, title, document, ${columns.join(', ')})
     SELECT gen_random_uuid(), title || ' ' || n, jsonb_set(document, '{title}', to_jsonb(title || ' ' || n)), ${columns.join(', ')}
       FROM generate_series(1, $1::integer) AS n JOIN (SELECT *, row_number() OVER (ORDER BY id) AS k FROM tunes WHERE title LIKE 'Base %') AS base ON base.k = n % 10 + 1`,
    [TUNES],
  );
  await query(
    server.databaseUrl,
    `INSERT INTO tune_revisions (tune_id, revision, document) SELECT id, n + 1, document FROM tunes, generate_series(1, $1::integer) AS n`,
    [REVISIONS],
  );
  await query(
    server.databaseUrl,
    `INSERT INTO tune_versions (id, tune_id, name, document) SELECT gen_random_uuid(), id, 'Plain', document FROM tunes`,
  );
  const before = await sums();
  const memory = memoryMb();
  const begun = Date.now();
  const backup = await (await fetch(`${server.url}/api/backup`)).blob();
  const outMs = Date.now() - begun;
  const grown = memoryMb() - memory;
  await query(server.databaseUrl, "DELETE FROM tunes WHERE title LIKE 'Base 1 %'");
  const again = Date.now();
  const restored = await post(`${server.url}/api/backup`, Buffer.from(await backup.arrayBuffer()));
  const { rows } = JSON.parse(restored.body) as { rows: number };
  console.log(
    `${TUNES} tunes, ${rows} rows, ${(backup.size / 1e6).toFixed(1)} MB: out in ${(outMs / 1000).toFixed(1)} s with ${Math.round(grown)} MB more, checked and back in ${((Date.now() - again) / 1000).toFixed(1)} s`,
  );
  expect(restored.status).toBe(200);
  expect(await sums()).toEqual(before);
  expect(grown).toBeLessThan(MAX_GROWTH_MB);
}, 3_600_000);
