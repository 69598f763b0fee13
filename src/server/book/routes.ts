import { Router } from 'express';
import { z } from 'zod';
import { bookFilterSchema, bookQuerySchema, bulkChangeSchema, nameViewSchema } from '#contract/book';
import { playerSettings } from '#contract/settings';
import { answerOnce } from '../answerOnce';
import { countingKey } from '../counting/figures';
import { countUncounted } from '../counting/queries';
import type { Database } from '../db';
import { loadDemo } from '../demo/loadDemo';
import { AppError } from '../errors';
import type { Jobs } from '../jobs/jobs';
import { findSettings } from '../settings/queries';
import { bookSize } from '../upkeep/bookSize';
import { changeTunes, deleteRemoved, takeBack } from './bulk';
import { countBook, listFacets, listTunes } from './queries';
import { deleteView, keepView, listViews } from './views';

const idSchema = z.object({ id: z.uuid() });
const removedBySchema = z.object({ by: z.iso.datetime('expected the time up to which tunes were taken out') });

/** The book as a whole: pages of it, views, changes of many tunes at once. */
export function bookRoutes(db: Database, jobs: Jobs, now: () => Date, demoDir: string): Router {
  const router = Router();

  router.get('/tunes', async (request, response) => {
    const query = bookQuerySchema.parse(request.query);
    const { settings } = await findSettings(db);
    response.json(await listTunes(db, query, playerSettings(settings)));
  });

  router.get('/count', async (request, response) => {
    response.json(await countBook(db, bookFilterSchema.parse(request.query)));
  });

  router.get('/facets', async (_request, response) => {
    response.json(await listFacets(db));
  });

  router.get('/size', async (_request, response) => {
    response.json(await bookSize(db));
  });

  router.get('/counting', async (_request, response) => {
    const { settings } = await findSettings(db);
    response.json(await countUncounted(db, countingKey(playerSettings(settings))));
  });

  // Into an empty book only.
  router.post('/demo', async (_request, response) => {
    response.json({ tunes: await loadDemo(db, jobs, demoDir) });
  });

  router.post('/changes', async (request, response) => {
    const { choice, deed } = bulkChangeSchema.parse(request.body);
    await answerOnce(db, request, response, async (client) => ({
      status: 200,
      body: await changeTunes(client, choice, deed, now()),
    }));
  });

  router.post('/changes/:id/undo', async (request, response) => {
    const { id } = idSchema.parse(request.params);
    await answerOnce(db, request, response, async (client) => {
      const changed = await takeBack(client, id);
      if (changed === null) throw new AppError('not-found');
      return { status: 200, body: { changed } };
    });
  });

  router.delete('/removed', async (request, response) => {
    const { by } = removedBySchema.parse(request.query);
    response.json({ changed: await deleteRemoved(db, by) });
  });

  router.get('/views', async (_request, response) => {
    response.json({ views: await listViews(db) });
  });

  router.post('/views', async (request, response) => {
    const named = nameViewSchema.parse(request.body);
    await answerOnce(db, request, response, async (client) => {
      const view = await keepView(client, named);
      if (!view) throw new AppError('too-many-views');
      return { status: 201, body: view };
    });
  });

  router.delete('/views/:id', async (request, response) => {
    const { id } = idSchema.parse(request.params);
    if (!(await deleteView(db, id))) throw new AppError('not-found');
    response.status(204).end();
  });

  return router;
}
