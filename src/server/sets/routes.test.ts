import type { Express } from 'express';
import request from 'supertest';
import { MAX_SET_TUNES, setsRecordSchema } from '#contract/sets';
import { testApp } from '../testApp';

let app: Express;
let close: () => Promise<void>;
beforeAll(async () => {
  ({ app, close } = await testApp('sets_routes'));
}, 60_000);
afterAll(() => close());

const SET = '0b0d6a3e-2f4c-4c0a-8a51-8e9b7c1d2e3f';
const TUNES = ['1b0d6a3e-2f4c-4c0a-8a51-8e9b7c1d2e3f', '2b0d6a3e-2f4c-4c0a-8a51-8e9b7c1d2e3f'] as const;
const set = (tunes: readonly (readonly [tuneId: string, times: number])[]) => ({
  id: SET,
  name: 'First dance',
  tunes: tunes.map(([tuneId, times]) => ({ tuneId, times })),
});
const put = (baseRevision: number, ...sets: object[]) =>
  request(app).put('/api/sets').send({ baseRevision, sets: { sets } });
const read = async () => setsRecordSchema.parse((await request(app).get('/api/sets')).body);

test('a set comes back in the order it was put in, a tune twice where it is played again', async () => {
  expect(await read()).toEqual({ revision: 0, sets: { sets: [] } });
  const again = set([
    [TUNES[1], 3],
    [TUNES[0], 1],
    [TUNES[1], 2],
  ]);
  expect((await put(0, again)).body).toEqual({ revision: 1 });
  expect(await read()).toEqual({ revision: 1, sets: { sets: [again] } });
});

test('a save on an older revision is refused with what is there', async () => {
  const stale = await put(0, set([]));
  expect(stale.status).toBe(409);
  expect(setsRecordSchema.parse((stale.body as { details: unknown }).details)).toEqual(await read());
});

test.each([
  ['no times through', set([[TUNES[0], 0]]), 'sets.sets.0.tunes.0.times'],
  ['no name', { ...set([]), name: ' ' }, 'sets.sets.0.name'],
  [
    'more tunes than a night has',
    set(Array.from({ length: MAX_SET_TUNES + 1 }, () => [TUNES[0], 1] as const)),
    'sets.sets.0.tunes',
  ],
])('a set with %s is refused by its place, and nothing kept is lost', async (_what, wrong, path) => {
  const before = await read();
  const answer = await put(before.revision, wrong);
  expect(answer.status).toBe(400);
  expect(JSON.stringify(answer.body)).toContain(`"${path}"`);
  expect(await read()).toEqual(before);
});
