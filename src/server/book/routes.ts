import { Router } from 'express';
import { z } from 'zod';
import { bookFilterSchema, bookQuerySchema, bulkChangeSchema, nameViewSchema } from '#contract/book';
import { playerSettings } from '#contract/settings';
import { countingKey } from '../counting/figures';
import { countUncounted } from '../counting/queries';
import type { Database } from '../db';
import { loadDemo } from '../demo/loadDemo';
import { AppError } from '../errors';
import { findSettings } from '../settings/queries';
import { changeTunes, deleteRemoved, takeBack } from './bulk';
import { countBook, listFacets, listTunes } from './queries';
import { deleteView, keepView, listViews } from './views';

const idSchema = z.object({ id: z.uuid() });

/** The book as a whole: pages of it, views, changes of many tunes at once. */
export function bookRoutes(db: Database, now: () => Date, demoDir: string): Router {
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

  router.get('/counting', async (_request, response) => {
    const { settings } = await findSettings(db);
    response.json(await countUncounted(db, countingKey(playerSettings(settings))));
  });

  // Into an empty book only.
  router.post('/demo', async (_request, response) => {
    response.json({ tunes: await loadDemo(db, demoDir) });
  });

  router.post('/changes', async (request, response) => {
    const { choice, deed } = bulkChangeSchema.parse(request.body);
    response.json(await changeTunes(db, choice, deed, now()));
  });

  router.post('/changes/:id/undo', async (request, response) => {
    const { id } = idSchema.parse(request.params);
    const changed = await takeBack(db, id);
    if (changed === null) throw new AppError('not-found');
    response.json({ changed });
  });

  router.delete('/removed', async (_request, response) => {
    response.json({ changed: await deleteRemoved(db) });
  });

  router.get('/views', async (_request, response) => {
    response.json({ views: await listViews(db) });
  });

  router.post('/views', async (request, response) => {
    const view = await keepView(db, nameViewSchema.parse(request.body));
    if (!view) throw new AppError('too-many-views');
    response.status(201).json(view);
  });

  router.delete('/views/:id', async (request, response) => {
    const { id } = idSchema.parse(request.params);
    if (!(await deleteView(db, id))) throw new AppError('not-found');
    response.status(204).end();
  });

  return router;
}
