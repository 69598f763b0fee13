import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import { chmodSync, cpSync, existsSync, mkdtempSync, rmSync, symlinkSync } from 'node:fs';
import { type AddressInfo, createServer } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { tuneRecordSchema } from '#contract/tunes';
import { seeded } from '../src/core/testing/tunes';
import { longTune } from './enormous';
import { commandLine, kill, processesWith } from './processes';

declare const TEST_SHARE: number;
/** Rounds in full size; each kills something once or twice. */
const ROUNDS = 200;
const SHORT_ROUNDS = 6;
/** Half of the times that Morrin is up again after a kill are at most this; beside other work everything takes longer. */
const MAX_MEDIAN_MS = TEST_SHARE === 1 ? 5_000 : 15_000;
/** Nobody waits longer for Morrin after any kill. */
const MAX_MS = 60_000;
let port = 0;
const urlOf = (path: string) => `http://127.0.0.1:${port}${path}`;

/** A port that nothing listens on: Morrin keeps it over every kill. */
async function freePort(): Promise<number> {
  const probe = createServer().listen(0, '127.0.0.1');
  await once(probe, 'listening');
  const { port: free } = probe.address() as AddressInfo;
  probe.close();
  await once(probe, 'close');
  return free;
}

/** An installation of its own: what was built, and a place for a book. */
function installation(): string {
  const folder = mkdtempSync(path.join(tmpdir(), 'morrin-killed-'));
  // The user of the database has to reach it.
  chmodSync(folder, 0o755);
  for (const name of ['package.json', 'package-lock.json', 'index.html', 'vite.config.ts'])
    cpSync(name, path.join(folder, name));
  for (const name of ['scripts', 'db', 'demo', 'public']) cpSync(name, path.join(folder, name), { recursive: true });
  for (const name of ['src', 'node_modules', 'dist']) symlinkSync(path.resolve(name), path.join(folder, name));
  return folder;
}

function start(folder: string): ChildProcess {
  return spawn(process.execPath, ['scripts/start.mjs'], {
    cwd: folder,
    env: { ...process.env, TEST_DATABASE_URL: '', MORRIN_PORT: String(port), MORRIN_LOG: 'error' },
    stdio: ['ignore', process.env.TELL ? 'inherit' : 'ignore', 'inherit'],
  });
}

/** Processes of this installation: those of its server, and those of its database. */
function processesOf(folder: string): { server: number[]; database: number[] } {
  return {
    server: processesWith(`${folder}/dist/server/main.js`),
    database: processesWith(folder).filter((id) => commandLine(id).includes('postgres')),
  };
}

const sleep = (ms: number) => new Promise<void>((resolve) => setTimeout(resolve, ms));

async function isUp(): Promise<boolean> {
  try {
    return (await fetch(urlOf(`/api/health`), { signal: AbortSignal.timeout(2_000) })).ok;
  } catch {
    return false;
  }
}

async function waitUp(): Promise<number> {
  const begun = Date.now();
  while (!(await isUp())) {
    if (Date.now() - begun > MAX_MS) throw new Error(`not up again after ${MAX_MS} ms`);
    await sleep(50);
  }
  return Date.now() - begun;
}

/** The number of the save that is kept; while Morrin is down again it is asked once more. */
async function keptCount(id: string): Promise<number> {
  for (;;) {
    const response = await fetch(urlOf(`/api/tunes/${id}`)).catch(() => null);
    if (!response?.ok) {
      await waitUp();
      continue;
    }
    const { tune } = tuneRecordSchema.parse(await response.json());
    return Number(/\d+/.exec(tune.source ?? '0')![0]);
  }
}

(existsSync('/proc/self/cmdline') ? test : test.skip)(
  'whatever is killed, also twice in a row and while starting, no acknowledged save is lost and Morrin is up again',
  async () => {
    port = await freePort();
    const folder = installation();
    let starter = start(folder);
    const random = seeded(1129);
    const tune = longTune(8, 'Killed and kept');
    const ups: number[] = [];
    let isSaving = true;
    try {
      await waitUp();
      const made = await fetch(urlOf(`/api/tunes`), {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ tunes: [{ tune }] }),
      });
      const { id } = ((await made.json()) as { tunes: [{ id: string }] }).tunes[0];
      let acknowledged = { revision: 1, count: 0 };
      let saves = 0;
      const saver = (async () => {
        for (let count = 1; isSaving;) {
          try {
            const response = await fetch(urlOf(`/api/tunes/${id}`), {
              method: 'PUT',
              headers: { 'Content-Type': 'application/json' },
              body: JSON.stringify({ baseRevision: acknowledged.revision, tune: { ...tune, source: `save ${count}` } }),
              signal: AbortSignal.timeout(10_000),
            });
            if (response.ok) {
              acknowledged = { revision: ((await response.json()) as { revision: number }).revision, count };
              saves += 1;
              count += 1;
            } else if (response.status !== 503) throw new Error(`a save was answered ${response.status}`);
          } catch (error) {
            if (error instanceof Error && error.message.startsWith('a save was answered')) throw error;
          }
          await sleep(20);
        }
      })();
      saver.catch(() => undefined);
      const pick = <T>(items: readonly T[]): T => items[Math.floor(random() * items.length)]!;
      for (let round = 0; round < (TEST_SHARE === 1 ? ROUNDS : SHORT_ROUNDS); round++) {
        // Each kill falls among saves that are acknowledged.
        const until = saves + 1 + Math.floor(3 * random());
        while (saves < until) await Promise.race([saver, sleep(10)]);
        await sleep(200 * random());
        const what = pick(['server', 'database', 'both', 'starter'] as const);
        const isTwice = random() < 0.4;
        for (let time = 0; time < (isTwice ? 2 : 1); time++) {
          // The second kill falls into the start that the first one made.
          if (time === 1) await sleep(1_000 * random());
          const { server, database } = processesOf(folder);
          if (what !== 'database') kill(...server);
          if (what === 'database' || what === 'both') kill(...database);
          if (what === 'starter') {
            const gone = starter.exitCode === null && starter.signalCode === null ? once(starter, 'exit') : null;
            kill(starter.pid!);
            await gone;
            starter = start(folder);
          }
        }
        ups.push(await waitUp());
        const before = acknowledged;
        expect(await keptCount(id)).toBeGreaterThanOrEqual(before.count);
      }
      isSaving = false;
      await saver;
      expect(await keptCount(id)).toBe(acknowledged.count);
      const median = ups.sort((a, b) => a - b)[Math.floor(ups.length / 2)]!;
      console.log(
        `${ups.length} rounds of kills, ${saves} saves acknowledged, 0 lost; up again after ${median} ms in the middle, ${ups.at(-1)} ms at most`,
      );
      expect(median).toBeLessThan(MAX_MEDIAN_MS);
    } finally {
      isSaving = false;
      starter.kill('SIGTERM');
      await Promise.race([once(starter, 'exit'), sleep(10_000)]);
      const { server, database } = processesOf(folder);
      kill(...server, ...database);
      rmSync(folder, { recursive: true, force: true });
    }
  },
  3_600_000,
);
