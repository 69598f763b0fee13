import { randomUUID } from 'node:crypto';
import express, { Router } from 'express';
import { MAX_TUNE_BYTES } from '#contract/tunes';
import { MAX_VERSION_LETTERS, MAX_VERSIONS, versionRoutes as routes } from '#contract/versions';
import { answerOnce } from '../answerOnce';
import { bodyBytes } from '../bodyBytes';
import type { Database } from '../db';
import { AppError } from '../errors';
import type { Jobs } from '../jobs/jobs';
import { serve } from '../serve';
import { countVersions, deleteVersion, findVersion, insertVersion, listVersions, updateVersion } from './queries';

/** Named versions of a tune. */
export function versionRoutes(db: Database, jobs: Jobs): Router {
  const router = Router();

  serve(router, routes.listVersions, async ({ params: { id } }) => ({
    json: `{"versions":${await listVersions(db, id)}}`,
  }));

  serve(
    router,
    routes.nameVersion,
    async ({ params: { id }, request }) => {
      const version = await jobs.readVersion(request.body as Uint8Array);
      return answerOnce(db, request, async (client) => {
        const kept = await countVersions(client, id);
        if (kept === null) throw new AppError('not-found');
        if (kept.count >= MAX_VERSIONS || kept.letters >= MAX_VERSION_LETTERS) throw new AppError('too-many-versions');
        return { status: 201, made: await insertVersion(client, { ...version, id: randomUUID(), tuneId: id }) };
      });
    },
    bodyBytes(MAX_TUNE_BYTES),
  );

  serve(
    router,
    routes.changeVersion,
    async ({ params: { id, versionId }, body }) => {
      const version = await updateVersion(db, id, versionId, body);
      if (version) return version;
      const current = await findVersion(db, id, versionId);
      throw current ? new AppError('stale-save', { version: current }) : new AppError('not-found');
    },
    express.json(),
  );

  serve(router, routes.removeVersion, async ({ params: { id, versionId } }) => {
    if (!(await deleteVersion(db, id, versionId))) throw new AppError('not-found');
  });

  return router;
}
