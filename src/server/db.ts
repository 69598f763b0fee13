import pg from 'pg';

export type Database = pg.Pool;
/** A pool, or one client inside a transaction. */
export type Queryable = Pick<pg.Pool, 'query'>;

/** No statement runs or waits longer, and no transaction is left lying open, in milliseconds: one that hangs would stop others. */
const LIMITS = {
  statement_timeout: 30_000,
  lock_timeout: 5_000,
  idle_in_transaction_session_timeout: 120_000,
} as const;

/** Connections of one server process for requests. */
const MAX_CONNECTIONS = 10;

export function connect(databaseUrl: string, onError: (error: Error) => void, max = MAX_CONNECTIONS): Database {
  const pool = new pg.Pool({ connectionString: databaseUrl, max, connectionTimeoutMillis: 4000, ...LIMITS });
  // An idle client whose server dies would otherwise end the process.
  pool.on('error', onError);
  return pool;
}

/** Tries of a transaction that was undone because it met another. */
const TRIES = 4;
/** SQLSTATE of a deadlock and of a snapshot that another overtook: nothing was kept, and a second try sees the other's work. */
const MET_ANOTHER = ['40P01', '40001'];

/**
 * Runs work in one transaction: all of it is kept, or none. Where it met another it is run again from its beginning.
 * @param tries 1 for work that reads what can be read only once
 */
export async function inTransaction<T>(
  db: Database,
  work: (client: Queryable) => Promise<T>,
  tries = TRIES,
): Promise<T> {
  for (let tried = 1; ; tried++)
    try {
      return await once(db, work);
    } catch (error) {
      if (tried >= tries || !MET_ANOTHER.includes((error as { code?: string }).code ?? '')) throw error;
    }
}

function once<T>(db: Database, work: (client: Queryable) => Promise<T>): Promise<T> {
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

/** One connection of the pool, to be given back. */
export interface OpenClient {
  readonly client: Queryable;
  /** To be told when the connection is found to be lost: it is then closed, not given back. */
  readonly lost: (error: Error) => void;
  readonly release: () => void;
}

/** A connection that is held for a while: for what is read as it is sent. */
export async function openClient(db: Database): Promise<OpenClient> {
  const client = await db.connect();
  let broken: Error | undefined;
  // The pool listens only to idle clients: one that is lost at work would otherwise end the process.
  const lost = (error: Error) => {
    broken = error;
  };
  client.on('error', lost);
  const release = () => {
    client.off('error', lost);
    client.release(broken);
  };
  return { client, lost, release };
}

/** Runs work on one connection and gives it back. */
export async function withClient<T>(
  db: Database,
  work: (client: Queryable, lost: OpenClient['lost']) => Promise<T>,
): Promise<T> {
  const { client, lost, release } = await openClient(db);
  try {
    return await work(client, lost);
  } finally {
    release();
  }
}
