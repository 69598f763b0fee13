import { type Database, withClient } from './db';

/**
 * Runs work that only one process does at a time, under a lock that the database lets go of with the connection that took it;
 * null where another process has it. A lost connection takes the lock with it.
 */
export function withLock<T>(db: Database, lock: number, work: () => Promise<T>): Promise<T | null> {
  return withClient(db, async (client, lost) => {
    const { rows } = await client.query<{ locked: boolean }>('SELECT pg_try_advisory_lock($1) AS locked', [lock]);
    if (!rows[0]!.locked) return null;
    try {
      return await work();
    } finally {
      await client.query('SELECT pg_advisory_unlock($1)', [lock]).catch(lost);
    }
  });
}
