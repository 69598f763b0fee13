import { Router } from 'express';
import { setsRoutes as routes } from '#contract/sets';
import type { Database } from '../db';
import { AppError } from '../errors';
import { serve } from '../serve';
import { findSets, saveSets } from './queries';

/** Sets of tunes, all as one record. */
export function setsRoutes(db: Database): Router {
  const router = Router();

  serve(router, routes.findSets, () => findSets(db));

  serve(router, routes.saveSets, async ({ body: { baseRevision, sets } }) => {
    const revision = await saveSets(db, baseRevision, sets);
    if (revision === null) throw new AppError('stale-save', await findSets(db));
    return { revision };
  });

  return router;
}
