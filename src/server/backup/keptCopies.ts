import { createWriteStream } from 'node:fs';
import { mkdir, readdir, rename, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGzip } from 'node:zlib';
import type { KeptCopies } from '#contract/exports';
import type { Database } from '../db';
import { verifyBackup } from './backupRows';
import { withUnpacked } from './spool';
import { backupLines } from './writeBackup';

/** Copies of each kind that are kept, the newest ones. */
const KEPT: Readonly<Record<CopyKind, number>> = { daily: 7, 'before-restore': 5 };
type KeptCopy = KeptCopies['copies'][number];
export type CopyKind = KeptCopy['kind'];

const NAME = /^(daily|before-restore)-(\d{4}-\d{2}-\d{2}T\d{2}-\d{2}-\d{2})\.jsonl\.gz$/;

/**
 * Writes a copy of the whole book beside the database, goes through it to its end, and only then gives it its name: a copy that
 * has one is whole. Older ones of its kind beyond those that are kept are taken away.
 */
export async function keepCopy(db: Database, folder: string, kind: CopyKind, now: Date): Promise<string> {
  await mkdir(folder, { recursive: true, mode: 0o700 });
  const name = `${kind}-${now.toISOString().slice(0, 19).replace(/:/g, '-')}.jsonl.gz`;
  const file = path.join(folder, name);
  const unfinished = `${file}.unfinished`;
  try {
    await pipeline(Readable.from(backupLines(db, now)), createGzip(), createWriteStream(unfinished, { mode: 0o600 }));
    await withUnpacked(unfinished, (text) => verifyBackup(text, { documents: false }));
    await rename(unfinished, file);
  } catch (error) {
    await rm(unfinished, { force: true });
    throw error;
  }
  const ofKind = (await keptCopies(folder)).filter((copy) => copy.kind === kind);
  for (const old of ofKind.slice(KEPT[kind])) await rm(path.join(folder, old.name), { force: true });
  return name;
}

/** The copies in a folder, the newest first; none where there is no folder yet. */
export async function keptCopies(folder: string): Promise<KeptCopy[]> {
  const names = await readdir(folder).catch((error: NodeJS.ErrnoException) => {
    if (error.code === 'ENOENT') return [];
    throw error;
  });
  const copies: KeptCopy[] = [];
  for (const name of names) {
    const [, kind, stamp] = NAME.exec(name) ?? [];
    if (!kind || !stamp) continue;
    const madeAt = `${stamp.slice(0, 10)}T${stamp.slice(11).replace(/-/g, ':')}.000Z`;
    copies.push({ name, kind: kind as CopyKind, madeAt, bytes: (await stat(path.join(folder, name))).size });
  }
  return copies.sort((a, b) => b.madeAt.localeCompare(a.madeAt) || a.name.localeCompare(b.name));
}

const DAY_MS = 24 * 60 * 60 * 1000;

/** Whether the newest daily copy is a day old, or there is none. */
export async function isCopyDue(folder: string, now: Date): Promise<boolean> {
  const newest = (await keptCopies(folder)).find(({ kind }) => kind === 'daily');
  return !newest || now.getTime() - new Date(newest.madeAt).getTime() >= DAY_MS;
}
