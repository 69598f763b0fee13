import { Router } from 'express';
import { likenessRoutes as routes } from '#contract/imports';
import { MAX_TUNE_BYTES } from '#contract/tunes';
import { bodyBytes } from '../bodyBytes';
import type { Database } from '../db';
import type { Jobs } from '../jobs/jobs';
import { serve } from '../serve';
import { listKnownHands } from './knownHands';
import { listLikeTunes, listPartLikenesses } from './queries';

/** Tunes and parts of the book that are like others. */
export function likenessRoutes(db: Database, jobs: Jobs): Router {
  const router = Router();

  serve(
    router,
    routes.findLikenesses,
    async ({ request }) => {
      const { melodies } = await jobs.readLikenessAsked(request.body as Uint8Array);
      return { found: await listLikeTunes(db, jobs, melodies) };
    },
    bodyBytes(MAX_TUNE_BYTES),
  );
  serve(router, routes.findPartLikenesses, ({ params: { id } }) => listPartLikenesses(db, jobs, id));

  serve(router, routes.findKnownHands, async ({ params: { id } }) => ({ hands: await listKnownHands(db, id) }));

  return router;
}
