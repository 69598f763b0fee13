import { createReadStream, createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { type Readable, Transform, type TransformCallback } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGunzip } from 'node:zlib';
import { MAX_BACKUP_BYTES } from '#contract/exports';
import { AppError } from '../errors';

/** What a backup may swell to when it is unpacked. */
const MAX_UNPACKED_BYTES = 8 * MAX_BACKUP_BYTES;

/** Takes an upload into a file of its own, lets work be done with it, and takes the file away. However slowly it comes, nobody waits. */
export async function withSpooled<T>(upload: Readable, work: (file: string) => Promise<T>): Promise<T> {
  const folder = await mkdtemp(path.join(tmpdir(), 'morrin-backup-'));
  try {
    const file = path.join(folder, 'backup.jsonl.gz');
    await pipeline(upload, limited(MAX_BACKUP_BYTES), createWriteStream(file, { mode: 0o600 }));
    return await work(file);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** Works on the unpacked text of a file. @throws AppError `bad-backup` where it is not packed */
export async function withUnpacked<T>(file: string, work: (text: Readable) => Promise<T>): Promise<T> {
  const source = createReadStream(file);
  const gunzip = createGunzip();
  const unpacked = limited(MAX_UNPACKED_BYTES);
  // A failure anywhere comes out at the reading end.
  for (const stream of [source, gunzip]) stream.on('error', (error: Error) => unpacked.destroy(error));
  // It may fail before anybody reads from it; the reader is told then.
  unpacked.on('error', () => undefined);
  source.pipe(gunzip).pipe(unpacked);
  try {
    return await work(unpacked);
  } catch (error) {
    if ((error as { code?: string }).code?.startsWith('Z_'))
      throw new AppError('bad-backup', [{ path: 'file', message: 'expected a whole file packed by gzip' }]);
    throw error;
  } finally {
    source.destroy();
  }
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
