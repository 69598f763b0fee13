import type { Express } from 'express';
import request from 'supertest';
import { KEPT_REVISIONS, revisionListSchema, tuneRevisionSchema } from '#contract/revisions';
import { readAbc } from '#formats/abc';
import type { Database } from '../db';
import { testApp } from '../testApp';
import { thinRevisions } from './queries';

let app: Express;
let db: Database;
let close: () => Promise<void>;
let id: string;
const { tune } = readAbc('X:1\nT:Revised\nM:4/4\nL:1/8\nK:D\n|:d2 (AF) DFA2:|\n').tunes[0]!;
const NOW = new Date('2026-06-30T12:00:00Z');
const HOUR = 60 * 60 * 1000;

beforeAll(async () => {
  ({ app, db, close } = await testApp('revision_routes'));
  const added = await request(app)
    .post('/api/tunes')
    .send({ tunes: [{ tune }] });
  id = (added.body as { tunes: { id: string }[] }).tunes[0]!.id;
}, 60_000);
afterAll(() => close());

const list = async () =>
  revisionListSchema.parse((await request(app).get(`/api/tunes/${id}/revisions`)).body).revisions;

test('every save is a revision that can be looked at, the newest first', async () => {
  await request(app)
    .put(`/api/tunes/${id}`)
    .send({ baseRevision: 1, tune: { ...tune, title: 'Once more' } });
  expect((await list()).map(({ revision }) => revision)).toEqual([2, 1]);
  const first = tuneRevisionSchema.parse((await request(app).get(`/api/tunes/${id}/revisions/1`)).body);
  expect(first.tune).toEqual(tune);
  expect((await request(app).get(`/api/tunes/${id}/revisions/77`)).status).toBe(404);
  expect((await request(app).get(`/api/tunes/${id}/revisions/x`)).status).toBe(400);
});

test('of old ones the last of each hour, day and week stay, and the last fifty whatever their age', async () => {
  await db.query('DELETE FROM tune_revisions');
  // A save every ten minutes for 100 days up to now.
  const count = 100 * 24 * 6;
  await db.query(
    `INSERT INTO tune_revisions (tune_id, revision, document, saved_at)
     SELECT $1, n, '{}', $2::timestamptz - make_interval(mins => 10 * ($3 - n)) FROM generate_series(1, $3) AS n`,
    [id, NOW, count],
  );
  await thinRevisions(db, NOW);
  const { rows } = await db.query<{ revision: number; saved_at: Date }>(
    'SELECT revision, saved_at FROM tune_revisions ORDER BY revision DESC',
  );
  expect(rows.slice(0, KEPT_REVISIONS.all).map(({ revision }) => revision)).toEqual(
    Array.from({ length: KEPT_REVISIONS.all }, (_, i) => count - i),
  );
  const gaps = (fromDays: number, toDays: number) => {
    const times = rows
      .map(({ saved_at: at }) => at.getTime())
      .filter((at) => at <= NOW.getTime() - fromDays * 24 * HOUR && at > NOW.getTime() - toDays * 24 * HOUR);
    return new Set(times.slice(1).map((at, i) => (times[i]! - at) / HOUR));
  };
  expect(gaps(0.5, 2)).toEqual(new Set([1]));
  expect(gaps(3, 60)).toEqual(new Set([24]));
  expect(gaps(68, 100)).toEqual(new Set([7 * 24]));
  const left = rows.length;
  // Once thinned, nothing more goes.
  expect(await thinRevisions(db, NOW)).toBe(0);
  expect(left).toBeLessThan(KEPT_REVISIONS.all + 48 + 62 + 8);
});

test('a tune of few saves keeps them all, however old', async () => {
  await db.query('DELETE FROM tune_revisions');
  await db.query(
    `INSERT INTO tune_revisions (tune_id, revision, document, saved_at)
     SELECT $1, n, '{}', $2::timestamptz - make_interval(years => 3, mins => n) FROM generate_series(1, 50) AS n`,
    [id, NOW],
  );
  expect(await thinRevisions(db, NOW)).toBe(0);
});
