import type { Express } from 'express';
import request from 'supertest';
import { tuneVersionSchema, tuneVersionsSchema } from '#contract/versions';
import { readAbc } from '#formats/abc';
import type { Database } from '../db';
import { testApp } from '../testApp';

let app: Express;
let db: Database;
let close: () => Promise<void>;
let id: string;
const { tune } = readAbc('X:1\nT:Versions\nR:reel\nM:4/4\nL:1/8\nK:D\n|:d2 (AF) DFA2:|\n').tunes[0]!;

beforeAll(async () => {
  ({ app, db, close } = await testApp('version_routes'));
  const added = await request(app)
    .post('/api/tunes')
    .send({ tunes: [{ tune }] });
  id = (added.body as { tunes: { id: string }[] }).tunes[0]!.id;
}, 60_000);
afterAll(() => close());

test('a version is kept under its name, listed newest first, and comes back as it was', async () => {
  const first = await request(app).post(`/api/tunes/${id}/versions`).send({ name: ' Plain ', tune });
  expect(first.status).toBe(201);
  expect(tuneVersionSchema.parse(first.body)).toMatchObject({ name: 'Plain', tune });
  await request(app)
    .post(`/api/tunes/${id}/versions`)
    .send({ name: 'Up', tune: { ...tune, start: 'up' } });
  const list = tuneVersionsSchema.parse((await request(app).get(`/api/tunes/${id}/versions`)).body);
  expect(list.versions.map(({ name }) => name)).toEqual(['Up', 'Plain']);
  expect(list.versions[1]!.tune).toEqual(tune);
});

test('a version that is taken away is gone, and taking it away again says so', async () => {
  const made = await request(app).post(`/api/tunes/${id}/versions`).send({ name: 'Short-lived', tune });
  const path = `/api/tunes/${id}/versions/${(made.body as { id: string }).id}`;
  expect((await request(app).delete(path)).status).toBe(204);
  expect((await request(app).delete(path)).status).toBe(404);
});

test('where a setting comes from is kept with it and can be put right, its notes stay', async () => {
  const origin = { kind: 'setting', taughtBy: 'Wenna Tarr', learnedOn: '2025-11-08', note: 'slower than the class' };
  const made = tuneVersionSchema.parse(
    (
      await request(app)
        .post(`/api/tunes/${id}/versions`)
        .send({ name: 'Wenna’s', tune, ...origin })
    ).body,
  );
  expect(made).toMatchObject(origin);
  const path = `/api/tunes/${id}/versions/${made.id}`;
  const changed = await request(app)
    .patch(path)
    .send({ ...origin, name: 'As Wenna has it', learnedOn: null, baseRevision: 1 });
  expect(tuneVersionSchema.parse(changed.body)).toMatchObject({
    name: 'As Wenna has it',
    learnedOn: null,
    tune,
    revision: 2,
  });
  const stale = await request(app)
    .patch(path)
    .send({ ...origin, name: 'From an old window', baseRevision: 1 });
  expect(stale.status).toBe(409);
  expect(stale.body).toMatchObject({ details: { version: { name: 'As Wenna has it', revision: 2 } } });
  expect(
    (
      await request(app)
        .patch(path)
        .send({ ...origin, name: '', baseRevision: 2 })
    ).status,
  ).toBe(400);
  expect(
    (
      await request(app)
        .patch(path)
        .send({ ...origin, name: 'x', learnedOn: 'last year', baseRevision: 2 })
    ).status,
  ).toBe(400);
  await request(app).delete(path);
  expect(
    (
      await request(app)
        .patch(path)
        .send({ ...origin, name: 'x', baseRevision: 2 })
    ).status,
  ).toBe(404);
});

test.each([
  ['no name', { name: '  ', tune }, 400],
  ['a name that is too long', { name: 'x'.repeat(121), tune }, 400],
  ['a tune that is none', { name: 'Bad', tune: { ...tune, form: [] } }, 422],
])('%s is refused', async (_words, body, status) => {
  expect((await request(app).post(`/api/tunes/${id}/versions`).send(body)).status).toBe(status);
});

test('a tune that is not there has no versions to add to, and a hundred are enough', async () => {
  const nowhere = '7c5e2f5e-0000-4000-8000-000000000000';
  expect((await request(app).post(`/api/tunes/${nowhere}/versions`).send({ name: 'A', tune })).status).toBe(404);
  await db.query(
    `INSERT INTO tune_versions (id, tune_id, name, document)
     SELECT gen_random_uuid(), $1, 'v' || n, '{}' FROM generate_series(1, 100) AS n`,
    [id],
  );
  const full = await request(app).post(`/api/tunes/${id}/versions`).send({ name: 'One more', tune });
  expect([full.status, (full.body as { code: string }).code]).toEqual([409, 'too-many-versions']);
  await db.query("DELETE FROM tune_versions WHERE name IN ('v1', 'v2')");
  const raced = await Promise.all(
    Array.from({ length: 6 }, (_, i) =>
      request(app)
        .post(`/api/tunes/${id}/versions`)
        .send({ name: `Raced ${i}`, tune }),
    ),
  );
  expect(raced.filter(({ status }) => status === 201).length).toBeLessThanOrEqual(2);
  const { rows } = await db.query('SELECT count(*)::integer AS count FROM tune_versions WHERE tune_id = $1', [id]);
  expect(rows).toEqual([{ count: 100 }]);
});
