import type { Express } from 'express';
import request from 'supertest';
import { DEFAULT_SETTINGS, savedSettingsSchema, settingsRecordSchema } from '#contract/settings';
import { tuneListSchema } from '#contract/tunes';
import { readAbc } from '#formats/abc';
import { testApp } from '../testApp';

let app: Express;
let close: () => Promise<void>;
// Skips over a string at bow changes, quick ones.
const { tune } = readAbc('X:1\nT:Skips\nR:reel\nM:4/4\nL:1/8\nK:D\n|:D e D e D e D e:|\n').tunes[0]!;

beforeAll(async () => {
  ({ app, close } = await testApp('settings_routes'));
  await request(app)
    .post('/api/tunes')
    .send({ tunes: [{ tune }] });
}, 60_000);
afterAll(() => close());

const put = (baseRevision: number, settings: object) =>
  request(app).put('/api/settings').send({ baseRevision, settings });
const ceiling = async () =>
  tuneListSchema.parse((await request(app).get('/api/book/tunes')).body).tunes.find(({ title }) => title === 'Skips')!
    .ceilingBpm;

test('without any kept the usual settings hold', async () => {
  const record = settingsRecordSchema.parse((await request(app).get('/api/settings')).body);
  expect(record).toEqual({ revision: 0, settings: DEFAULT_SETTINGS });
});

test('another school counts the book anew and tells what changed', async () => {
  const before = await ceiling();
  const schools = { ...DEFAULT_SETTINGS.schools, turn: 'stop', skips: 'off-string' };
  const saved = savedSettingsSchema.parse((await put(0, { ...DEFAULT_SETTINGS, schools })).body);
  expect(saved.revision).toBe(1);
  expect(saved.changed).toHaveLength(1);
  expect(saved.changed[0]).toMatchObject({ title: 'Skips', ceilingBpm: { before } });
  expect(saved.changed[0]!.went).toContain('skip-may-sound');
  // Half an eighth for what the lift of a retake needs, after two other crossings within 0.6 s.
  expect(await ceiling()).toBeCloseTo(60_000 / 8 / (120 * 1.16), 6);
});

test('turned by the wrist, the arm’s figure is the way through the middles', async () => {
  const { revision, settings } = settingsRecordSchema.parse((await request(app).get('/api/settings')).body);
  const wrist = { ...settings, schools: { ...settings.schools, arm: 'middle' as const } };
  const saved = savedSettingsSchema.parse((await put(revision, wrist)).body);
  const { armDegrees } = saved.changed.find(({ title }) => title === 'Skips')!;
  expect(armDegrees.after).toBeGreaterThan(armDegrees.before);
  expect((await put(revision + 1, settings)).status).toBe(200);
});

test('another word changes no figure', async () => {
  const { settings } = settingsRecordSchema.parse((await request(app).get('/api/settings')).body);
  const saved = savedSettingsSchema.parse((await put(3, { ...settings, words: { phases: 'long-first' } })).body);
  expect(saved).toEqual({ revision: 4, changed: [], compared: 0 });
});

test('figures that no fiddle has are refused with the place and what was expected', async () => {
  const refused = await put(4, { ...DEFAULT_SETTINGS, instrument: { hairCm: 500 } });
  expect(refused.status).toBe(400);
  expect(JSON.stringify(refused.body)).toContain('settings.instrument.hairCm');
  expect(JSON.stringify(refused.body)).toContain('expected 20 to 80');
  const margin = await put(4, {
    ...DEFAULT_SETTINGS,
    instrument: { bridgeRadiusMm: 80, stringSpacingMm: 6, marginDegrees: 4 },
  });
  expect(margin.status).toBe(400);
  expect(JSON.stringify(margin.body)).toContain('half the angle between two strings');
  const spot = await put(4, { ...DEFAULT_SETTINGS, instrument: { hairCm: 30, sweetSpotCm: 50 } });
  expect(JSON.stringify(spot.body)).toContain('expected a place on the 30 cm of hair');
});

test('settings kept from elsewhere meanwhile are not overwritten', async () => {
  const stale = await put(1, DEFAULT_SETTINGS);
  expect(stale.status).toBe(409);
  expect((stale.body as { details: { revision: number } }).details.revision).toBe(4);
  expect((await put(0, DEFAULT_SETTINGS)).status).toBe(409);
});

test('a tune saved later is counted with the settings that hold', async () => {
  const added = await request(app)
    .post('/api/tunes')
    .send({ tunes: [{ tune: { ...tune, title: 'Later' } }] });
  expect(added.status).toBe(201);
  const { tunes } = tuneListSchema.parse((await request(app).get('/api/book/tunes')).body);
  const [later, skips] = ['Later', 'Skips'].map((title) => tunes.find((found) => found.title === title)!.ceilingBpm);
  expect(later).toBe(skips);
});

test('a tune that is enormous keeps nobody waiting: it is counted later, the others at once', async () => {
  const bars = '|:' + 'D e D e D e D e|'.repeat(600) + ':|';
  const { tune: long } = readAbc(`X:1\nT:A long one\nR:reel\nM:4/4\nL:1/8\nK:D\n${bars}\n`).tunes[0]!;
  const made = await request(app)
    .post('/api/tunes')
    .send({ tunes: [{ tune: long }] });
  expect(made.status).toBe(201);
  const { revision, settings } = settingsRecordSchema.parse((await request(app).get('/api/settings')).body);
  const other = { ...settings, schools: { ...settings.schools, arm: 'middle' as const } };
  const saved = savedSettingsSchema.parse((await put(revision, other)).body);
  expect(saved.changed.map(({ title }) => title)).toContain('Skips');
  expect(saved.changed.map(({ title }) => title)).not.toContain('A long one');
});
