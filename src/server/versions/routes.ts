import { randomUUID } from 'node:crypto';
import { Router } from 'express';
import { z } from 'zod';
import { tuneIdSchema } from '#contract/tunes';
import { MOST_VERSIONS, changeVersionSchema, nameVersionSchema } from '#contract/versions';
import type { Database } from '../db';
import { AppError } from '../errors';
import { findTuneById } from '../tunes/queries';
import { countVersions, deleteVersion, insertVersion, listVersions, updateVersion } from './queries';

const versionIdSchema = tuneIdSchema.extend({ versionId: z.uuid('expected the id of a version') });

/** Named versions, under `/api/tunes/:id/versions`. */
export function versionRoutes(db: Database): Router {
  const router = Router({ mergeParams: true });

  router.get('/', async (request, response) => {
    const { id } = tuneIdSchema.parse(request.params);
    response.json({ versions: await listVersions(db, id) });
  });

  router.post('/', async (request, response) => {
    const { id } = tuneIdSchema.parse(request.params);
    const version = nameVersionSchema.parse(request.body);
    if (!(await findTuneById(db, id))) throw new AppError('not-found');
    if ((await countVersions(db, id)) >= MOST_VERSIONS) throw new AppError('too-many-versions');
    response.status(201).json(await insertVersion(db, { ...version, id: randomUUID(), tuneId: id }));
  });

  router.patch('/:versionId', async (request, response) => {
    const { id, versionId } = versionIdSchema.parse(request.params);
    const version = await updateVersion(db, id, versionId, changeVersionSchema.parse(request.body));
    if (!version) throw new AppError('not-found');
    response.json(version);
  });

  router.delete('/:versionId', async (request, response) => {
    const { id, versionId } = versionIdSchema.parse(request.params);
    if (!(await deleteVersion(db, id, versionId))) throw new AppError('not-found');
    response.status(204).end();
  });

  return router;
}
