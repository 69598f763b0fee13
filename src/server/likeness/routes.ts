import { Router } from 'express';
import { z } from 'zod';
import { MAX_TUNE_BYTES } from '#contract/tunes';
import { bodyBytes } from '../bodyBytes';
import type { Database } from '../db';
import type { Jobs } from '../jobs/jobs';
import { listLikeTunes, listPartLikenesses } from './queries';

const idSchema = z.object({ id: z.uuid() });

/** Tunes and parts of the book that are like others. */
export function likenessRoutes(db: Database, jobs: Jobs): Router {
  const router = Router();

  router.post('/', bodyBytes(MAX_TUNE_BYTES), async (request, response) => {
    const { melodies } = await jobs.readLikenessAsked(request.body as Uint8Array);
    response.json({ found: await listLikeTunes(db, jobs, melodies) });
  });

  router.get('/:id', async (request, response) => {
    const { id } = idSchema.parse(request.params);
    response.json(await listPartLikenesses(db, jobs, id));
  });

  return router;
}
