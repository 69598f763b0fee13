import { randomUUID } from 'node:crypto';
import { Router } from 'express';
import { playerSettings } from '#contract/settings';
import { createTunesSchema, saveTuneSchema, tuneIdSchema } from '#contract/tunes';
import { type Database, inTransaction } from '../db';
import { AppError } from '../errors';
import { findSettings } from '../settings/queries';
import { findSource, findTuneById, insertSource, insertTune, isStoredTune, updateTune } from './queries';

export function tuneRoutes(db: Database): Router {
  const router = Router();

  router.post('/', async (request, response) => {
    const { tunes, fileName } = createTunesSchema.parse(request.body);
    const created = tunes.map(({ tune, source }) => ({ id: randomUUID() as string, tune, source }));
    await inTransaction(db, async (client) => {
      const settings = playerSettings((await findSettings(client)).settings);
      for (const { id, tune, source } of created) {
        await insertTune(client, id, tune, settings);
        if (source !== undefined) await insertSource(client, id, fileName ?? null, source);
      }
    });
    response.status(201).json({ tunes: created.map(({ id, tune }) => ({ id, title: tune.title })) });
  });

  router.get('/:id', async (request, response) => {
    const { id } = tuneIdSchema.parse(request.params);
    const record = await findTuneById(db, id);
    if (!record) throw new AppError('not-found');
    response.json(record);
  });

  router.put('/:id', async (request, response) => {
    const { id } = tuneIdSchema.parse(request.params);
    const { baseRevision, tune } = saveTuneSchema.parse(request.body);
    const saved = await inTransaction(db, async (client) => {
      const settings = playerSettings((await findSettings(client)).settings);
      return updateTune(client, id, baseRevision, tune, settings);
    });
    if (saved) {
      response.json(saved);
      return;
    }
    const current = await findTuneById(db, id);
    if (!current) throw new AppError('not-found');
    if (!(await isStoredTune(db, id, tune))) throw new AppError('stale-save', { current });
    response.json({ revision: current.revision, updatedAt: current.updatedAt });
  });

  router.get('/:id/source', async (request, response) => {
    const { id } = tuneIdSchema.parse(request.params);
    const found = await findSource(db, id);
    if (!found) throw new AppError('not-found');
    response.attachment(found.fileName?.replace(/[^\w.-]+/g, '-') || 'tune.abc');
    if ('text' in found) response.type('text/plain; charset=utf-8').send(found.text);
    else response.type('application/octet-stream').send(found.file);
  });

  return router;
}
