import { runner } from 'node-pg-migrate';

/** Brings a database to the newest schema; safe to call again, and from two processes at once: the later waits for the lock. */
export async function migrate(databaseUrl: string, migrationsDir: string): Promise<void> {
  await runner({
    databaseUrl,
    dir: migrationsDir,
    direction: 'up',
    migrationsTable: 'migrations',
    advisoryLockMode: 'wait',
    log: () => undefined,
  });
}
