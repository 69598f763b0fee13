import { pino } from 'pino';
import request from 'supertest';
import { DEFAULT_SETTINGS } from '#contract/settings';
import { createApp } from './app';
import { readConfig } from './config';
import { connect, type Database, inTransaction } from './db';
import { toAppError } from './errors';
import { jobsHere } from './jobs/jobs';
import { isOwnUser, lastingKey, machineKeys } from './security';
import { testApp } from './testApp';

const SECRET = 'a key of the boathouse';
let db: Database;
let close: () => Promise<void>;
beforeAll(async () => {
  ({ db, close } = await testApp('security'));
}, 60_000);
afterAll(() => close());

describe('beyond this machine', () => {
  test.each(['0.0.0.0', '192.168.4.2', '::'])('%s is listened on only with a key', (MORRIN_HOST) => {
    const env = { DATABASE_URL: 'postgres://x', MORRIN_HOST };
    expect(() => readConfig(env)).toThrow(
      /would open the book to everybody.*expected a key of 16 letters or more in MORRIN_SECRET/,
    );
    expect(() => readConfig({ ...env, MORRIN_SECRET: 'short' })).toThrow(/expected at least 16 letters/);
    expect(readConfig({ ...env, MORRIN_SECRET: SECRET }).secret).toBe(SECRET);
  });

  test('this machine alone needs none', () => {
    expect(readConfig({ DATABASE_URL: 'postgres://x' })).toMatchObject({ host: '127.0.0.1', secret: null });
  });

  test('nobody is let in without the key; a link with it gives a cookie that lets in', async () => {
    const app = createApp({ db, jobs: jobsHere, log: pino({ level: 'silent' }), door: lastingKey(SECRET) });
    for (const ask of [request(app).get('/api/book/tunes'), request(app).get('/api/health?key=wrong')])
      expect([(await ask).status, ((await ask).body as { code: string }).code]).toEqual([403, 'no-key']);
    const page = await request(app).get('/?key=wrong');
    expect([page.status, page.text]).toEqual([403, expect.stringContaining('comes by the link with the key')]);
    const opened = await request(app).get(`/api/health?key=${encodeURIComponent(SECRET)}`);
    expect([opened.status, opened.headers.location]).toEqual([303, '/api/health']);
    const [cookie] = opened.headers['set-cookie'] as unknown as string[];
    expect(cookie).toMatch(/; HttpOnly; SameSite=Strict$/);
    expect(cookie).not.toContain(SECRET);
    const kept = cookie!.split(';')[0]!;
    expect((await request(app).get('/api/health').set('Cookie', kept)).status).toBe(200);
    expect((await request(app).get('/api/health').set('Cookie', `${kept}x`)).status).toBe(403);
    const again = await request(app).get('/').query({ key: SECRET }).set('Cookie', kept);
    expect([again.status, again.headers.location]).toEqual([303, '/']);
  });

  test('whoever is in already may open the link too, and the book is asked for no such key', async () => {
    const link = 'a link for this start';
    const door = machineKeys('the machine’s own', link, () => true);
    const app = createApp({ db, jobs: jobsHere, log: pino({ level: 'silent' }), door });
    const opened = await request(app).get('/').query({ key: link, dance: 'reel' });
    expect([opened.status, opened.headers.location]).toEqual([303, '/']);
    // The key of a tune is none of the door's.
    expect((await request(app).get('/api/health').query({ key: 'D major' })).status).toBe(200);
  });

  test('on this machine its own user is known; others come in by a link, once, and stay in by its cookie', async () => {
    const link = 'a link for this start';
    const door = (own: boolean) => machineKeys('the machine’s own', own ? null : link, () => own);
    const appWith = (own: boolean) =>
      createApp({ db, jobs: jobsHere, log: pino({ level: 'silent' }), door: door(own) });
    expect((await request(appWith(true)).get('/api/health')).status).toBe(200);
    const others = appWith(false);
    expect((await request(others).get('/api/health')).status).toBe(403);
    const opened = await request(others).get('/api/health').query({ key: link });
    expect(opened.status).toBe(303);
    expect((await request(others).get('/api/health').query({ key: link })).status).toBe(403);
    const [cookie] = opened.headers['set-cookie'] as unknown as string[];
    expect((await request(others).get('/api/health').set('Cookie', cookie!.split(';')[0]!)).status).toBe(200);
    // The next start knows the cookie too.
    expect((await request(appWith(false)).get('/api/health').set('Cookie', cookie!.split(';')[0]!)).status).toBe(200);
  });

  test('a user is known by the connection: one’s own and the one who may do everything, nobody else', async () => {
    const appFor = (own: number) =>
      createApp({
        db,
        jobs: jobsHere,
        log: pino({ level: 'silent' }),
        door: machineKeys('the machine’s own', null, isOwnUser(own)),
      });
    const me = process.getuid!();
    expect((await request(appFor(me)).get('/api/health')).status).toBe(200);
    expect((await request(appFor(me + 1)).get('/api/health')).status).toBe(me === 0 ? 200 : 403);
  });
});

test('the log has what failed in a line and a stack, but no header and no key; an outage is a line alone', async () => {
  const lines: string[] = [];
  const log = pino({ level: 'warn' }, { write: (line: string) => void lines.push(line) });
  const nowhere = connect('postgres://morrin:x@127.0.0.1:9/none', () => undefined);
  const away = createApp({ db: nowhere, jobs: jobsHere, log });
  await request(away).get('/api/book/tunes?words=secret').set('Cookie', 'morrin-key=secret');
  await nowhere.end();
  const broken = createApp({
    db,
    jobs: jobsHere,
    log,
    askForCounting: () => Promise.reject(new Error('no queue')),
  });
  await request(broken)
    .put('/api/settings')
    .set('Cookie', 'morrin-key=secret')
    .send({ baseRevision: 0, settings: DEFAULT_SETTINGS });
  expect(lines).toHaveLength(2);
  expect(lines.join('')).not.toContain('secret');
  expect(JSON.parse(lines[0]!)).toMatchObject({ msg: 'GET /api/book/tunes: database-away' });
  expect(lines[0]).not.toContain('stack');
  expect(JSON.parse(lines[1]!)).toMatchObject({
    msg: 'PUT /api/settings failed',
    err: { message: 'no queue', stack: expect.stringContaining('at ') as string },
    req: { path: '/api/settings' },
  });
});

test('a connection that broke in the middle of a transaction is the database’s fault, and passes', () => {
  for (const message of [
    'Connection terminated unexpectedly',
    'Client has encountered a connection error and is not queryable',
  ])
    expect(toAppError(new Error(message)).code).toBe('database-away');
  expect(toAppError(new Error('no such thing')).code).toBe('internal');
});

test('no page may be put into a frame, told to old browsers and new ones alike', async () => {
  const { headers } = await request(createApp({ db, jobs: jobsHere, log: pino({ level: 'silent' }) })).get(
    '/api/health',
  );
  expect(headers['x-frame-options']).toBe('DENY');
  expect(headers['content-security-policy']).toContain("frame-ancestors 'none'");
});

test('the health tells a database that may only be read', async () => {
  const health = createApp({ db, jobs: jobsHere, log: pino({ level: 'silent' }) });
  expect((await request(health).get('/api/health')).body).toMatchObject({ ok: true, database: 'ready' });
  const url = new URL(db.options.connectionString!);
  url.searchParams.set('options', '-c default_transaction_read_only=on');
  const readOnly = connect(url.href, () => undefined);
  const told = await request(createApp({ db: readOnly, jobs: jobsHere, log: pino({ level: 'silent' }) })).get(
    '/api/health',
  );
  expect([told.status, told.body]).toMatchObject([503, { ok: false, database: 'read-only' }]);
  const saved = await request(createApp({ db: readOnly, jobs: jobsHere, log: pino({ level: 'silent' }) }))
    .post('/api/book/views')
    .send({ name: 'No', query: {} });
  expect([saved.status, (saved.body as { code: string }).code]).toEqual([503, 'database-away']);
  await readOnly.end();
});

test('what the book holds is in no cache', async () => {
  const app = createApp({ db, jobs: jobsHere, log: pino({ level: 'silent' }) });
  expect((await request(app).get('/api/book/tunes')).headers['cache-control']).toBe('no-store');
});

test('two transactions that wait for each other: one is run again, and both are kept', async () => {
  await db.query('CREATE TABLE tried (id integer PRIMARY KEY, count integer NOT NULL)');
  await db.query('INSERT INTO tried VALUES (1, 0), (2, 0)');
  let arrived = 0;
  let go: () => void = () => undefined;
  const bothHaveOne = new Promise<void>((resolve) => (go = resolve));
  const both = (first: number, second: number) =>
    inTransaction(db, async (client) => {
      await client.query('UPDATE tried SET count = count + 1 WHERE id = $1', [first]);
      if (++arrived === 2) go();
      await bothHaveOne;
      await client.query('UPDATE tried SET count = count + 1 WHERE id = $1', [second]);
    });
  await Promise.all([both(1, 2), both(2, 1)]);
  const { rows } = await db.query<{ count: number }>('SELECT count FROM tried');
  expect(rows.map(({ count }) => count)).toEqual([2, 2]);
  // One of them at least was undone and run again; on a busy machine the database may have given up on both.
  expect(arrived).toBeGreaterThanOrEqual(3);
});

test('a statement that hangs is ended, and said to be the database’s', async () => {
  const { rows } = await db.query<{ statement: string; lock: string }>(
    "SELECT current_setting('statement_timeout') AS statement, current_setting('lock_timeout') AS lock",
  );
  expect(rows[0]).toEqual({ statement: '30s', lock: '5s' });
});
