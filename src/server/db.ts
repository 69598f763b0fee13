import pg from 'pg';

export type Database = pg.Pool;
/** A pool, or one client inside a transaction. */
export type Queryable = Pick<pg.Pool, 'query'>;

export function connect(databaseUrl: string, onError: (error: Error) => void): Database {
  const pool = new pg.Pool({ connectionString: databaseUrl, max: 10, connectionTimeoutMillis: 4000 });
  // An idle client whose server dies would otherwise end the process.
  pool.on('error', onError);
  return pool;
}

/** Runs work in one transaction: all of it is kept, or none. */
export function inTransaction<T>(db: Database, work: (client: Queryable) => Promise<T>): Promise<T> {
  return withClient(db, async (client, lost) => {
    try {
      await client.query('BEGIN');
      const result = await work(client);
      await client.query('COMMIT');
      return result;
    } catch (error) {
      await client.query('ROLLBACK').catch(lost);
      throw error;
    }
  });
}

/**
 * Runs work on one connection and gives it back.
 * @param work also gets what is told when the connection is found to be lost: it is then closed, not given back
 */
export async function withClient<T>(
  db: Database,
  work: (client: Queryable, lost: (error: Error) => void) => Promise<T>,
): Promise<T> {
  const client = await db.connect();
  let broken: Error | undefined;
  // The pool listens only to idle clients: one that is lost at work would otherwise end the process.
  const lost = (error: Error) => {
    broken = error;
  };
  client.on('error', lost);
  try {
    return await work(client, lost);
  } finally {
    client.off('error', lost);
    client.release(broken);
  }
}
