import { createHash, randomUUID } from 'node:crypto';
import type { Express } from 'express';
import request from 'supertest';
import { abilityRecordSchema } from '#contract/ability';
import { bookCountSchema } from '#contract/book';
import type { Attempt } from '#contract/log';
import { tuneReadinessSchema } from '#contract/readiness';
import { DEFAULT_SETTINGS, settingsRecordSchema } from '#contract/settings';
import { tuneListSchema } from '#contract/tunes';
import { seeded } from '#core/base';
import { readAbc } from '#formats/abc';
import { sampleAttempt } from '../../contract/testing/attempts';
import { countBook } from '../counting/countBook';
import type { Database } from '../db';
import { jobsHere } from '../jobs/jobs';
import { testApp } from '../testApp';
import { countAbility } from './countAbility';

let app: Express;
let db: Database;
let close: () => Promise<void>;
const failures: string[] = [];
const deps = () => ({
  db,
  jobs: jobsHere,
  now: () => new Date(),
  isStopping: () => false,
  onFailed: (id: string) => failures.push(id),
});

beforeAll(async () => {
  ({ app, db, close } = await testApp('ability'));
}, 60_000);
afterAll(() => close());
beforeEach(async () => {
  await db.query('TRUNCATE tunes, attempts, player_settings, player_ability CASCADE');
  failures.length = 0;
});

const plain = (title: string, bar: string) => `X:1\nT:${title}\nR:reel\nM:4/4\nL:1/8\nK:D\n|:${bar}:|\n`;
async function add(title: string, bar: string): Promise<string> {
  const { tune } = readAbc(plain(title, bar)).tunes[0]!;
  const made = await request(app)
    .post('/api/tunes')
    .set('Content-Type', 'application/json')
    .send({ tunes: [{ tune }] });
  return (made.body as { tunes: { id: string }[] }).tunes[0]!.id;
}

/** Attempts at the tune's whole bar by somebody who is quicker than the guesses: clean up to a high tempo. */
async function play(tuneId: string, count: number, clean: (bpm: number) => boolean): Promise<void> {
  const { rows } = await db.query<{ document: { parts: { events: { id: string; kind: string }[] }[] } }>(
    'SELECT document FROM tunes WHERE id = $1',
    [tuneId],
  );
  const notes = rows[0]!.document.parts[0]!.events.filter(({ kind }) => kind === 'note');
  const random = seeded(3);
  const attempts = Array.from({ length: count }, (_, i): Attempt => {
    const bpm = Math.round(80 + 80 * random());
    return sampleAttempt({
      id: idOf(`${tuneId} ${i}`),
      at: new Date(Date.now() - (count - i) * 3_600_000).toISOString(),
      tuneId,
      span: { part: 'A', from: notes[0]!.id, to: notes[notes.length - 1]!.id },
      bpm,
      clean: clean(bpm),
    });
  });
  const sent = await request(app).post('/api/log/attempts').send({ attempts });
  expect(sent.status).toBe(200);
}

function idOf(name: string): string {
  const hex = createHash('sha256').update(name).digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}
const state = async () => abilityRecordSchema.parse((await request(app).get('/api/ability')).body);
const list = async (query = '') => tuneListSchema.parse((await request(app).get(`/api/book/tunes${query}`)).body).tunes;
const saw = 'd e f g a g f e';

test('without a log nothing is known of the player, and no tune has an own ceiling', async () => {
  await add('Skips', saw);
  await countAbility(deps());
  const { ability, isCurrent, left } = await state();
  expect({ attempts: ability.attempts, isCurrent, left }).toEqual({ attempts: 0, isCurrent: true, left: 0 });
  expect((await list())[0]).toMatchObject({ own: null, missing: null });
});

test('what is logged of one tune moves the own ceilings of all, away from the default', async () => {
  const id = await add('Skips', saw);
  await add('Turns', 'd f e g f a g b');
  await play(id, 60, (bpm) => bpm < 150);
  expect((await state()).isCurrent).toBe(false);
  expect(await countAbility(deps())).toBe(2);
  const { ability, isCurrent, left } = await state();
  expect({ isCurrent, left, attempts: ability.attempts }).toEqual({ isCurrent: true, left: 0, attempts: 60 });
  expect(Object.keys(ability.kinds)).toContain('stroke');
  for (const { own, ceilingBpm } of await list()) {
    expect(own!.low).toBeLessThan(own!.median);
    expect(own!.median).toBeLessThan(own!.high);
    expect(Object.values(own!.binds).reduce((sum, share) => sum + share, 0)).toBeCloseTo(1, 9);
    expect(Math.abs(own!.median - ceilingBpm!)).toBeGreaterThan(2);
  }
  // Nothing changed: there is nothing to do.
  expect(await countAbility(deps())).toBe(0);
});

test('a correction, another plan and other limits each make it out of date', async () => {
  const id = await add('Skips', saw);
  await play(id, 20, (bpm) => bpm < 120);
  await countAbility(deps());
  const isCurrent = async () => (await state()).isCurrent;
  const { rows } = await db.query<{ id: string }>('SELECT id FROM attempts WHERE clean LIMIT 1');
  await request(app)
    .post('/api/log/attempts')
    .send({
      attempts: [sampleAttempt({ id: randomUUID(), tuneId: id, corrects: rows[0]!.id, isWithdrawn: true })],
    });
  expect(await isCurrent()).toBe(false);
  await countAbility(deps());
  expect((await state()).ability.attempts).toBe(19);

  const record = (await request(app).get(`/api/tunes/${id}`)).body as { revision: number; tune: object };
  await request(app)
    .put(`/api/tunes/${id}`)
    .send({ baseRevision: record.revision, tune: { ...record.tune, tempoBpm: 100 } });
  expect(await isCurrent()).toBe(false);
  await countAbility(deps());
  expect(await isCurrent()).toBe(true);

  const before = (await list())[0]!;
  const { revision } = settingsRecordSchema.parse((await request(app).get('/api/settings')).body);
  const limits = { strokeMs: { value: 70, source: 'measured' as const } };
  await request(app)
    .put('/api/settings')
    .send({ baseRevision: revision, settings: { ...DEFAULT_SETTINGS, limits } });
  expect(await isCurrent()).toBe(false);
  await countBook({ ...deps(), count: jobsHere.countTunes });
  await countAbility(deps());
  expect(await isCurrent()).toBe(true);
  expect((await list())[0]!.own!.median).not.toBeCloseTo(before.own!.median, 0);
});

test('what is missing stands with the tune: the book is sorted and filtered by it, and stones lead there', async () => {
  const easy = await add('Easy', 'd2 e2 d2 e2');
  const cuts = await add('Cuts', '{e}d2 e2 d2 e2');
  const far = await add('Far', '{e}d2 !turn!e2 d2 e2');
  await play(easy, 30, () => true);
  await countAbility(deps());
  const titles = async (query: string) => (await list(query)).map(({ title }) => title);
  expect(await titles('?ready=yes')).toContain('Easy');
  const readiness = tuneReadinessSchema.parse((await request(app).get(`/api/tunes/${far}/readiness`)).body);
  expect(readiness.isKnown).toBe(true);
  const missing = readiness.missing.map(({ name }) => name);
  const { missing: ofCuts } = tuneReadinessSchema.parse((await request(app).get(`/api/tunes/${cuts}/readiness`)).body);
  expect(missing.length).toBeGreaterThan(ofCuts.length);
  expect(readiness.stones).toEqual([{ id: cuts, title: 'Cuts', adds: ofCuts[0]!.name }]);
  expect(await titles('?sort=ready')).toEqual(['Easy', 'Cuts', 'Far']);
  expect(bookCountSchema.parse((await request(app).get('/api/book/count?ready=one')).body).tunes).toBe(1);
  expect((await request(app).get(`/api/tunes/${randomUUID()}/readiness`)).status).toBe(404);
});

test('what an earlier version learnt in another form is learnt again', async () => {
  const id = await add('Skips', saw);
  await play(id, 20, (bpm) => bpm < 120);
  await countAbility(deps());
  await db.query(`UPDATE player_ability SET document = '{"attempts": "many"}'`);
  expect((await state()).isCurrent).toBe(false);
  await countAbility(deps());
  expect((await state()).ability.attempts).toBe(20);
});

test('several processes share the work, and a tune that cannot be judged does not keep the others back', async () => {
  const id = await add('Skips', saw);
  const bad = await add('Bad', saw);
  await play(id, 20, (bpm) => bpm < 120);
  await play(bad, 20, (bpm) => bpm < 120);
  await db.query("UPDATE tunes SET document = '{}' WHERE id = $1", [bad]);
  await Promise.all([1, 2, 3].map(() => countAbility(deps())));
  expect(failures).toContain(bad);
  const { ability, left } = await state();
  expect(ability.attempts).toBe(20);
  expect(left).toBe(0);
});
