// Browser stories against the built app, each worker with a server and a book of its own; further arguments go to Playwright.
import { join } from 'node:path';
import { ROOT } from './lib/root.mjs';
import { run } from './lib/run.mjs';
import { TEST_SHARE } from './lib/share.mjs';
import { query } from './lib/testCluster.mjs';
import { startTestServers } from './lib/testServer.mjs';

const WORKERS = 3;

/** Waits until what follows from the demo log is counted: every story begins with it. */
async function waitForAbility(databaseUrl) {
  for (let tries = 0; tries < 150; tries++) {
    const [{ done }] = await query(
      databaseUrl,
      'SELECT EXISTS (SELECT 1 FROM player_ability) AND NOT EXISTS (SELECT 1 FROM tunes WHERE own_by IS NULL) AS done',
    );
    if (done) return;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  throw new Error('What follows from the demo log was not counted within 30 s.');
}

/** Keeps the book as it is now and makes a function that brings it back, so that every story begins with the demo. */
async function keepTheBook(databaseUrl) {
  const rows = await query(
    databaseUrl,
    `SELECT table_name AS name FROM information_schema.tables
      WHERE table_schema = 'public' AND table_type = 'BASE TABLE' AND table_name <> 'migrations'`,
  );
  const names = rows.map(({ name }) => name);
  const copies = names.map((name) => `CREATE TABLE kept."${name}" AS TABLE public."${name}";`);
  const returns = names.map((name) => `INSERT INTO public."${name}" SELECT * FROM kept."${name}";`);
  // Without triggers and foreign keys the order of the tables does not matter.
  await query(
    databaseUrl,
    `CREATE SCHEMA kept; ${copies.join(' ')}
     CREATE FUNCTION kept.bring_back() RETURNS void LANGUAGE plpgsql SET session_replication_role = replica AS $$
     BEGIN
       TRUNCATE ${names.map((name) => `public."${name}"`).join(', ')};
       ${returns.join('\n       ')}
     END $$`,
  );
}

const { servers, stop } = await startTestServers('stories', WORKERS);
try {
  await Promise.all(
    servers.map(async ({ databaseUrl }) => {
      await waitForAbility(databaseUrl);
      await keepTheBook(databaseUrl);
    }),
  );
  await run(process.execPath, [join(ROOT, 'node_modules/@playwright/test/cli.js'), 'test', ...process.argv.slice(2)], {
    env: { ...process.env, STORY_SERVERS: JSON.stringify(servers), TEST_SHARE: String(TEST_SHARE) },
  });
} catch (error) {
  console.error(error.message);
  process.exitCode = 1;
} finally {
  await stop();
}
