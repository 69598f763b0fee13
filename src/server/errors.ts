import type { NextFunction, Request, Response } from 'express';
import { ZodError } from 'zod';
import type { ErrorBody, ErrorCode } from '#contract/errors';

/** The one table of errors: status and words by code. */
export const ERRORS: Readonly<Record<ErrorCode, { readonly status: number; readonly message: string }>> = {
  'not-found': { status: 404, message: 'There is nothing here: the tune may have been removed.' },
  'bad-request': { status: 400, message: 'The request was not understood.' },
  'bad-tune': { status: 422, message: 'The tune is not as expected.' },
  'stale-save': { status: 409, message: 'A newer version of this tune was saved from elsewhere.' },
  'too-many-versions': { status: 409, message: 'This tune has as many named versions as it can hold.' },
  'too-many-views': { status: 409, message: 'There are as many views as are kept.' },
  'import-incomplete': { status: 409, message: 'Some tunes of the import have not arrived.' },
  'bad-backup': { status: 422, message: 'This is not a backup that can be restored.' },
  'too-large': { status: 413, message: 'Too large to be taken in one piece.' },
  'too-much-work': { status: 422, message: 'This takes more time or memory than one piece of work is given.' },
  busy: { status: 503, message: 'Too much is being worked on just now: try again soon.' },
  'no-key': { status: 403, message: 'This Morrin is open only to those who have its key.' },
  'wrong-origin': { status: 403, message: 'Requests from other sites are refused.' },
  'database-away': { status: 503, message: 'The database does not answer just now.' },
  internal: { status: 500, message: 'Something went wrong on the server.' },
};

export class AppError extends Error {
  constructor(
    readonly code: ErrorCode,
    readonly details?: unknown,
  ) {
    super(ERRORS[code].message);
  }
}

/** Where a value was not as expected: `parts.0.events.3.duration: a note lasts longer than 0`. */
function issuesOf(error: ZodError): { path: string; message: string }[] {
  return error.issues.slice(0, 20).map(({ path, message }) => ({ path: path.join('.'), message }));
}

/** What is said of an error, whatever threw it. */
export function toAppError(error: unknown): AppError {
  if (error instanceof AppError) return error;
  if (error instanceof ZodError) {
    const isTune = error.issues.some(({ path }) => path[0] === 'tune' || path[0] === 'tunes');
    return new AppError(isTune ? 'bad-tune' : 'bad-request', issuesOf(error));
  }
  const { type, code, status } = error as { type?: string; code?: string; status?: number };
  if (type === 'entity.too.large') return new AppError('too-large');
  if (status === 404) return new AppError('not-found');
  if (status === 413) return new AppError('too-large');
  // Ranges, preconditions, encodings and whatever else a request can ask for that is not to be had.
  if (status !== undefined && status >= 400 && status < 500) return new AppError('bad-request');
  // A value that the database cannot read as what it should be, such as a cursor of another sort.
  if (code && /^22[0-9A-Z]{3}$/.test(code)) return new AppError('bad-request');
  if (isDatabaseUnavailable(code, error)) return new AppError('database-away');
  return new AppError('internal');
}

/**
 * Connection refused or lost, a server shutting down or starting up (SQLSTATE classes 08 and 57P); it has no room or no
 * connections left (53), may only be read (25006), or did not answer in time (57014, 55P03): all pass.
 */
function isDatabaseUnavailable(code: string | undefined, error: unknown): boolean {
  if (code && (/^(ECONN|EPIPE|ETIMEDOUT)/.test(code) || /^(08|53|57P|57014|55P03|25006)/.test(code))) return true;
  return (
    error instanceof Error &&
    /connection terminated|timeout exceeded when trying to connect|not queryable/i.test(error.message)
  );
}

/** What passes by itself. */
const OUTAGES: readonly ErrorCode[] = ['database-away', 'busy'];

/** The one place that turns an error into an answer. */
export function errorHandler(error: unknown, request: Request, response: Response, _next: NextFunction): void {
  const appError = toAppError(error);
  const { status, message } = ERRORS[appError.code];
  const what = `${request.method} ${request.baseUrl}${request.path}`;
  // An outage is told in a line: where everything fails at once, stacks would bury what it began with.
  if (OUTAGES.includes(appError.code)) request.log.warn(`${what}: ${appError.code}`);
  else if (status >= 500) request.log.error({ err: error }, `${what} failed`);
  if (response.headersSent) {
    // What was begun is cut off, so that nobody takes it for whole.
    response.destroy();
    return;
  }
  const body: ErrorBody = { code: appError.code, message, details: appError.details };
  response.status(status).json(body);
}

/** What passes by itself: the database is away, or too much is being worked on. It says nothing of what was being counted. */
export function isOutage(error: unknown): boolean {
  if (typeof (error as { severity?: unknown }).severity === 'string') return true;
  return ['busy', 'database-away'].includes(toAppError(error).code);
}
