import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import express, { type Request, Router } from 'express';
import { logRoutes as routes, MAX_LOG_BYTES } from '#contract/log';
import { type Database, inTransaction } from '../db';
import { AppError } from '../errors';
import { SENT, serve } from '../serve';
import { findTuneById } from '../tunes/queries';
import {
  allAttempts,
  findHistory,
  findMinutes,
  findSums,
  findTunePractice,
  insertAttempts,
  insertLog,
  listAttempts,
  saveTunePractice,
  tunesByTitle,
} from './queries';
import { type ReadLog, readLog } from './readLog';
import { logCsv, logJson } from './writeLog';

/** The log of practice, and how a tune is practised. */
export function logRoutes(db: Database, streams: Database, askForAbility: () => Promise<void>): Router {
  const router = Router();
  /** What is kept is kept, whether or not what follows from it can be counted now. */
  const learnLater = (request: Request) =>
    askForAbility().catch((error: unknown) =>
      request.log.warn({ err: error }, 'the log is kept, nothing is learnt yet'),
    );

  serve(router, routes.keepAttempts, async ({ body: { attempts }, request }) => {
    await inTransaction(db, (client) => insertAttempts(client, attempts));
    await learnLater(request);
    return { kept: attempts.map(({ id }) => id) };
  });
  serve(router, routes.listAttempts, ({ query }) => listAttempts(db, query));
  serve(router, routes.findHistory, async ({ query }) => ({ days: await findHistory(db, query) }));
  serve(router, routes.findSums, async ({ query }) => ({ sums: await findSums(db, query) }));
  serve(router, routes.findMinutes, async ({ query }) => ({ days: await findMinutes(db, query) }));
  serve(router, routes.exportLog, async ({ query: { format }, response }) => {
    response.attachment(format === 'csv' ? 'log.csv' : 'log.json');
    response.type(format === 'csv' ? 'text/csv; charset=utf-8' : 'application/json');
    const attempts = allAttempts(streams);
    await pipeline(Readable.from(format === 'csv' ? logCsv(attempts) : logJson(attempts)), response);
    return SENT;
  });

  serve(
    router,
    routes.importLog,
    async ({ request }) => {
      if (!Buffer.isBuffer(request.body) || request.body.length === 0) throw notALog('a file');
      const titles = await tunesByTitle(db);
      const { attempts, leftOut } = readOrRefuse(request.body.toString('utf8'), titles);
      const added = await inTransaction(db, (client) => insertLog(client, attempts));
      await learnLater(request);
      return { attempts: added, known: attempts.length - added, leftOut: [...leftOut] };
    },
    express.raw({ type: 'application/octet-stream', limit: MAX_LOG_BYTES }),
  );

  serve(router, routes.findTunePractice, ({ params: { id } }) => findTunePractice(db, id));
  serve(router, routes.saveTunePractice, async ({ params: { id }, body: { baseRevision, practice } }) => {
    const revision = await saveTunePractice(db, id, baseRevision, practice);
    if (revision !== null) return { revision };
    if (!(await findTuneById(db, id))) throw new AppError('not-found');
    throw new AppError('stale-save', await findTunePractice(db, id));
  });

  return router;
}

const notALog = (expected: string) => new AppError('bad-request', [{ path: 'file', message: `expected ${expected}` }]);

function readOrRefuse(text: string, titles: ReadonlyMap<string, string>): ReadLog {
  try {
    return readLog(text, (title) => titles.get(title) ?? null);
  } catch (error) {
    if (error instanceof RangeError) throw notALog(`a log as it goes out: ${error.message}`);
    throw error;
  }
}
