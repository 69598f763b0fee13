import express, { Router } from 'express';
import { z } from 'zod';
import { beginImportSchema, finishImportSchema } from '#contract/imports';
import { playerSettings } from '#contract/settings';
import { MAX_IMPORT_BYTES, MAX_TUNE_BYTES } from '#contract/tunes';
import { type Database, inTransaction } from '../db';
import { answerOnce } from '../answerOnce';
import { bodyBytes } from '../bodyBytes';
import { AppError } from '../errors';
import type { Jobs } from '../jobs/jobs';
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

const idSchema = z.object({ id: z.uuid() });

/**
 * Imports in pieces: begun, its original and its tunes sent, then finished at once or given up. Every step may come again
 * when its answer was lost; nothing is in the book before the last one.
 */
export function importRoutes(db: Database, jobs: Jobs, askForCounting: () => Promise<void>): Router {
  const router = Router();

  router.post('/', express.json(), async (request, response) => {
    const { fileName } = beginImportSchema.parse(request.body);
    await answerOnce(db, request, response, async (client) => ({
      status: 201,
      body: { id: await insertImport(client, fileName) },
    }));
  });

  router.get('/:id', async (request, response) => {
    const { id } = idSchema.parse(request.params);
    const state = await findImport(db, id);
    if (!state) throw new AppError('not-found');
    response.json(state);
  });

  router.put(
    '/:id/original',
    express.raw({ type: 'application/octet-stream', limit: MAX_IMPORT_BYTES }),
    async (request, response) => {
      const { id } = idSchema.parse(request.params);
      if (!Buffer.isBuffer(request.body)) throw new AppError('bad-request');
      if (!(await keepOriginal(db, id, request.body))) throw new AppError('not-found');
      response.status(204).end();
    },
  );

  router.put('/:id/tunes', bodyBytes(MAX_TUNE_BYTES), async (request, response) => {
    const { id } = idSchema.parse(request.params);
    const settings = playerSettings((await findSettings(db)).settings);
    const piece = await jobs.readPiece(request.body as Uint8Array, settings);
    if (!(await keepPiece(db, id, piece))) throw new AppError('not-found');
    response.status(204).end();
  });

  router.post('/:id/finish', express.json({ limit: MAX_CHOICES_BYTES }), async (request, response) => {
    const { id } = idSchema.parse(request.params);
    const choices = finishImportSchema.parse(request.body);
    // The answer to the first asking may have been lost.
    const before = await findOutcome(db, id);
    if (before) {
      response.json(before);
      return;
    }
    if (!(await findImport(db, id))) throw new AppError('not-found');
    const missing = await findMissing(db, id, choices.expected);
    if (missing !== null) throw new AppError('import-incomplete', { missing });
    const finished = await inTransaction(db, (client) => finishImport(client, id, choices));
    await askForCounting();
    response.json(finished ?? (await findOutcome(db, id)));
  });

  router.delete('/:id', async (request, response) => {
    const { id } = idSchema.parse(request.params);
    if (!(await deleteImport(db, id))) throw new AppError('not-found');
    response.status(204).end();
  });

  return router;
}
