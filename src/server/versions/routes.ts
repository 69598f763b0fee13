import { randomUUID } from 'node:crypto';
import express, { Router } from 'express';
import { z } from 'zod';
import { MAX_TUNE_BYTES, tuneIdSchema } from '#contract/tunes';
import { MAX_VERSIONS, MAX_VERSION_LETTERS, changeVersionSchema } from '#contract/versions';
import { answerOnce } from '../answerOnce';
import { bodyBytes } from '../bodyBytes';
import type { Database } from '../db';
import { AppError } from '../errors';
import type { Jobs } from '../jobs/jobs';
import { countVersions, deleteVersion, findVersion, insertVersion, listVersions, updateVersion } from './queries';

const versionIdSchema = tuneIdSchema.extend({ versionId: z.uuid('expected the id of a version') });

/** Named versions, under `/api/tunes/:id/versions`. */
export function versionRoutes(db: Database, jobs: Jobs): Router {
  const router = Router({ mergeParams: true });

  router.get('/', async (request, response) => {
    const { id } = tuneIdSchema.parse(request.params);
    response.type('json').send(`{"versions":${await listVersions(db, id)}}`);
  });

  router.post('/', bodyBytes(MAX_TUNE_BYTES), async (request, response) => {
    const { id } = tuneIdSchema.parse(request.params);
    const version = await jobs.readVersion(request.body as Uint8Array);
    await answerOnce(db, request, response, async (client) => {
      const kept = await countVersions(client, id);
      if (kept === null) throw new AppError('not-found');
      if (kept.count >= MAX_VERSIONS || kept.letters >= MAX_VERSION_LETTERS) throw new AppError('too-many-versions');
      return { status: 201, body: await insertVersion(client, { ...version, id: randomUUID(), tuneId: id }) };
    });
  });

  router.patch('/:versionId', express.json(), async (request, response) => {
    const { id, versionId } = versionIdSchema.parse(request.params);
    const version = await updateVersion(db, id, versionId, changeVersionSchema.parse(request.body));
    if (!version) {
      const current = await findVersion(db, id, versionId);
      throw current ? new AppError('stale-save', { version: current }) : new AppError('not-found');
    }
    response.json(version);
  });

  router.delete('/:versionId', async (request, response) => {
    const { id, versionId } = versionIdSchema.parse(request.params);
    if (!(await deleteVersion(db, id, versionId))) throw new AppError('not-found');
    response.status(204).end();
  });

  return router;
}
