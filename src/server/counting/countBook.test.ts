import { randomUUID } from 'node:crypto';
import type { Express } from 'express';
import { pino } from 'pino';
import request from 'supertest';
import { countingSchema } from '#contract/book';
import { DEFAULT_SETTINGS, playerSettings, settingsRecordSchema } from '#contract/settings';
import { tuneListSchema } from '#contract/tunes';
import type { Tune } from '#core/tune';
import { readAbc } from '#formats/abc';
import type { Database } from '../db';
import { connect } from '../db';
import { jobsHere } from '../jobs/jobs';
import { newestDatabase, testApp } from '../testApp';
import { countNow } from '../tunes/countNow';
import { insertTune } from '../tunes/queries';
import { countBook } from './countBook';
import { countingKey } from './figures';
import { startCounting } from './queue';

let app: Express;
let db: Database;
let close: () => Promise<void>;
const { tune } = readAbc('X:1\nT:Skips\nC:Wenna Tarr\nR:reel\nM:4/4\nL:1/8\nK:D\n|:D e D e D e D e:|\n').tunes[0]!;
const failures: string[] = [];
const deps = () => ({
  db,
  count: jobsHere.countTunes,
  isStopping: () => false,
  onFailed: (id: string) => failures.push(id),
});

beforeAll(async () => {
  ({ app, db, close } = await testApp('counting'));
}, 60_000);
afterAll(() => close());
beforeEach(async () => {
  await db.query('DELETE FROM tunes');
  await db.query('DELETE FROM player_settings');
  failures.length = 0;
});

async function add(to: Database, added: Tune): Promise<void> {
  const [counted] = await countNow(to, jobsHere, [JSON.stringify(added)]);
  await insertTune(to, randomUUID(), counted!);
}
async function fill(count: number): Promise<void> {
  for (let i = 0; i < count; i++) await add(db, { ...tune, title: `Skips ${i}` });
}
const counting = async () => countingSchema.parse((await request(app).get('/api/book/counting')).body);
const list = async () => tuneListSchema.parse((await request(app).get('/api/book/tunes')).body).tunes;

test('what a book of before knew nothing of is filled in', async () => {
  await fill(3);
  const before = await list();
  await db.query(
    "UPDATE tunes SET counted_by = NULL, comes_round = NULL, ceiling_bpm = NULL, problems = NULL, composer = '', first_steps = ''",
  );
  await db.query('DELETE FROM tune_prints');
  expect(await counting()).toEqual({ left: 3, givenUp: 0, tunes: 3 });
  expect((await list()).every(({ isCounted, comesRound }) => !isCounted && comesRound === null)).toBe(true);
  expect(await countBook(deps())).toBe(3);
  expect(await list()).toEqual(before);
  expect(await counting()).toEqual({ left: 0, givenUp: 0, tunes: 3 });
  const { rows } = await db.query(
    "SELECT composer, first_steps, (SELECT count(*)::int FROM tune_prints WHERE part = '') AS prints FROM tunes",
  );
  expect(rows[0]).toMatchObject({ composer: 'Wenna Tarr', prints: 3 });
  expect((rows[0] as { first_steps: string }).first_steps).toMatch(/^[0-6]{15}$/);
});

test('other limits make every figure out of date, other words none', async () => {
  await fill(2);
  const put = async (settings: object) => {
    const { revision } = settingsRecordSchema.parse((await request(app).get('/api/settings')).body);
    await request(app).put('/api/settings').send({ baseRevision: revision, settings });
  };
  await put({ ...DEFAULT_SETTINGS, words: { phases: 'long-first' } });
  expect((await counting()).left).toBe(0);
  const limits = { ...DEFAULT_SETTINGS.limits, strokeMs: { value: 120, source: 'measured' as const } };
  await put({ ...DEFAULT_SETTINGS, limits });
  // The first hundred are counted with the change.
  expect((await counting()).left).toBe(0);
  expect(countingKey(playerSettings({ ...DEFAULT_SETTINGS, limits }))).not.toBe(
    countingKey(playerSettings(DEFAULT_SETTINGS)),
  );
});

test('equal settings have one key, in whatever order their names stand', () => {
  const settings = playerSettings(DEFAULT_SETTINGS);
  const turned = Object.fromEntries(Object.entries(settings).reverse()) as unknown as typeof settings;
  expect(countingKey(turned)).toBe(countingKey(settings));
});

test('a tune that cannot be counted does not keep the others back', async () => {
  await fill(30);
  const [{ id }] = (await db.query<{ id: string }>("SELECT id FROM tunes WHERE title = 'Skips 7'")).rows as [
    { id: string },
  ];
  await db.query("UPDATE tunes SET counted_by = NULL, document = CASE WHEN id = $1 THEN '{}' ELSE document END", [id]);
  expect(await countBook(deps())).toBe(29);
  expect(failures).toEqual([id]);
  expect(await counting()).toEqual({ left: 1, givenUp: 0, tunes: 30 });
  // Tried twice more it is given up, and told with its reason; saved again it is counted.
  await countBook(deps());
  await countBook(deps());
  failures.length = 0;
  await countBook(deps());
  expect(failures).toEqual([]);
  expect(await counting()).toEqual({ left: 0, givenUp: 1, tunes: 30 });
  const { revision, givenUp } = (await list()).find((row) => row.id === id)!;
  expect(givenUp).toMatch(/./);
  const saved = await request(app).put(`/api/tunes/${id}`).send({ baseRevision: revision, tune });
  expect(saved.status).toBe(200);
  expect(await counting()).toEqual({ left: 0, givenUp: 0, tunes: 30 });
});

test('a tune saved meanwhile keeps the figures of its save', async () => {
  await fill(1);
  await db.query('UPDATE tunes SET counted_by = NULL');
  await countBook({
    ...deps(),
    count: async (tunes, settings) => {
      await db.query('UPDATE tunes SET revision = 2, counted_by = $1, problems = 77', [countingKey(settings)]);
      return jobsHere.countTunes(tunes, settings);
    },
  });
  expect((await list())[0]!.problems).toBe(77);
});

test('several processes share the work without doing any of it twice, and one that is stopped leaves the rest', async () => {
  await fill(60);
  await db.query('UPDATE tunes SET counted_by = NULL');
  let batches = 0;
  const stopped = await countBook({ ...deps(), isStopping: () => ++batches > 1 });
  expect(stopped).toBeLessThan(60);
  const counted = await Promise.all([1, 2, 3].map(() => countBook(deps())));
  expect(counted.reduce((sum, own) => sum + own, stopped)).toBe(60);
  expect((await counting()).left).toBe(0);
});

test('the queue counts what is asked for, and what an earlier process left', async () => {
  const url = await newestDatabase('counting_queue');
  const own = connect(url, () => undefined);
  await add(own, tune);
  await own.query('UPDATE tunes SET counted_by = NULL');
  const queue = await startCounting({
    db: own,
    databaseUrl: url,
    jobs: jobsHere,
    log: pino({ level: 'silent' }),
  });
  const isCounted = async () => {
    for (let tries = 0; tries < 100; tries++) {
      const { rows } = await own.query<{ left: number }>(
        'SELECT count(*)::int AS left FROM tunes WHERE counted_by IS NULL',
      );
      if (rows[0]!.left === 0) return true;
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    return false;
  };
  expect(await isCounted()).toBe(true);
  await own.query('UPDATE tunes SET counted_by = NULL');
  await queue.ask();
  expect(await isCounted()).toBe(true);
  await queue.stop();
  await own.end();
}, 30_000);
