import { parse as parseCsv } from 'csv-parse/sync';
import type { Express } from 'express';
import request from 'supertest';
import {
  type Attempt,
  attemptListSchema,
  historySchema,
  tunePracticeRecordSchema,
  USUAL_PRACTICE,
} from '#contract/log';
import { logFileSchema } from '#contract/practice';
import { sampleAttempt } from '#contract/testing/attempts';
import { tuneListSchema } from '#contract/tunes';
import { inventedTune } from '../../core/testing/books';
import type { Database } from '../db';
import { testApp } from '../testApp';

let app: Express;
let db: Database;
let close: () => Promise<void>;
let tuneId: string;
beforeAll(async () => {
  ({ app, db, close } = await testApp('log_routes'));
  const added = await request(app)
    .post('/api/tunes')
    .send({ tunes: [{ tune: inventedTune(5) }] });
  tuneId = (added.body as { tunes: { id: string }[] }).tunes[0]!.id;
}, 60_000);
afterAll(() => close());
beforeEach(() => db.query('TRUNCATE attempts'));

const attempt = (more: Partial<Attempt> = {}): Attempt => sampleAttempt({ tuneId, ...more });
const keep = (...attempts: object[]) => request(app).post('/api/log/attempts').send({ attempts });
const list = async (query: object = {}) =>
  attemptListSchema.parse((await request(app).get('/api/log/attempts').query(query)).body);

test('an attempt that is sent again is kept once, and answered as kept', async () => {
  const own = attempt();
  expect((await keep(own)).body).toEqual({ kept: [own.id] });
  expect((await keep(own, attempt())).body).toMatchObject({ kept: expect.arrayContaining([own.id]) as string[] });
  expect((await list()).attempts.filter(({ id }) => id === own.id)).toEqual([own]);
});

test('a correction stands in place of what it corrects, and what was first is still in the table', async () => {
  const own = attempt({ clean: false, wrong: 'bow' });
  const better = attempt({ clean: true, corrects: own.id });
  const second = attempt({ clean: false, corrects: own.id });
  await keep(own);
  await keep(better);
  // It is left out for good: a browser need not send it again.
  expect((await keep(second)).body).toEqual({ kept: [second.id] });
  expect((await list()).attempts.map(({ id }) => id)).toEqual([better.id]);
  await keep(attempt({ corrects: better.id, isWithdrawn: true }));
  expect((await list()).attempts).toEqual([]);
  const { rows } = await db.query<{ count: string }>('SELECT count(*) FROM attempts');
  expect(rows[0]!.count).toBe('3');
});

test('pages go on where the one before ended, the newest first, however many have one moment', async () => {
  const same = Array.from({ length: 7 }, () => attempt());
  const later = attempt({ at: '2026-03-05T08:00:00.000Z' });
  await keep(...same, later);
  const seen: string[] = [];
  let after: string | null = null;
  do {
    const page: { attempts: Attempt[]; next: string | null } = await list({ limit: 3, ...(after ? { after } : {}) });
    seen.push(...page.attempts.map(({ id }) => id));
    after = page.next;
  } while (after !== null);
  expect(seen[0]).toBe(later.id);
  expect([...seen].sort()).toEqual([...same, later].map(({ id }) => id).sort());
});

test('the history is told by stretch and by the day of the player’s own zone', async () => {
  await keep(
    attempt({ at: '2026-03-02T23:30:00.000Z', bpm: 80 }),
    attempt({ at: '2026-03-02T23:40:00.000Z', bpm: 90, clean: false, wrong: 'crossing' }),
    attempt({ at: '2026-03-03T12:00:00.000Z', bpm: 84 }),
    attempt({ what: 'drill', drill: 'pulse' }),
  );
  const days = async (zone: string) =>
    historySchema.parse((await request(app).get('/api/log/history').query({ since: '2026-03-01', zone })).body).days;
  expect((await days('UTC')).map(({ day, attempts, clean, endedClean }) => [day, attempts, clean, endedClean])).toEqual(
    [
      ['2026-03-02', 2, 1, false],
      ['2026-03-03', 1, 1, true],
    ],
  );
  expect(await days('Pacific/Auckland')).toEqual([
    expect.objectContaining({ day: '2026-03-03', attempts: 2, cleanBpm: 80, minutes: 1 }),
    expect.objectContaining({ day: '2026-03-04', attempts: 1, cleanBpm: 84 }),
  ]);
  const odd = await request(app).get('/api/log/history').query({ since: '2026-03-01', zone: "'; DROP" });
  expect(odd.status).toBe(400);
});

test.each(['Nowhere/Town', '+02:00', "UTC'; SELECT 1"])('a zone called %s is refused', async (zone) => {
  const answer = await request(app).get('/api/log/history').query({ since: '2026-03-01', zone });
  expect(answer.status).toBe(400);
  expect(JSON.stringify(answer.body)).toContain('expected the name of a time zone');
});

test('what is practised is so in the book, and only by what is later', async () => {
  const practised = async () =>
    tuneListSchema.parse((await request(app).get('/api/book/tunes')).body).tunes[0]!.practisedAt;
  await keep(attempt({ at: '2026-03-05T08:00:00.000Z' }));
  await keep(attempt({ at: '2026-03-01T08:00:00.000Z' }));
  expect(await practised()).toBe('2026-03-05T08:00:00.000Z');
});

test('the log goes out as a table and as JSON that is read as a log again', async () => {
  await keep(attempt({ note: '=1+1' }), attempt({ clean: false, wrong: 'memory' }));
  const csv = (await request(app).get('/api/log/export').query({ format: 'csv' })).text;
  const rows = parseCsv(csv, { columns: true }) as unknown as Record<string, string>[];
  expect(rows.map((row) => [row.Tune, row.Clean, row['What went wrong']])).toEqual(
    expect.arrayContaining([
      ['A reel', 'yes', ''],
      ['A reel', 'no', 'memory'],
    ]),
  );
  for (const row of rows) expect(row.Note).not.toMatch(/^=/);
  const json = logFileSchema.parse((await request(app).get('/api/log/export').query({ format: 'json' })).body);
  expect(json.attempts).toHaveLength(2);
  expect(json.attempts[0]).toMatchObject({ tune: 'A reel', bpm: 80 });
});

const bringIn = (text: string) =>
  request(app).post('/api/log/import').set('Content-Type', 'application/octet-stream').send(Buffer.from(text));

test('what hurt is in the log, and is neither a miss nor a day of the stretch', async () => {
  const hurt = attempt({ clean: false, pain: { finger: 3, place: 'A' } });
  await keep(hurt, attempt({ clean: false, pain: { finger: null, place: null } }));
  expect((await list()).attempts.find(({ id }) => id === hurt.id)!.pain).toEqual({ finger: 3, place: 'A' });
  const query = { since: '2026-03-01', zone: 'UTC' };
  expect((await request(app).get('/api/log/history').query(query)).body).toEqual({ days: [] });
  expect((await keep({ ...attempt(), pain: { finger: 5, place: null } })).status).toBe(400);
});

test.each(['csv', 'json'])('a log that went out as %s comes back the same, and once', async (format) => {
  const pains = [
    { finger: 3, place: 'A' as const },
    { finger: 4, place: null },
    { finger: null, place: 'E' as const },
    { finger: null, place: null },
  ];
  const own = [
    attempt({ note: '=1+1, "so"' }),
    attempt({ clean: false, wrong: 'memory', bpm: 81.5 }),
    ...pains.map((pain) => attempt({ clean: false, pain })),
  ];
  await keep(...own);
  const text = (await request(app).get('/api/log/export').query({ format })).text;
  const before = (await list()).attempts;
  await db.query('TRUNCATE attempts');
  expect((await bringIn(text)).body).toEqual({ attempts: 6, known: 0, leftOut: [] });
  expect((await list()).attempts).toEqual(before);
  expect((await bringIn(text)).body).toEqual({ attempts: 0, known: 6, leftOut: [] });
});

test('a pain that is none is told by its line', async () => {
  await keep(attempt({ clean: false, pain: { finger: 2, place: 'D' } }));
  const csv = (await request(app).get('/api/log/export').query({ format: 'csv' })).text;
  await db.query('TRUNCATE attempts');
  expect((await bringIn(csv.replace('2 D', 'the thumb'))).body).toEqual({
    attempts: 0,
    known: 0,
    leftOut: [{ at: 'line 2', message: 'pain: expected a finger from 1 to 4 and a string, such as 3 A, or yes' }],
  });
});

test('a plain log finds its tunes by their titles, and tells by its place what it could not take', async () => {
  const { title } = tuneListSchema.parse((await request(app).get('/api/book/tunes')).body).tunes[0]!;
  const row = {
    at: '2026-03-02T18:04:00+01:00',
    tune: title,
    span: { part: 'A', from: 'n1', to: 'n8' },
    bpm: 96,
    clean: true,
  };
  const text = JSON.stringify({ version: 1, attempts: [row, { ...row, tune: 'Nowhere' }, { ...row, bpm: -1 }] });
  const { body } = await bringIn(text);
  expect(body).toEqual({
    attempts: 1,
    known: 0,
    leftOut: [
      { at: 'attempts.1', message: 'no tune of the book is called “Nowhere”' },
      { at: 'attempts.2', message: 'bpm: expected a tempo above 0' },
    ],
  });
  expect((await list()).attempts[0]).toMatchObject({ tuneId, at: '2026-03-02T17:04:00.000Z' });
  expect((await bringIn(text)).body).toMatchObject({ attempts: 0, known: 1 });
});

test.each([
  ['nothing', ''],
  ['a list of something else', 'a,b\n1,2\n'],
  ['JSON without attempts', '{"version":1}'],
  ['JSON that was cut off', '{"version":1,"attempts":[{"at":'],
])('%s is refused with what was expected', async (_what, text) => {
  const answer = await bringIn(text);
  expect(answer.status).toBe(400);
  expect(JSON.stringify(answer.body)).toMatch(/expected a (file|log as it goes out)/);
});

test.each([
  ['no tempo', { bpm: 0 }, 'attempts.0.bpm'],
  ['no such mistake', { wrong: 'weather' }, 'attempts.0.wrong'],
  ['an endless repetition', { minutes: 1e9 }, 'attempts.0.minutes'],
])('an attempt with %s is refused by its place, and none of its company is kept', async (_what, more, path) => {
  const answer = await keep({ ...attempt(), ...more }, attempt());
  expect(answer.status).toBe(400);
  expect(JSON.stringify(answer.body)).toContain(`"${path}"`);
  expect((await list()).attempts).toEqual([]);
});

test('the log is searched by words of titles, notes and what went wrong; signs stand for themselves', async () => {
  await keep(
    attempt({ title: 'Ebb Réel', note: 'late over to the A', at: '2026-03-02T10:00:00.000Z' }),
    attempt({ title: 'A jig', wrong: 'crossing', clean: false, note: '100 % there', at: '2026-03-03T10:00:00.000Z' }),
  );
  const titles = async (words: string) => (await list({ words })).attempts.map(({ title }) => title);
  expect(await titles('ebb')).toEqual(['Ebb Réel']);
  expect(await titles('reel late')).toEqual(['Ebb Réel']);
  expect(await titles('CROSS')).toEqual(['A jig']);
  expect(await titles('100 %')).toEqual(['A jig']);
  expect(await titles('_')).toEqual([]);
  expect(await titles("'; DROP TABLE attempts; --")).toEqual([]);
  const onThird = async (zone: string) => (await list({ day: '2026-03-03', zone })).attempts.map(({ title }) => title);
  expect(await onThird('UTC')).toEqual(['A jig']);
  // Where the day begins fourteen hours sooner.
  expect(await onThird('Pacific/Kiritimati')).toEqual(['Ebb Réel']);
});

test('days add up what was played, in the days of the zone, drills too; minutes of each day are theirs', async () => {
  await keep(
    attempt({ at: '2026-03-02T23:30:00.000Z', minutes: 2, bpm: 80 }),
    attempt({ at: '2026-03-02T12:00:00.000Z', minutes: 3, bpm: 90 }),
    // Plucked it is no tempo that the bow can keep up.
    attempt({ at: '2026-03-02T12:05:00.000Z', minutes: 0, bpm: 140, way: 'plucked' }),
    attempt({ at: '2026-03-02T12:10:00.000Z', minutes: 4, what: 'drill', drill: 'hop' }),
    attempt({ at: '2026-03-02T12:20:00.000Z', minutes: 1, clean: false, wrong: 'bow' }),
  );
  const sums = async (zone: string) =>
    (
      (await request(app).get('/api/log/sums').query({ since: '2026-01-01', zone })).body as {
        sums: {
          day: string;
          what: string;
          wrong: string | null;
          attempts: number;
          cleanBpm: number;
          minutes: number;
        }[];
      }
    ).sums;
  const here = await sums('UTC');
  expect(here.map(({ what, wrong, attempts, minutes }) => [what, wrong, attempts, minutes])).toEqual(
    expect.arrayContaining([
      ['bite', null, 3, 5],
      ['drill', null, 1, 4],
      ['bite', 'bow', 1, 1],
    ]),
  );
  expect(here.find(({ what, wrong }) => what === 'bite' && wrong === null)!.cleanBpm).toBe(90);
  expect(new Set((await sums('Asia/Tokyo')).map(({ day }) => day))).toEqual(new Set(['2026-03-03', '2026-03-02']));
  const minutes = await request(app).get('/api/log/minutes').query({ since: '2026-01-01', zone: 'Asia/Tokyo' });
  expect(minutes.body).toEqual({
    days: [
      { day: '2026-03-02', minutes: 8 },
      { day: '2026-03-03', minutes: 2 },
    ],
  });
});

test('how a tune is practised is kept on a revision; an older one is refused with what is there', async () => {
  const path = `/api/tunes/${tuneId}/practice`;
  const read = async () => tunePracticeRecordSchema.parse((await request(app).get(path)).body);
  expect(await read()).toEqual({ revision: 0, practice: USUAL_PRACTICE });
  const practice = { ...USUAL_PRACTICE, order: 'most', cuts: ['n9'] };
  const put = (baseRevision: number) => request(app).put(path).send({ baseRevision, practice });
  expect((await put(0)).body).toEqual({ revision: 1 });
  expect((await put(0)).status).toBe(409);
  expect(await read()).toEqual({ revision: 1, practice });
  const nowhere = await request(app)
    .put('/api/tunes/7c5e2f5e-0000-4000-8000-000000000000/practice')
    .send({ baseRevision: 0, practice });
  expect(nowhere.status).toBe(404);
});
