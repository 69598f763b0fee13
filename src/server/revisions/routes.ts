import { Router } from 'express';
import { z } from 'zod';
import { tuneIdSchema } from '#contract/tunes';
import type { Database } from '../db';
import { AppError } from '../errors';
import { findRevision, listRevisions } from './queries';

const revisionIdSchema = tuneIdSchema.extend({ revision: z.coerce.number().int().min(1) });

/** How a tune stood after earlier saves, under `/api/tunes/:id/revisions`. Going back to one is an edit like any other. */
export function revisionRoutes(db: Database): Router {
  const router = Router({ mergeParams: true });

  router.get('/', async (request, response) => {
    const { id } = tuneIdSchema.parse(request.params);
    response.json({ revisions: await listRevisions(db, id) });
  });

  router.get('/:revision', async (request, response) => {
    const { id, revision } = revisionIdSchema.parse(request.params);
    const found = await findRevision(db, id, revision);
    if (!found) throw new AppError('not-found');
    response.type('json').send(found);
  });

  return router;
}
