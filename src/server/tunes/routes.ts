import { randomUUID } from 'node:crypto';
import { Router } from 'express';
import { MAX_TUNE_BYTES, tuneIdSchema } from '#contract/tunes';
import { answerOnce } from '../answerOnce';
import { bodyBytes } from '../bodyBytes';
import { type Database, inTransaction } from '../db';
import { AppError } from '../errors';
import type { Jobs } from '../jobs/jobs';
import { countNow } from './countNow';
import { findSource, findTuneById, findTuneJson, insertSource, insertTune, isStoredTune, updateTune } from './queries';

/** Tunes one by one. What comes in is read and counted by jobs, and saved whether or not it could be counted in time. */
export function tuneRoutes(db: Database, jobs: Jobs, askForCounting: () => Promise<void>): Router {
  const router = Router();

  router.post('/', bodyBytes(MAX_TUNE_BYTES), async (request, response) => {
    const { tunes, fileName } = await jobs.readNewTunes(request.body as Uint8Array);
    const counted = await countNow(
      db,
      jobs,
      tunes.map(({ document }) => document),
    );
    await answerOnce(db, request, response, async (client) => {
      const made: { id: string; title: string }[] = [];
      for (const [i, { title, source }] of tunes.entries()) {
        const id = randomUUID();
        await insertTune(client, id, counted[i]!);
        if (source !== undefined) await insertSource(client, id, fileName ?? null, source);
        made.push({ id, title });
      }
      return { status: 201, body: { tunes: made } };
    });
    if (counted.some(({ figures }) => figures === null)) await askForCounting();
  });

  router.get('/:id', async (request, response) => {
    const { id } = tuneIdSchema.parse(request.params);
    const record = await findTuneJson(db, id);
    if (!record) throw new AppError('not-found');
    response.type('json').send(record);
  });

  router.put('/:id', bodyBytes(MAX_TUNE_BYTES), async (request, response) => {
    const { id } = tuneIdSchema.parse(request.params);
    const { baseRevision, document } = await jobs.readSave(request.body as Uint8Array);
    const [tune] = await countNow(db, jobs, [document]);
    const saved = await inTransaction(db, (client) => updateTune(client, id, baseRevision, tune!));
    if (saved) {
      response.json(saved);
      if (tune!.figures === null) await askForCounting();
      return;
    }
    const current = await findTuneById(db, id);
    if (!current) throw new AppError('not-found');
    if (!(await isStoredTune(db, id, document))) throw new AppError('stale-save', { current });
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
