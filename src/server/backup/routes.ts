import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGzip } from 'node:zlib';
import { format } from 'date-fns';
import { Router } from 'express';
import { backupRoutes as routes } from '#contract/exports';
import type { Database } from '../db';
import { AppError } from '../errors';
import type { Jobs } from '../jobs/jobs';
import { SENT, serve } from '../serve';
import { keptCopies } from './keptCopies';
import { withSpooled } from './spool';
import { backupLines } from './writeBackup';

interface BackupDeps {
  readonly db: Database;
  /** Connections for what is sent as it is read. */
  readonly streams: Database;
  readonly jobs: Jobs;
  readonly askForCounting: () => Promise<void>;
  readonly now: () => Date;
  readonly copiesFolder: string;
}

/** The whole book as one file, and back; and the copies that are made by themselves. */
export function backupRoutes({ db, streams, jobs, askForCounting, now, copiesFolder }: BackupDeps): Router {
  const databaseUrl = db.options.connectionString!;
  const router = Router();

  serve(router, routes.keepBackup, async ({ response }) => {
    response.attachment(`morrin-backup-${format(now(), 'yyyy-MM-dd')}.jsonl.gz`);
    response.type('application/gzip');
    await pipeline(Readable.from(backupLines(streams, now())), createGzip(), response);
    return SENT;
  });

  serve(router, routes.listCopies, async () => ({ copies: await keptCopies(copiesFolder) }));

  serve(router, routes.findCopy, async ({ params, response }) => {
    // Only names of the list are asked of the disk.
    const copy = (await keptCopies(copiesFolder)).find(({ name }) => name === params.name);
    if (!copy) throw new AppError('not-found');
    response.attachment(copy.name);
    response.type('application/gzip');
    response.sendFile(copy.name, { root: copiesFolder, dotfiles: 'allow' });
    return SENT;
  });

  serve(router, routes.restoreBackup, async ({ request }) => {
    const restored = await withSpooled(request, async (file) => {
      // All of it is gone through before anything is touched, and the book as it was is kept.
      await jobs.verifyBackupFile(file);
      const copy = await jobs.keepCopyFile(databaseUrl, copiesFolder, 'before-restore', now());
      return { ...(await jobs.restoreBackupFile(databaseUrl, file)), copy };
    });
    await askForCounting();
    return restored;
  });

  return router;
}
