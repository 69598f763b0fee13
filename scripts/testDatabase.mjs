// A throw-away database cluster for one run of the server's tests, with a database that has the newest schema to copy.
import { ROOT } from './lib/root.mjs';
import { run } from './lib/run.mjs';
import { createDatabase, query, testCluster } from './lib/testCluster.mjs';

export default async function setup() {
  const cluster = await testCluster('unit-postgres');
  globalThis.morrinTestCluster = cluster;
  process.env.TEST_DATABASE_URL = cluster.url;
  // The run may have made it already, for tests that came before.
  if ((await query(cluster.url, "SELECT FROM pg_database WHERE datname = 'newest_schema'")).length > 0) return;
  const env = { ...process.env, DATABASE_URL: await createDatabase(cluster.url, 'newest_schema') };
  await run(process.execPath, ['--import', 'tsx', 'src/server/migrateCommand.ts'], { cwd: ROOT, env });
}
