import { Router } from 'express';
import { revisionRoutes as routes } from '#contract/revisions';
import type { Database } from '../db';
import { AppError } from '../errors';
import { serve } from '../serve';
import { findRevision, listRevisions } from './queries';

/** How a tune stood after earlier saves. */
export function revisionRoutes(db: Database): Router {
  const router = Router();

  serve(router, routes.listRevisions, async ({ params: { id } }) => ({ revisions: await listRevisions(db, id) }));

  serve(router, routes.findRevision, async ({ params: { id, revision } }) => {
    const json = await findRevision(db, id, revision);
    if (!json) throw new AppError('not-found');
    return { json };
  });

  return router;
}
