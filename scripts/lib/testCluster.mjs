// A database cluster for one run of tests, and databases in it.
import { ensurePostgres } from './debian.mjs';
import { startPostgres } from './postgres.mjs';

/** The cluster that the run has already, named by TEST_DATABASE_URL, or a throw-away one of its own. */
export async function testCluster(name) {
  const url = process.env.TEST_DATABASE_URL;
  if (url) return { url, stop: async () => {} };
  return startPostgres(await ensurePostgres(), name, { throwaway: true });
}

/** Makes a database in a cluster, empty or like another one, and gives its address. */
export async function createDatabase(clusterUrl, name, template = 'template1') {
  await query(clusterUrl, `CREATE DATABASE "${name}" TEMPLATE "${template}"`);
  const url = new URL(clusterUrl);
  url.pathname = `/${name}`;
  return url.href;
}

/** Runs one statement on a connection of its own. */
export async function query(databaseUrl, statement) {
  // Not at the top: the package is installed only when a command has set up.
  const { default: pg } = await import('pg');
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  try {
    return (await client.query(statement)).rows;
  } finally {
    await client.end();
  }
}
