import { pino } from 'pino';
import request from 'supertest';
import { createApp } from './app';
import { readConfig } from './config';
import { type Database, inTransaction } from './db';
import { jobsHere } from './jobs/jobs';
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
    const app = createApp({ db, jobs: jobsHere, log: pino({ level: 'silent' }), secret: SECRET });
    for (const ask of [request(app).get('/api/book/tunes'), request(app).get('/?key=wrong'), request(app).get('/')])
      expect([(await ask).status, ((await ask).body as { code: string }).code]).toEqual([403, 'no-key']);
    const opened = await request(app).get(`/api/health?key=${encodeURIComponent(SECRET)}`);
    expect([opened.status, opened.headers.location]).toEqual([303, '/api/health']);
    const [cookie] = opened.headers['set-cookie'] as unknown as string[];
    expect(cookie).toMatch(/; HttpOnly; SameSite=Strict$/);
    expect(cookie).not.toContain(SECRET);
    const kept = cookie!.split(';')[0]!;
    expect((await request(app).get('/api/health').set('Cookie', kept)).status).toBe(200);
    expect((await request(app).get('/api/health').set('Cookie', `${kept}x`)).status).toBe(403);
  });
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
  expect(arrived).toBe(3);
});

test('a statement that hangs is ended, and said to be the database’s', async () => {
  const { rows } = await db.query<{ statement: string; lock: string }>(
    "SELECT current_setting('statement_timeout') AS statement, current_setting('lock_timeout') AS lock",
  );
  expect(rows[0]).toEqual({ statement: '30s', lock: '5s' });
});
