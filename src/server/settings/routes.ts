import { isDeepStrictEqual } from 'node:util';
import { Router } from 'express';
import { playerSettings, settingsRoutes as routes } from '#contract/settings';
import { type Database, inTransaction } from '../db';
import { AppError } from '../errors';
import type { Jobs } from '../jobs/jobs';
import { serve } from '../serve';
import { findSettings, saveSettings } from './queries';
import { recountFirst } from './recount';

const NOTHING_COMPARED = { changed: [], compared: 0 };

/** The player's settings; a change counts the first tunes anew at once and asks for the others. */
export function settingsRoutes(db: Database, jobs: Jobs, askForCounting: () => Promise<void>): Router {
  const router = Router();

  serve(router, routes.findSettings, () => findSettings(db));

  serve(router, routes.saveSettings, async ({ body: { baseRevision, settings }, request }) => {
    const saved = await inTransaction(db, async (client) => {
      const before = await findSettings(client);
      const revision = await saveSettings(client, baseRevision, settings);
      return revision === null ? null : { revision, before: before.settings };
    });
    if (!saved) throw new AppError('stale-save', await findSettings(db));
    const [was, is] = [playerSettings(saved.before), playerSettings(settings)];
    // The database keeps the order of names in its own way. What cannot be compared now is counted in the background.
    const recount = isDeepStrictEqual(was, is)
      ? NOTHING_COMPARED
      : await recountFirst(db, jobs, was, is).catch((error: unknown) => {
          request.log.warn({ err: error }, 'settings are kept, tunes were not compared');
          return NOTHING_COMPARED;
        });
    await askForCounting();
    return { revision: saved.revision, ...recount };
  });

  return router;
}
