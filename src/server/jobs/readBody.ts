import type { z } from 'zod';
import { AppError } from '../errors';

/**
 * The body of a request as its schema has it. Read here and not where requests are answered: megabytes of documents take
 * their time.
 */
export function readBody<T>(schema: z.ZodType<T>, bytes: Uint8Array): T {
  let body: unknown;
  try {
    body = JSON.parse(Buffer.from(bytes).toString('utf8'));
  } catch (error) {
    throw new AppError('bad-request', [{ path: '', message: `expected JSON: ${(error as Error).message}` }]);
  }
  return schema.parse(body);
}
