// A throw-away database cluster for one run of the server's tests, with a database that has the newest schema to copy.
import { ROOT } from './lib/root.mjs';
import { run } from './lib/run.mjs';
import { createDatabase, testCluster } from './lib/testCluster.mjs';

export default async function setup() {
  const cluster = await testCluster('unit-postgres');
  globalThis.morrinTestCluster = cluster;
  process.env.TEST_DATABASE_URL = cluster.url;
  const env = { ...process.env, DATABASE_URL: await createDatabase(cluster.url, 'newest_schema') };
  await run(process.execPath, ['--import', 'tsx', 'src/server/migrateCommand.ts'], { cwd: ROOT, env });
}
