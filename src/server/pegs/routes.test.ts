import type { Express } from 'express';
import request from 'supertest';
import { DEFAULT_PEGS, newFiddle, pegsRecordSchema, withChecks } from '#contract/pegs';
import { testApp } from '../testApp';

let app: Express;
let close: () => Promise<void>;
beforeAll(async () => {
  ({ app, close } = await testApp('pegs_routes'));
}, 60_000);
afterAll(() => close());

const put = (baseRevision: number, pegs: object) => request(app).put('/api/pegs').send({ baseRevision, pegs });
const read = async () => pegsRecordSchema.parse((await request(app).get('/api/pegs')).body);
const OWN = '0b0d6a3e-2f4c-4c0a-8a51-8e9b7c1d2e3f';

test('without any kept there is one fiddle in the usual tuning', async () => {
  expect(await read()).toEqual({ revision: 0, pegs: DEFAULT_PEGS });
});

test('fiddles and own tunings come back as they were kept; a stale save is refused with what is there', async () => {
  const pegs = {
    ...DEFAULT_PEGS,
    tunings: [
      {
        id: OWN,
        name: 'tide',
        strings: 'A3 D4 A4 D5',
        source: '',
        variants: [{ strings: 'G3 D4 A4 D5', source: 'the Saturday class' }],
      },
    ],
  };
  expect((await put(0, pegs)).body).toEqual({ revision: 1 });
  expect(await read()).toEqual({ revision: 1, pegs });
  const stale = await put(0, DEFAULT_PEGS);
  expect(stale.status).toBe(409);
  expect((stale.body as { code: string }).code).toBe('stale-save');
  expect((await put(1, pegs)).body).toEqual({ revision: 2 });
});

test('an implausible tuning is refused with its place and the reason, and nothing kept is lost', async () => {
  const before = await read();
  const wrong = {
    ...DEFAULT_PEGS,
    tunings: [{ id: OWN, name: 'wrong way round', strings: 'E5 A4 D4 G3', source: '', variants: [] }],
  };
  const answer = await put(before.revision, wrong);
  expect(answer.status).toBe(400);
  expect(JSON.stringify(answer.body)).toContain('low to high');
  expect(await read()).toEqual(before);
});

test('a chosen fiddle is one that is kept, and old checks make room for new ones', async () => {
  const before = await read();
  const nobody = await put(before.revision, { ...DEFAULT_PEGS, chosen: OWN });
  expect(nobody.status).toBe(400);
  const check = {
    place: 'D' as const,
    tunedAt: '2026-11-20T10:00:00.000Z',
    at: '2026-11-20T10:02:00.000Z',
    cents: -3,
    change: 2,
    isNew: false,
  };
  const many = withChecks(
    newFiddle(OWN, 'x'),
    Array.from({ length: 500 }, (_, i) => ({ ...check, cents: i / 10 })),
  );
  expect(many.checks).toHaveLength(400);
  expect(many.checks.at(-1)!.cents).toBeCloseTo(49.9);
  expect((await put(before.revision, { ...DEFAULT_PEGS, fiddles: [many], chosen: OWN })).status).toBe(200);
});
