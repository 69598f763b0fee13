import { mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Express } from 'express';
import { pino } from 'pino';
import request from 'supertest';
import { pegsRecordSchema } from '#contract/pegs';
import { tuneListSchema, tuneRecordSchema } from '#contract/tunes';
import type { Fraction } from '#core/base';
import type { Tune } from '#core/tune';
import { readAbc } from '#formats/abc';
import { createApp } from '../app';
import { connect, type Database } from '../db';
import { loadDemo } from '../demo/loadDemo';
import { jobsHere } from '../jobs/jobs';
import { testApp } from '../testApp';

let app: Express;
let db: Database;
let close: () => Promise<void>;
const SOURCE = 'X:1\nT:Tide <b>Turn</b>\nR:reel\nM:4/4\nL:1/8\nK:D\n|:d2 (AF) DFA2:|\n';
const tune: Tune = readAbc(SOURCE).tunes[0]!.tune;

beforeAll(async () => {
  ({ app, db, close } = await testApp('tune_routes'));
}, 60_000);
afterAll(() => close());

async function add(more: Partial<Tune> = {}): Promise<string> {
  const response = await request(app)
    .post('/api/tunes')
    .send({ fileName: 'tide.abc', tunes: [{ tune: { ...tune, ...more }, source: SOURCE }] });
  expect(response.status).toBe(201);
  return (response.body as { tunes: { id: string }[] }).tunes[0]!.id;
}

test('a new tune is listed with figures counted by the server, and comes back as it was sent', async () => {
  const id = await add();
  const list = tuneListSchema.parse((await request(app).get('/api/book/tunes')).body);
  expect(list.tunes.find((row) => row.id === id)).toMatchObject({
    title: 'Tide <b>Turn</b>',
    danceType: 'reel',
    form: 'AA',
    comesRound: false,
    flippedParts: ['A'],
    bandLow: 100,
    beat: '1/2',
  });
  const record = tuneRecordSchema.parse((await request(app).get(`/api/tunes/${id}`)).body);
  expect(record.revision).toBe(1);
  expect(record.tune).toEqual(tune);
  expect(record.hasSource).toBe(true);
  const begun = await request(app)
    .post('/api/tunes')
    .send({ tunes: [{ tune }] });
  const own = (begun.body as { tunes: { id: string }[] }).tunes[0]!.id;
  expect(tuneRecordSchema.parse((await request(app).get(`/api/tunes/${own}`)).body).hasSource).toBe(false);
});

test.each<[string, (tune: Tune) => Tune, RegExp]>([
  ['one note of ten million whole notes', (own) => withFirst(own, { n: 10_000_000, d: 1 }), /10,000,000 whole notes/],
  ['lengths of a billionth', (own) => withFirst(own, { n: 1, d: 999_999_937 }), /ths of a whole note in common/],
])('%s is refused at once, with what was expected', async (_what, spoil, words) => {
  const refused = await request(app)
    .post('/api/tunes')
    .send({ tunes: [{ tune: spoil(tune) }] });
  expect(refused.status).toBe(422);
  expect(JSON.stringify(refused.body)).toMatch(words);
});

test('titles by the hundred come in, and the tune is found by its own', async () => {
  const title = 'Lamp over the Weir';
  const notes = Array.from({ length: 200 }, (_, i) => `Also called: ${`Łodź ${i} `.repeat(400)}`);
  const sent = await request(app)
    .post('/api/tunes')
    .send({ tunes: [{ tune: { ...tune, title, notes } }] });
  expect(sent.status).toBe(201);
});

test('a save makes a revision, and the one before stays in the history', async () => {
  const id = await add();
  const saved = await request(app)
    .put(`/api/tunes/${id}`)
    .send({ baseRevision: 1, tune: { ...tune, start: 'up' } });
  expect(saved.body).toMatchObject({ revision: 2 });
  const { rows } = await db.query(
    "SELECT revision, document->>'start' AS start FROM tune_revisions WHERE tune_id = $1 ORDER BY revision",
    [id],
  );
  expect(rows).toEqual([
    { revision: 1, start: null },
    { revision: 2, start: 'up' },
  ]);
});

test('strings as no fiddle has them do not come in; a tune stored with them opens and is saved', async () => {
  const [g, d, a, e] = tune.tuning;
  const turned: Tune = { ...tune, tuning: [e, a, d, g] };
  const refused = await request(app)
    .post('/api/tunes')
    .send({ tunes: [{ tune: turned }] });
  expect(refused.status).toBe(422);
  expect(JSON.stringify(refused.body)).toContain('tunes.0.tune.tuning');
  const id = await add();
  await db.query('UPDATE tunes SET document = $2 WHERE id = $1', [id, JSON.stringify(turned)]);
  expect(tuneRecordSchema.parse((await request(app).get(`/api/tunes/${id}`)).body).tune).toEqual(turned);
  const saved = await request(app)
    .put(`/api/tunes/${id}`)
    .send({ baseRevision: 1, tune: { ...turned, title: 'Set right next' } });
  expect(saved.body).toMatchObject({ revision: 2 });
});

test('a stale save is refused with the newer version, and nothing is overwritten', async () => {
  const id = await add();
  await request(app)
    .put(`/api/tunes/${id}`)
    .send({ baseRevision: 1, tune: { ...tune, title: 'Theirs' } });
  const stale = await request(app)
    .put(`/api/tunes/${id}`)
    .send({ baseRevision: 1, tune: { ...tune, title: 'Mine' } });
  expect(stale.status).toBe(409);
  expect(stale.body).toMatchObject({
    code: 'stale-save',
    details: { current: { revision: 2, tune: { title: 'Theirs' } } },
  });
  expect((await request(app).get(`/api/tunes/${id}`)).body).toMatchObject({ revision: 2, tune: { title: 'Theirs' } });
});

test('a save whose answer was lost is acknowledged when it comes again', async () => {
  const id = await add();
  const body = { baseRevision: 1, tune: { ...tune, title: 'Twice' } };
  await request(app).put(`/api/tunes/${id}`).send(body);
  const again = await request(app).put(`/api/tunes/${id}`).send(body);
  expect([again.status, again.body]).toMatchObject([200, { revision: 2 }]);
});

test('of ten saves at once on one revision just one is taken', async () => {
  const id = await add();
  const saves = await Promise.all(
    Array.from({ length: 10 }, (_, i) =>
      request(app)
        .put(`/api/tunes/${id}`)
        .send({ baseRevision: 1, tune: { ...tune, title: `Save ${i}` } }),
    ),
  );
  expect(saves.filter(({ status }) => status === 200)).toHaveLength(1);
  expect(saves.filter(({ status }) => status === 409)).toHaveLength(9);
});

test('the text a tune was read from is kept and comes back to the letter', async () => {
  const id = await add();
  const response = await request(app).get(`/api/tunes/${id}/source`);
  expect(response.text).toBe(SOURCE);
  expect(response.headers['content-disposition']).toContain('tide.abc');
});

test.each([
  [
    'an event without a bar',
    (t: Tune) => ({ ...t, parts: [{ ...t.parts[0]!, events: t.parts[0]!.events.slice(1) }] }),
    'a part begins with a bar',
  ],
  ['a form that names no part', (t: Tune) => ({ ...t, form: ['Z'] }), 'names a part'],
  ['an empty title', (t: Tune) => ({ ...t, title: '  ' }), 'a tune has a title'],
  ['a newer document', (t: Tune) => ({ ...t, schemaVersion: 2 }), '1'],
])('%s is refused and the place is told', async (_name, spoil, words) => {
  const id = await add();
  const response = await request(app)
    .put(`/api/tunes/${id}`)
    .send({ baseRevision: 1, tune: spoil(tune) });
  expect(response.status).toBe(422);
  expect((response.body as { code: string }).code).toBe('bad-tune');
  expect(JSON.stringify((response.body as { details: unknown }).details)).toContain(words);
  expect((await request(app).get(`/api/tunes/${id}`)).body).toMatchObject({ revision: 1 });
});

test.each([
  ['get', '/api/tunes/not-an-id', 400, 'bad-request'],
  ['get', '/api/tunes/7c5e2f5e-0000-4000-8000-000000000000', 404, 'not-found'],
  ['get', '/api/nothing', 404, 'not-found'],
] as const)('%s %s answers %i', async (method, url, status, code) => {
  const response = await request(app)[method](url);
  expect([response.status, (response.body as { code: string }).code]).toEqual([status, code]);
});

test('a body that is not JSON, and one that is too large, are refused in words', async () => {
  const broken = await request(app).post('/api/tunes').set('Content-Type', 'application/json').send('{"tunes":');
  expect([broken.status, (broken.body as { code: string }).code]).toEqual([400, 'bad-request']);
  const large = await request(app)
    .post('/api/tunes')
    .send({ tunes: [], filler: 'x'.repeat(13 * 1024 * 1024) });
  expect([large.status, (large.body as { code: string }).code]).toEqual([413, 'too-large']);
});

test('pages of other origins cannot change anything, and other host names are refused', async () => {
  const foreign = await request(app).post('/api/tunes').set('Origin', 'http://elsewhere.example').send({ tunes: [] });
  expect(foreign.status).toBe(403);
  expect((await request(app).get('/api/book/tunes').set('Host', 'elsewhere.example')).status).toBe(403);
});

test('the policy lets scripts come only from here and allows no inline ones', async () => {
  const policy = (await request(app).get('/api/book/tunes')).headers['content-security-policy']!;
  expect(policy).toContain("script-src 'self';");
  expect(policy).toContain("default-src 'none'");
  expect(policy).not.toContain('unsafe');
});

test('a file of the pages that is not there is answered so, and the rooms are the page', async () => {
  const webDir = mkdtempSync(path.join(tmpdir(), 'pages-'));
  mkdirSync(path.join(webDir, 'assets'));
  writeFileSync(path.join(webDir, 'index.html'), '<html></html>');
  const pages = createApp({ db, jobs: jobsHere, log: pino({ level: 'silent' }), webDir });
  const missing = await request(pages).get('/assets/gone.js');
  expect([missing.status, (missing.body as { code: string }).code]).toEqual([404, 'not-found']);
  expect((await request(pages).get('/book')).text).toBe('<html></html>');
  rmSync(webDir, { recursive: true });
});

test('all tunes of an import are kept, or none', async () => {
  const before = tuneListSchema.parse((await request(app).get('/api/book/tunes')).body).tunes.length;
  const bad = await request(app)
    .post('/api/tunes')
    .send({ tunes: [{ tune }, { tune: { ...tune, form: [] } }] });
  expect(bad.status).toBe(422);
  expect(tuneListSchema.parse((await request(app).get('/api/book/tunes')).body).tunes).toHaveLength(before);
});

test('the demo is loaded into an empty book and into no other', async () => {
  expect(await loadDemo(db, jobsHere, 'demo')).toBe(0);
  await db.query('DELETE FROM tunes');
  const files = readdirSync('demo').length;
  expect(await loadDemo(db, jobsHere, 'demo')).toBe(files);
  const { pegs } = pegsRecordSchema.parse((await request(app).get('/api/pegs')).body);
  expect(pegs.fiddles.map(({ name }) => name)).toEqual(['The boathouse fiddle']);
  expect(await loadDemo(db, jobsHere, 'demo')).toBe(0);
});

test('while the database is away the answer says so', async () => {
  const nowhere = connect('postgres://morrin:x@127.0.0.1:9/none', () => undefined);
  const response = await request(createApp({ db: nowhere, jobs: jobsHere, log: pino({ level: 'silent' }) })).get(
    '/api/book/tunes',
  );
  expect([response.status, (response.body as { code: string }).code]).toEqual([503, 'database-away']);
  await nowhere.end();
});

/** A tune whose first note lasts so long. */
function withFirst(tune: Tune, duration: Fraction): Tune {
  const [first, ...others] = tune.parts;
  let isDone = false;
  const events = first!.events.map((event) => {
    if (isDone || event.kind !== 'note') return event;
    isDone = true;
    return { ...event, duration };
  });
  return { ...tune, parts: [{ ...first!, events }, ...others] };
}
