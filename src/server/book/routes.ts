import { Router } from 'express';
import { bookRoutes as routes } from '#contract/book';
import { playerSettings } from '#contract/settings';
import { answerOnce } from '../answerOnce';
import { countingKey } from '../counting/figures';
import { countUncounted } from '../counting/queries';
import type { Database } from '../db';
import { loadDemo } from '../demo/loadDemo';
import { AppError } from '../errors';
import type { Jobs } from '../jobs/jobs';
import { serve } from '../serve';
import { findSettings } from '../settings/queries';
import { bookSize } from '../sweeping/bookSize';
import { changeTunes, deleteRemoved, takeBack } from './bulk';
import { countBook, listFacets, listTunes } from './queries';
import { deleteView, keepView, listViews } from './views';

/** The book as a whole: pages of it, views, changes of many tunes at once. */
export function bookRoutes(db: Database, jobs: Jobs, now: () => Date, demoDir: string): Router {
  const router = Router();

  serve(router, routes.listTunes, async ({ query }) => {
    const { settings } = await findSettings(db);
    return listTunes(db, query, playerSettings(settings));
  });
  serve(router, routes.countBook, ({ query }) => countBook(db, query));
  serve(router, routes.listFacets, () => listFacets(db));
  serve(router, routes.findBookSize, () => bookSize(db));
  serve(router, routes.findCounting, async () => {
    const { settings } = await findSettings(db);
    return countUncounted(db, countingKey(playerSettings(settings)));
  });
  serve(router, routes.loadDemo, async () => ({ tunes: await loadDemo(db, jobs, demoDir) }));

  serve(router, routes.changeTunes, ({ body: { choice, deed }, request }) =>
    answerOnce(db, request, async (client) => ({
      status: 200,
      made: await changeTunes(client, choice, deed, now()),
    })),
  );
  serve(router, routes.takeBackChange, ({ params: { id }, request }) =>
    answerOnce(db, request, async (client) => {
      const changed = await takeBack(client, id);
      if (changed === null) throw new AppError('not-found');
      return { status: 200, made: { changed } };
    }),
  );
  serve(router, routes.deleteRemoved, async ({ query: { by } }) => ({ changed: await deleteRemoved(db, by) }));

  serve(router, routes.listViews, async () => ({ views: await listViews(db) }));
  serve(router, routes.keepView, ({ body, request }) =>
    answerOnce(db, request, async (client) => {
      const view = await keepView(client, body);
      if (!view) throw new AppError('too-many-views');
      return { status: 201, made: view };
    }),
  );
  serve(router, routes.removeView, async ({ params: { id } }) => {
    if (!(await deleteView(db, id))) throw new AppError('not-found');
  });

  return router;
}
