import type { Express } from 'express';
import request from 'supertest';
import { likenessRoutes } from '#contract/imports';
import type { AnswerOf } from '#contract/route';
import { sampleAttempt } from '#contract/testing/attempts';
import { tuneListSchema } from '#contract/tunes';
import { readAbc } from '#formats/abc';
import type { Database } from '../db';
import { testApp } from '../testApp';

let app: Express;
let db: Database;
let close: () => Promise<void>;
beforeAll(async () => {
  ({ app, db, close } = await testApp('known_hands'));
}, 60_000);
afterAll(() => close());
beforeEach(() => db.query('TRUNCATE tunes, attempts CASCADE'));

const add = async (title: string, notes: string): Promise<string> => {
  const { tune } = readAbc(`X:1\nT:${title}\nM:4/4\nL:1/8\nK:D\n${notes}\n`).tunes[0]!;
  const added = await request(app)
    .post('/api/tunes')
    .send({ tunes: [{ tune }] });
  return (added.body as { tunes: { id: string }[] }).tunes[0]!.id;
};
const played = async (tuneId: string, more: object = {}): Promise<string> => {
  const attempt = sampleAttempt({ tuneId, ...more });
  await request(app)
    .post('/api/log/attempts')
    .send({ attempts: [attempt] })
    .expect(200);
  return attempt.id;
};
const known = async (id: string) =>
  (
    (await request(app).get(`/api/likenesses/${id}/hands`).expect(200)).body as AnswerOf<
      typeof likenessRoutes.findKnownHands
    >
  ).hands;

// D E F G on the D string, and the same hand and bowing on the A string after a long low note.
const ON_D = 'DEFG FED2|';
const ON_A = 'G,8|ABcd cBA2|';

test('the hand of a tune is known from another on other strings, once that was played clean', async () => {
  const [asked, learnt] = [await add('Asked', ON_D), await add('Learnt', ON_A)];
  expect(await known(asked)).toEqual([]);
  await played(learnt, { clean: false });
  expect(await known(asked)).toEqual([]);
  const id = await played(learnt);
  expect(await known(asked)).toEqual([{ id: learnt, title: 'Learnt', from: 0, notes: 7, part: 'A', bar: 2 }]);
  // What was taken back was not played.
  await played(learnt, { corrects: id, isWithdrawn: true });
  expect(await known(asked)).toEqual([]);
});

test('tunes that were taken out of the book are not told of, nor is the tune itself', async () => {
  const [asked, learnt] = [await add('Asked', ON_D), await add('Learnt', ON_A)];
  await played(learnt);
  await played(asked);
  await request(app)
    .post('/api/book/changes')
    .send({ choice: { ids: [learnt] }, deed: { kind: 'remove' } })
    .expect(200);
  expect(await known(asked)).toEqual([]);
});

test('tunes of a technique say which parts use it', async () => {
  await add('Skips', '|:DEFG AGFE:|\nP:B\n|:DeDe DeDe:|');
  const list = async (query: object) =>
    tuneListSchema.parse((await request(app).get('/api/book/tunes').query(query).expect(200)).body).tunes;
  const [one] = await list({ technique: 'skipped-string' });
  expect(one!.usedIn).toHaveLength(1);
  expect((await list({}))[0]!.usedIn).toBeNull();
});
