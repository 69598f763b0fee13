// A throw-away database for one test run.
import { ensurePostgres } from './lib/debian.mjs';
import { startPostgres } from './lib/postgres.mjs';

export default async function setup() {
  const database = await startPostgres(await ensurePostgres(), 'test-postgres', { throwaway: true });
  process.env.TEST_DATABASE_URL = database.url;
  globalThis.morrinTestDatabase = database;
}
