import { type ChildProcess, fork } from 'node:child_process';
import { once } from 'node:events';
import path from 'node:path';
import pg from 'pg';
import { importFinishedSchema, importStateSchema } from '#contract/imports';
import { inventedTune } from '../../core/testing/books';
import { some } from '../../core/testing/share';
import { newestDatabase } from '../testApp';

let databaseUrl: string;
let server: ChildProcess | null = null;
let url = '';

/** The real server as a process of its own, so that it can be killed. */
async function start(): Promise<void> {
  const child = fork(path.resolve('src/server/main.ts'), [], {
    execArgv: ['--import', 'tsx'],
    env: { ...process.env, DATABASE_URL: databaseUrl, MORRIN_PORT: '0', MORRIN_LOG: 'silent' },
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  });
  server = child;
  const [message] = (await once(child, 'message')) as [{ kind: string; url: string }];
  expect(message.kind).toBe('listening');
  url = message.url;
}

async function kill(): Promise<void> {
  const gone = once(server!, 'exit');
  server!.kill('SIGKILL');
  await gone;
}

beforeAll(async () => {
  databaseUrl = await newestDatabase('import_restart');
  await start();
}, 60_000);
afterAll(() => kill());

async function ask(method: string, at: string, body?: object) {
  const response = await fetch(url + at, {
    method,
    ...(body ? { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } } : {}),
  });
  return { status: response.status, body: response.status === 204 ? null : ((await response.json()) as unknown) };
}
async function counts(): Promise<{ tunes: number; ready: number }> {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  const { rows } = await client.query<{ tunes: number; ready: number }>(
    'SELECT (SELECT count(*)::int FROM tunes) AS tunes, (SELECT count(*)::int FROM import_tunes) AS ready',
  );
  await client.end();
  return rows[0]!;
}
/** All of it, each a tune of its own. */
const whole = (expected: number) => ({ expected, leftOut: [], joins: [] });
const tunes = Array.from({ length: 120 }, (_, i) => ({ tune: inventedTune(i + 1) }));

test('a server killed between the pieces of an import: what arrived is there, the rest is sent, nothing is half in the book', async () => {
  const begun = await ask('POST', '/api/imports', { fileName: 'class.abc' });
  const { id } = begun.body as { id: string };
  await ask('PUT', `/api/imports/${id}/tunes`, { from: 0, tunes: tunes.slice(0, 60) });
  await kill();
  expect(await counts()).toEqual({ tunes: 0, ready: 60 });
  await start();
  expect(importStateSchema.parse((await ask('GET', `/api/imports/${id}`)).body)).toMatchObject({
    arrived: 60,
    isFinished: false,
  });
  expect((await ask('POST', `/api/imports/${id}/finish`, whole(120))).body).toMatchObject({
    code: 'import-incomplete',
    details: { missing: 60 },
  });
  await ask('PUT', `/api/imports/${id}/tunes`, { from: 60, tunes: tunes.slice(60) });
  expect(importFinishedSchema.parse((await ask('POST', `/api/imports/${id}/finish`, whole(120))).body).tunes).toBe(120);
  expect(await counts()).toEqual({ tunes: 120, ready: 0 });
}, 60_000);

test('a server killed while it finishes: all of it is in the book or none, and finishing again makes it whole', async () => {
  for (const wait of some([0, 5, 20, 60], 3)) {
    const before = (await counts()).tunes;
    const begun = await ask('POST', '/api/imports', { fileName: 'class.abc' });
    const { id } = begun.body as { id: string };
    await ask('PUT', `/api/imports/${id}/tunes`, { from: 0, tunes: tunes.slice(0, 80) });
    const finishing = ask('POST', `/api/imports/${id}/finish`, whole(80)).catch(() => null);
    await new Promise((resolve) => setTimeout(resolve, wait));
    await kill();
    await finishing;
    await start();
    const after = (await counts()).tunes - before;
    expect([0, 80]).toContain(after);
    expect((await ask('POST', `/api/imports/${id}/finish`, whole(80))).status).toBe(200);
    expect((await counts()).tunes - before).toBe(80);
  }
}, 120_000);
