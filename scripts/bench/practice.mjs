import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import http from 'node:http';
import { performance } from 'node:perf_hooks';
import { Worker } from 'node:worker_threads';
import { chromium } from '@playwright/test';
import pg from 'pg';
import { practicePlan } from '#core/practice';
import { reportTune } from '#core/report';
import { readAbc } from '#formats/abc';
import { startTestServer } from '../lib/testServer.mjs';
import { sideBySide } from './figures.mjs';
import { longReel } from './longTune.mjs';

/** Most that a practice plan may cost, in reports of the same tune. */
const MAX_REPORTS = 5;
const ATTEMPTS = 100_000;
const ROUNDS = 60;
const MAX_MS = 30;
const MAX_START_MS = 300;
const STARTS = 12;
const ABILITY_ATTEMPTS = 5000;
const MAX_ABILITY_MS = 200;
const OWN_TUNES = 500;
const MAX_OWN_MS = 5000;

/** A tune in bites against its report; a log of 100,000 attempts over HTTP; and an item from its press to its score. */
export async function benchPractice() {
  const rows = [benchPlan(), await benchAbility()];
  const server = await startTestServer('practice');
  try {
    rows.push(await benchOwnCeilings(server));
    rows.push(...(await benchLog(server)));
    rows.push(await benchStart(server.url));
  } finally {
    await server.stop();
  }
  return rows;
}

function benchPlan() {
  const { tune } = readAbc(longReel()).tunes[0];
  const report = reportTune(tune);
  const [reportMs, planMs] = sideBySide(
    () => reportTune({ ...tune }).findings.length,
    () => practicePlan({ ...report, tune: { ...tune } }).bites.length,
    { rounds: 60, warmUp: 60 },
  );
  const ratio = planMs / reportMs;
  return {
    what: `bites, cuts and joins of ${report.unrolled.notes.length} notes played`,
    against: 'a report of the same tune',
    ratio: ratio.toFixed(2),
    bar: `at most ${MAX_REPORTS}`,
    ms: `${planMs.toFixed(1)} against ${reportMs.toFixed(1)}`,
    holds: ratio <= MAX_REPORTS,
  };
}

/** A player's ability from a log of years: every attempt holds six kinds of events. */
async function benchAbility() {
  const worker = new Worker(new URL('./abilityWorker.mjs', import.meta.url), {
    workerData: { count: ABILITY_ATTEMPTS, rounds: 12 },
  });
  const [{ kinds, times }] = await once(worker, 'message');
  const ms = at95(times);
  return {
    what: `ability of ${kinds} kinds from ${ABILITY_ATTEMPTS} attempts, on its own thread`,
    against: `${MAX_ABILITY_MS} ms`,
    ratio: (ms / MAX_ABILITY_MS).toFixed(2),
    bar: 'at most 1',
    ms: `${ms.toFixed(0)} (95 %)`,
    holds: ms <= MAX_ABILITY_MS,
  };
}

/** From an attempt that is logged until the own ceilings of a book are those of the log, in the background. */
async function benchOwnCeilings({ url, databaseUrl }) {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  const { rows: columns } = await client.query(
    `SELECT string_agg(quote_ident(column_name), ', ') AS names FROM information_schema.columns
      WHERE table_name = 'tunes' AND column_name <> 'id' AND is_generated = 'NEVER'`,
  );
  const { names } = columns[0];
  await client.query(
    `INSERT INTO tunes (id, ${names}) SELECT gen_random_uuid(), ${names} FROM tunes, generate_series(1, 40) LIMIT ${OWN_TUNES}`,
  );
  const done = async () => {
    const { isCurrent, left } = await (await fetch(`${url}/api/ability`)).json();
    return isCurrent && left === 0;
  };
  const until = async () => {
    while (!(await done())) await new Promise((resolve) => setTimeout(resolve, 25));
  };
  await until();
  const { attempts } = await (await fetch(`${url}/api/log/attempts?limit=1`)).json();
  const times = [];
  for (let round = 0; round < 5; round++) {
    const { tune: _tune, ...attempt } = { ...attempts[0], id: randomUUID() };
    const begun = performance.now();
    await fetch(`${url}/api/log/attempts`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', Origin: url },
      body: JSON.stringify({ attempts: [attempt] }),
    });
    await until();
    times.push(performance.now() - begun);
  }
  await client.query('DELETE FROM tunes WHERE id NOT IN (SELECT tune_id FROM tune_sources)');
  await client.end();
  const ms = at95(times);
  return {
    what: `own ceilings of ${OWN_TUNES} tunes after an attempt, in the background`,
    against: `${MAX_OWN_MS} ms`,
    ratio: (ms / MAX_OWN_MS).toFixed(2),
    bar: 'at most 1',
    ms: `${ms.toFixed(0)} (longest of ${times.length})`,
    holds: ms <= MAX_OWN_MS,
  };
}

const at95 = (times) => [...times].sort((a, b) => a - b)[Math.floor(times.length * 0.95)];

async function benchLog({ url, databaseUrl }) {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  // Seven years of an eager player: forty tunes, ten bites each.
  await client.query(
    `INSERT INTO attempts (id, at, tune_id, tune_title, tune_revision, part, from_note, to_note, what, layer, way, bpm,
                           wish_bpm, clean, minutes)
     SELECT gen_random_uuid(), now() - make_interval(mins => 37 * n), tunes.id, tunes.title, 1, 'A', 'n' || n % 10,
            'n' || n % 10 + 8, 'bite', 'tempo', 'bowed', 60 + n % 50, 109, n % 3 > 0, 0.4
       FROM generate_series(1, $1::integer) AS n
       JOIN (SELECT id, title, row_number() OVER () AS i FROM tunes) AS tunes ON tunes.i = n % 13 + 1`,
    [ATTEMPTS],
  );
  await client.query('VACUUM ANALYZE attempts');
  const { rows } = await client.query('SELECT id FROM tunes LIMIT 13');
  await client.end();
  const since = new Date(Date.now() - 400 * 86_400_000).toISOString().slice(0, 10);
  const kinds = {
    'a tune by its key': (i) => `/api/tunes/${rows[i % 13].id}`,
    'a page of the log': () => '/api/log/attempts',
    'the history of a tune, 400 days': (i) => `/api/log/history?tune=${rows[i % 13].id}&since=${since}&zone=UTC`,
  };
  const agent = new http.Agent({ keepAlive: true });
  const times = Object.fromEntries(Object.keys(kinds).map((kind) => [kind, []]));
  for (let round = -10; round < ROUNDS; round++)
    for (const [kind, path] of Object.entries(kinds)) {
      const begun = performance.now();
      await read(agent, url + path(Math.abs(round)));
      if (round >= 0) times[kind].push(performance.now() - begun);
    }
  agent.destroy();
  const { 'a tune by its key': tune, ...lists } = times;
  return Object.entries(lists).map(([kind, own]) => {
    const ms = at95(own);
    return {
      what: `${kind}, of ${ATTEMPTS} attempts`,
      against: 'one tune read by its key',
      ratio: (ms / at95(tune)).toFixed(2),
      bar: `95 % under ${MAX_MS} ms`,
      ms: `${ms.toFixed(1)} against ${at95(tune).toFixed(1)} (95 %)`,
      holds: ms <= MAX_MS,
    };
  });
}

function read(agent, url) {
  return new Promise((resolve, reject) => {
    http
      .get(url, { agent }, (response) => {
        response.on('data', () => undefined);
        response.on('end', resolve);
      })
      .on('error', reject);
  });
}

/** From the press on “Start” to a score that can be read, in headless Chromium, after the room was entered once. */
async function benchStart(url) {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--disable-component-update'],
  });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const { tunes } = await (await page.request.get(`${url}/api/book/tunes?words=pewter`)).json();
  const times = [];
  for (let i = 0; i <= STARTS; i++) {
    if (i === 0) await page.goto(`${url}/tunes/${tunes[0].id}/practice`);
    else await page.goBack();
    await page.locator('[data-next]').waitFor();
    await page.waitForTimeout(300);
    const ms = await page.evaluate(
      () =>
        new Promise((resolve) => {
          const begun = performance.now();
          const look = () => {
            const drawn = document.querySelector('[data-run] [data-layer="signs"]');
            if (drawn) requestAnimationFrame(() => resolve(performance.now() - begun));
            else requestAnimationFrame(look);
          };
          [...document.querySelectorAll('button')].find(({ textContent }) => textContent === 'Start').click();
          look();
        }),
    );
    if (i > 0) times.push(ms);
  }
  await browser.close();
  const ms = [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)];
  return {
    what: 'an item of practice, from its press to its score',
    against: `${MAX_START_MS} ms`,
    ratio: (ms / MAX_START_MS).toFixed(2),
    bar: 'at most 1',
    ms: `${ms.toFixed(0)}, worst ${Math.max(...times).toFixed(0)}`,
    holds: ms <= MAX_START_MS,
  };
}
