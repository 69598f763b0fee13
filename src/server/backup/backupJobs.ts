import { connect } from '../db';
import { verifyBackup } from './backupRows';
import { type CopyKind, keepCopy } from './keptCopies';
import { readBackup } from './readBackup';
import { withUnpacked } from './spool';

/** Goes through a packed backup to its end. @throws AppError `bad-backup` with the line that was not as expected */
export function verifyBackupFile(file: string): Promise<{ readonly tunes: number; readonly rows: number }> {
  return withUnpacked(file, verifyBackup);
}

/** Keeps a copy of the book, on a connection of its own. Returns its name. */
export async function keepCopyFile(databaseUrl: string, folder: string, kind: CopyKind, now: Date): Promise<string> {
  const db = connect(databaseUrl, () => undefined, 1);
  try {
    return await keepCopy(db, folder, kind, now);
  } finally {
    await db.end();
  }
}

/** Puts a packed backup that was gone through in the place of the book, on a connection of its own. */
export async function restoreBackupFile(databaseUrl: string, file: string): Promise<{ tunes: number; rows: number }> {
  const db = connect(databaseUrl, () => undefined, 1);
  try {
    return await withUnpacked(file, (text) => readBackup(db, text));
  } finally {
    await db.end();
  }
}
