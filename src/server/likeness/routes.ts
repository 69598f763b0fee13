import { Router } from 'express';
import { z } from 'zod';
import { likenessAskedSchema } from '#contract/imports';
import type { Database } from '../db';
import { findLikeTunes, findPartLikenesses } from './queries';

const idSchema = z.object({ id: z.uuid() });

/** Tunes and parts of the book that are like others. */
export function likenessRoutes(db: Database): Router {
  const router = Router();

  router.post('/', async (request, response) => {
    const { melodies } = likenessAskedSchema.parse(request.body);
    response.json({ found: await findLikeTunes(db, melodies) });
  });

  router.get('/:id', async (request, response) => {
    const { id } = idSchema.parse(request.params);
    response.json(await findPartLikenesses(db, id));
  });

  return router;
}
