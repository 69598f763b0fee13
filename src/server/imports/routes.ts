import express, { Router } from 'express';
import { importRoutes as routes } from '#contract/imports';
import { playerSettings } from '#contract/settings';
import { MAX_IMPORT_BYTES, MAX_TUNE_BYTES } from '#contract/tunes';
import { answerOnce } from '../answerOnce';
import { bodyBytes } from '../bodyBytes';
import { type Database, inTransaction } from '../db';
import { AppError } from '../errors';
import type { Jobs } from '../jobs/jobs';
import { serve } from '../serve';
import { findSettings } from '../settings/queries';
import {
  deleteImport,
  findImport,
  findMissing,
  findOutcome,
  finishImport,
  insertImport,
  keepOriginal,
  keepPiece,
} from './queries';

/** Choices about twenty thousand tunes. */
const MAX_CHOICES_BYTES = 3 * 1024 * 1024;

/**
 * Imports in pieces: begun, its original and its tunes sent, then finished at once or given up. Every step may come again
 * when its answer was lost; nothing is in the book before the last one.
 */
export function importRoutes(db: Database, jobs: Jobs, askForCounting: () => Promise<void>): Router {
  const router = Router();

  serve(
    router,
    routes.beginImport,
    ({ body: { fileName }, request }) =>
      answerOnce(db, request, async (client) => ({
        status: 201,
        made: { id: await insertImport(client, fileName) },
      })),
    express.json(),
  );

  serve(router, routes.findImport, async ({ params: { id } }) => {
    const state = await findImport(db, id);
    if (!state) throw new AppError('not-found');
    return state;
  });

  serve(
    router,
    routes.sendOriginal,
    async ({ params: { id }, request }) => {
      if (!Buffer.isBuffer(request.body)) throw new AppError('bad-request');
      if (!(await keepOriginal(db, id, request.body))) throw new AppError('not-found');
    },
    express.raw({ type: 'application/octet-stream', limit: MAX_IMPORT_BYTES }),
  );

  serve(
    router,
    routes.sendPiece,
    async ({ params: { id }, request }) => {
      const settings = playerSettings((await findSettings(db)).settings);
      const piece = await jobs.readPiece(request.body as Uint8Array, settings);
      if (!(await keepPiece(db, id, piece))) throw new AppError('not-found');
    },
    bodyBytes(MAX_TUNE_BYTES),
  );

  serve(
    router,
    routes.finishImport,
    async ({ params: { id }, body: choices }) => {
      // The answer to the first asking may have been lost.
      const before = await findOutcome(db, id);
      if (before) return before;
      if (!(await findImport(db, id))) throw new AppError('not-found');
      const missing = await findMissing(db, id, choices.expected);
      if (missing !== null) throw new AppError('import-incomplete', { missing });
      const finished = await inTransaction(db, (client) => finishImport(client, id, choices));
      await askForCounting();
      const outcome = finished ?? (await findOutcome(db, id));
      if (!outcome) throw new AppError('not-found');
      return outcome;
    },
    express.json({ limit: MAX_CHOICES_BYTES }),
  );

  serve(router, routes.abortImport, async ({ params: { id } }) => {
    if (!(await deleteImport(db, id))) throw new AppError('not-found');
  });

  return router;
}
