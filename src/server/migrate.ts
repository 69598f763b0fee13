import { readdirSync } from 'node:fs';
import { runner } from 'node-pg-migrate';
import pg from 'pg';

/** Brings a database to the newest schema; safe to call again, and from two processes at once: the later waits for the lock. */
export async function migrate(databaseUrl: string, migrationsDir: string): Promise<void> {
  await refuseNewer(databaseUrl, migrationsDir);
  await runner({
    databaseUrl,
    dir: migrationsDir,
    direction: 'up',
    migrationsTable: 'migrations',
    advisoryLockMode: 'wait',
    log: () => undefined,
  });
}

/** A database that was brought further than this program knows. */
export class NewerDatabase extends Error {}

/** @throws NewerDatabase where the database was brought further than this program knows: an older one would break what it does not see */
async function refuseNewer(databaseUrl: string, migrationsDir: string): Promise<void> {
  const known = new Set(readdirSync(migrationsDir).map((file) => file.replace(/\.sql$/, '')));
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  try {
    const { rows } = await client.query<{ there: boolean }>("SELECT to_regclass('migrations') IS NOT NULL AS there");
    if (!rows[0]!.there) return;
    const made = await client.query<{ name: string }>('SELECT name FROM migrations ORDER BY id');
    const newer = made.rows.map(({ name }) => name).filter((name) => !known.has(name));
    if (newer.length > 0)
      throw new NewerDatabase(
        `This book was opened by a newer Morrin (${newer.join(', ')}), which this one would damage. Use the newer one; nothing was changed.`,
      );
  } finally {
    await client.end();
  }
}
