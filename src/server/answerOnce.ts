import type { Request } from 'express';
import { z } from 'zod';
import { type Database, inTransaction, type Queryable } from './db';
import { AppError } from './errors';
import type { Made } from './serve';

const keySchema = z.uuid('expected an Idempotency-Key that is a UUID').optional();

/**
 * Makes something in one transaction, once for each `Idempotency-Key`: a request that comes again because its
 * answer was lost makes nothing more, and is answered the same. Without a key each request makes something.
 */
export async function answerOnce<A>(
  db: Database,
  request: Request,
  make: (client: Queryable) => Promise<Made<A>>,
): Promise<Made<A>> {
  const key = keySchema.parse(request.get('Idempotency-Key'));
  const path = `${request.method} ${request.baseUrl}${request.path}`;
  return inTransaction(db, async (client) => {
    if (key === undefined) return make(client);
    // A request with the same key that is under way is waited for.
    const { rowCount } = await client.query(
      `INSERT INTO answered_requests (key, path, status, body) VALUES ($1, $2, 0, 'null') ON CONFLICT DO NOTHING`,
      [key, path],
    );
    if (rowCount === 0) return findAnswer<A>(client, key, path);
    const answer = await make(client);
    await client.query('UPDATE answered_requests SET status = $2, body = $3 WHERE key = $1', [
      key,
      answer.status,
      JSON.stringify(answer.made),
    ]);
    return answer;
  });
}

async function findAnswer<A>(db: Queryable, key: string, path: string): Promise<Made<A>> {
  const { rows } = await db.query<Made<A> & { path: string }>(
    'SELECT path, status, body AS made FROM answered_requests WHERE key = $1',
    [key],
  );
  const answer = rows[0];
  if (answer?.path !== path)
    throw new AppError('bad-request', [{ path: 'Idempotency-Key', message: 'this key was used for another request' }]);
  return answer;
}

/** Days for which an answer can be asked for again. */
const KEPT_DAYS = 2;

export async function forgetAnswers(db: Queryable): Promise<void> {
  await db.query('DELETE FROM answered_requests WHERE answered_at < now() - make_interval(days => $1)', [KEPT_DAYS]);
}
