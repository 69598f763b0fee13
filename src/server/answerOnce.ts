import type { Request, Response } from 'express';
import { z } from 'zod';
import { type Database, type Queryable, inTransaction } from './db';
import { AppError } from './errors';

const keySchema = z.uuid('expected an Idempotency-Key that is a UUID').optional();

/** What a request is answered with. */
export interface MadeAnswer {
  readonly status: number;
  readonly body: unknown;
}

/**
 * Makes something in one transaction and answers, once for each `Idempotency-Key`: a request that comes again because its
 * answer was lost makes nothing more, and is answered the same. Without a key each request makes something.
 */
export async function answerOnce(
  db: Database,
  request: Request,
  response: Response,
  make: (client: Queryable) => Promise<MadeAnswer>,
): Promise<void> {
  const key = keySchema.parse(request.get('Idempotency-Key'));
  const path = `${request.method} ${request.baseUrl}${request.path}`;
  const { status, body } = await inTransaction(db, async (client) => {
    if (key === undefined) return make(client);
    // A request with the same key that is under way is waited for.
    const { rowCount } = await client.query(
      `INSERT INTO answered_requests (key, path, status, body) VALUES ($1, $2, 0, 'null') ON CONFLICT DO NOTHING`,
      [key, path],
    );
    if (rowCount === 0) return findAnswer(client, key, path);
    const answer = await make(client);
    await client.query('UPDATE answered_requests SET status = $2, body = $3 WHERE key = $1', [
      key,
      answer.status,
      JSON.stringify(answer.body),
    ]);
    return answer;
  });
  response.status(status).json(body);
}

async function findAnswer(db: Queryable, key: string, path: string): Promise<MadeAnswer> {
  const { rows } = await db.query<MadeAnswer & { path: string }>(
    'SELECT path, status, body FROM answered_requests WHERE key = $1',
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
