import { Router } from 'express';
import { pegsRoutes as routes } from '#contract/pegs';
import type { Database } from '../db';
import { AppError } from '../errors';
import { serve } from '../serve';
import { findPegs, savePegs } from './queries';

/** Fiddles, their strings and checks, and the player's own tunings. */
export function pegsRoutes(db: Database): Router {
  const router = Router();

  serve(router, routes.findPegs, () => findPegs(db));

  serve(router, routes.savePegs, async ({ body: { baseRevision, pegs } }) => {
    const revision = await savePegs(db, baseRevision, pegs);
    if (revision === null) throw new AppError('stale-save', await findPegs(db));
    return { revision };
  });

  return router;
}
