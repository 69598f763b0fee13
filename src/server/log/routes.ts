import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Router } from 'express';
import { logRoutes as routes } from '#contract/log';
import { type Database, inTransaction } from '../db';
import { AppError } from '../errors';
import { SENT, serve } from '../serve';
import { findTuneById } from '../tunes/queries';
import { allAttempts, findHistory, findTunePractice, insertAttempts, listAttempts, saveTunePractice } from './queries';
import { logCsv, logJson } from './writeLog';

/** The log of practice, and how a tune is practised. */
export function logRoutes(db: Database, streams: Database): Router {
  const router = Router();

  serve(router, routes.keepAttempts, async ({ body: { attempts } }) => ({
    kept: await inTransaction(db, (client) => insertAttempts(client, attempts)),
  }));
  serve(router, routes.listAttempts, ({ query }) => listAttempts(db, query));
  serve(router, routes.findHistory, async ({ query }) => ({ days: await findHistory(db, query) }));
  serve(router, routes.exportLog, async ({ query: { format }, response }) => {
    response.attachment(format === 'csv' ? 'log.csv' : 'log.json');
    response.type(format === 'csv' ? 'text/csv; charset=utf-8' : 'application/json');
    const attempts = allAttempts(streams);
    await pipeline(Readable.from(format === 'csv' ? logCsv(attempts) : logJson(attempts)), response);
    return SENT;
  });

  serve(router, routes.findTunePractice, ({ params: { id } }) => findTunePractice(db, id));
  serve(router, routes.saveTunePractice, async ({ params: { id }, body: { baseRevision, practice } }) => {
    const revision = await saveTunePractice(db, id, baseRevision, practice);
    if (revision !== null) return { revision };
    if (!(await findTuneById(db, id))) throw new AppError('not-found');
    throw new AppError('stale-save', await findTunePractice(db, id));
  });

  return router;
}
