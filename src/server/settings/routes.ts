import { isDeepStrictEqual } from 'node:util';
import { Router } from 'express';
import { playerSettings, saveSettingsSchema } from '#contract/settings';
import { type Database, inTransaction } from '../db';
import { AppError } from '../errors';
import { findSettings, saveSettings } from './queries';
import { recountFirst } from './recount';

/** The player's settings; a change counts the first tunes anew at once and asks for the others. */
export function settingsRoutes(db: Database, askForCounting: () => Promise<void>): Router {
  const router = Router();

  router.get('/', async (_request, response) => {
    response.json(await findSettings(db));
  });

  router.put('/', async (request, response) => {
    const { baseRevision, settings } = saveSettingsSchema.parse(request.body);
    const saved = await inTransaction(db, async (client) => {
      const before = await findSettings(client);
      const revision = await saveSettings(client, baseRevision, settings);
      if (revision === null) return null;
      const [was, is] = [playerSettings(before.settings), playerSettings(settings)];
      // The database keeps the order of names in its own way.
      const isSame = isDeepStrictEqual(was, is);
      const recount = isSame ? { changed: [], compared: 0 } : await recountFirst(client, was, is);
      return { revision, ...recount };
    });
    if (!saved) throw new AppError('stale-save', await findSettings(db));
    await askForCounting();
    response.json(saved);
  });

  return router;
}
