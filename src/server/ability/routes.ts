import { Router } from 'express';
import { abilityRoutes as routes } from '#contract/ability';
import { readinessRoutes, type TuneReadiness } from '#contract/readiness';
import { missingSkills, steppingStones } from '#core/readiness';
import type { Database } from '../db';
import { AppError } from '../errors';
import { serve } from '../serve';
import { abilityState } from './countAbility';
import { findAbility, listSkills } from './queries';

/** What the log says of the player, and what is missing for a tune. */
export function abilityRoutes(db: Database, now: () => Date, askForAbility: () => Promise<void>): Router {
  const router = Router();

  serve(router, routes.findAbility, async ({ request }) => {
    const { ability, isCurrent, left, isDone } = await abilityState(db, now());
    // A day passed, or what was asked for went with its process.
    if (!isDone)
      await askForAbility().catch((error: unknown) => request.log.warn({ err: error }, 'nothing is learnt yet'));
    return { ability, isCurrent, left };
  });

  serve(router, readinessRoutes.findReadiness, async ({ params: { id } }): Promise<TuneReadiness> => {
    const { ability } = await findAbility(db);
    const book = await listSkills(db);
    const wanted = book.find((tune) => tune.id === id);
    if (!wanted) {
      const { rowCount } = await db.query('SELECT 1 FROM tunes WHERE id = $1', [id]);
      if (rowCount === 0) throw new AppError('not-found');
      return { needs: {}, missing: [], stones: [], isKnown: false };
    }
    const { skills: needs } = wanted;
    const { shown } = ability;
    const others = book.filter((tune) => tune.id !== id);
    const chain = steppingStones(
      needs,
      shown,
      others.map((tune) => ({ id: tune.id, needs: tune.skills })),
    );
    let known = shown;
    const stones = chain?.map((stone) => {
      const tune = others.find((own) => own.id === stone)!;
      const [added] = missingSkills(tune.skills, known);
      known = { ...known, [added!.name]: added!.needs };
      return { id: tune.id, title: tune.title, adds: added!.name };
    });
    return { needs, missing: missingSkills(needs, shown), stones: stones ?? null, isKnown: ability.attempts > 0 };
  });

  return router;
}
