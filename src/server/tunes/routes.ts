import { randomUUID } from 'node:crypto';
import { type Request, Router } from 'express';
import { MAX_TUNE_BYTES, tuneRoutes as routes } from '#contract/tunes';
import { answerOnce } from '../answerOnce';
import { bodyBytes } from '../bodyBytes';
import { type Database, inTransaction } from '../db';
import { AppError } from '../errors';
import type { Jobs } from '../jobs/jobs';
import { SENT, serve } from '../serve';
import { countNow } from './countNow';
import { findSource, findTuneById, findTuneJson, insertSource, insertTune, isStoredTune, updateTune } from './queries';

/** Tunes one by one. What comes in is read and counted by jobs, and saved whether or not it could be counted in time. */
export function tuneRoutes(
  db: Database,
  jobs: Jobs,
  { askForCounting, askForAbility }: Record<'askForCounting' | 'askForAbility', () => Promise<void>>,
): Router {
  const router = Router();
  /** What was kept is kept, whether or not its figures can be asked for now. */
  const countLater = (request: Request, isCounted: boolean) =>
    (isCounted ? askForAbility : askForCounting)().catch((error: unknown) =>
      request.log.warn({ err: error }, 'tunes are kept, not counted'),
    );

  serve(
    router,
    routes.createTunes,
    async ({ request }) => {
      const { tunes, fileName } = await jobs.readNewTunes(request.body as Uint8Array);
      const counted = await countNow(
        db,
        jobs,
        tunes.map(({ document }) => document),
      );
      const answer = await answerOnce(db, request, async (client) => {
        const made: { id: string; title: string }[] = [];
        for (const [i, { title, source }] of tunes.entries()) {
          const id = randomUUID();
          await insertTune(client, id, counted[i]!);
          if (source !== undefined) await insertSource(client, id, fileName ?? null, source);
          made.push({ id, title });
        }
        return { status: 201, made: { tunes: made } };
      });
      await countLater(
        request,
        counted.every(({ figures }) => figures !== null),
      );
      return answer;
    },
    bodyBytes(MAX_TUNE_BYTES),
  );

  serve(router, routes.findTune, async ({ params: { id } }) => {
    const json = await findTuneJson(db, id);
    if (!json) throw new AppError('not-found');
    return { json };
  });

  serve(
    router,
    routes.saveTune,
    async ({ params: { id }, request }) => {
      const { baseRevision, document } = await jobs.readSave(request.body as Uint8Array);
      const [tune] = await countNow(db, jobs, [document]);
      const saved = await inTransaction(db, (client) => updateTune(client, id, baseRevision, tune!));
      if (saved) {
        await countLater(request, tune!.figures !== null);
        return saved;
      }
      const current = await findTuneById(db, id);
      if (!current) throw new AppError('not-found');
      if (!(await isStoredTune(db, id, document))) throw new AppError('stale-save', { current });
      return { revision: current.revision, updatedAt: current.updatedAt };
    },
    bodyBytes(MAX_TUNE_BYTES),
  );

  serve(router, routes.findSource, async ({ params: { id }, response }) => {
    const found = await findSource(db, id);
    if (!found) throw new AppError('not-found');
    response.attachment(found.fileName?.replace(/[^\w.-]+/g, '-') || 'tune.abc');
    if ('text' in found) response.type('text/plain; charset=utf-8').send(found.text);
    else response.type('application/octet-stream').send(found.file);
    return SENT;
  });

  return router;
}
