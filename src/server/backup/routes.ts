import { Readable, Transform, type TransformCallback } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGunzip, createGzip } from 'node:zlib';
import { Router } from 'express';
import { MOST_BACKUP_BYTES } from '#contract/exports';
import type { Database } from '../db';
import { AppError } from '../errors';
import { backupLines } from './writeBackup';
import { readBackup } from './readBackup';

/** What a backup may swell to when it is unpacked. */
const MOST_UNPACKED_BYTES = 8 * MOST_BACKUP_BYTES;

/** The whole book as one file, and back. */
export function backupRoutes(db: Database, askForCounting: () => Promise<void>, now: () => Date): Router {
  const router = Router();

  router.get('/', async (_request, response) => {
    response.attachment(`morrin-backup-${now().toISOString().slice(0, 10)}.jsonl.gz`);
    response.type('application/gzip');
    await pipeline(Readable.from(backupLines(db, now())), createGzip(), response);
  });

  router.post('/', async (request, response) => {
    const packed = limited(MOST_BACKUP_BYTES);
    const unpacked = limited(MOST_UNPACKED_BYTES);
    const gunzip = createGunzip();
    // A failure anywhere comes out at the reading end; the request itself stays, to be answered.
    for (const stream of [request, packed, gunzip]) stream.on('error', (error: Error) => unpacked.destroy(error));
    // It may fail before anybody reads from it; the reader is told then.
    unpacked.on('error', () => undefined);
    request.pipe(packed).pipe(gunzip).pipe(unpacked);
    let restored;
    try {
      restored = await readBackup(db, unpacked);
    } catch (error) {
      request.unpipe(packed);
      request.resume();
      if ((error as { code?: string }).code?.startsWith('Z_'))
        throw new AppError('bad-backup', [{ path: 'file', message: 'expected a file packed by gzip' }]);
      throw error;
    }
    await askForCounting();
    response.json(restored);
  });

  return router;
}

/** Passes on so many bytes and no more. */
function limited(most: number): Transform {
  let seen = 0;
  return new Transform({
    transform(chunk: Buffer, _encoding, done: TransformCallback) {
      seen += chunk.length;
      if (seen > most) done(new AppError('too-large'));
      else done(null, chunk);
    },
  });
}
