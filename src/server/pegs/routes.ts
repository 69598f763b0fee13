import { Router } from 'express';
import { savePegsSchema } from '#contract/pegs';
import type { Database } from '../db';
import { AppError } from '../errors';
import { findPegs, savePegs } from './queries';

/** Fiddles, their strings and checks, and the player's own tunings. */
export function pegsRoutes(db: Database): Router {
  const router = Router();

  router.get('/', async (_request, response) => {
    response.json(await findPegs(db));
  });

  router.put('/', async (request, response) => {
    const { baseRevision, pegs } = savePegsSchema.parse(request.body);
    const revision = await savePegs(db, baseRevision, pegs);
    if (revision === null) throw new AppError('stale-save', await findPegs(db));
    response.json({ revision });
  });

  return router;
}
