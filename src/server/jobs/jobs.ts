import { judgeStretches, learnPlayer, ownFigures } from '../ability/learnPlayer';
import { keepCopyFile, restoreBackupFile, verifyBackupFile } from '../backup/backupJobs';
import { countNow, countTunes, headTunes } from '../counting/countTunes';
import { tuneFiles } from '../export/tuneFiles';
import { makePdf } from '../handout/toPdf';
import { findLikeParts, findLikeTunes } from '../likeness/compare';
import { compareTunes } from '../settings/compareTunes';
import { readLikenessAsked, readNewTunes, readPiece, readSave, readVersion } from './readBodies';

/** Everything that is worked out off the thread that answers requests: what goes in and comes out can be sent to another. */
export const JOBS = {
  readNewTunes,
  readSave,
  readPiece,
  readVersion,
  readLikenessAsked,
  headTunes,
  countNow,
  countTunes,
  judgeStretches,
  learnPlayer,
  ownFigures,
  compareTunes,
  tuneFiles,
  makePdf,
  findLikeTunes,
  findLikeParts,
  keepCopyFile,
  verifyBackupFile,
  restoreBackupFile,
};

export type JobName = keyof typeof JOBS;

/** The jobs, worked on elsewhere. */
export type Jobs = {
  readonly [Name in JobName]: (
    ...args: Parameters<(typeof JOBS)[Name]>
  ) => Promise<Awaited<ReturnType<(typeof JOBS)[Name]>>>;
};

/** A job as it is sent to a thread. */
export interface SentJob {
  readonly name: JobName;
  readonly args: readonly unknown[];
}

/**
 * Jobs of which somebody waits for the answer with the next edit, jobs that may take a while, those for which nobody waits,
 * and the whole book at once, which takes minutes: none waits for another kind.
 */
export type Lane = 'quick' | 'long' | 'background' | 'backup';

/** Where each is worked on, and after how many milliseconds it is given up. */
export const JOB_LIMITS: Readonly<Record<JobName, { readonly lane: Lane; readonly ms: number }>> = {
  readNewTunes: { lane: 'quick', ms: 20_000 },
  readSave: { lane: 'quick', ms: 20_000 },
  readPiece: { lane: 'quick', ms: 20_000 },
  readVersion: { lane: 'quick', ms: 20_000 },
  readLikenessAsked: { lane: 'quick', ms: 20_000 },
  headTunes: { lane: 'quick', ms: 20_000 },
  // A save does not wait longer for its figures: they are counted afterwards then.
  countNow: { lane: 'quick', ms: 500 },
  countTunes: { lane: 'background', ms: 60_000 },
  judgeStretches: { lane: 'background', ms: 60_000 },
  learnPlayer: { lane: 'background', ms: 60_000 },
  ownFigures: { lane: 'background', ms: 60_000 },
  compareTunes: { lane: 'long', ms: 30_000 },
  tuneFiles: { lane: 'long', ms: 60_000 },
  makePdf: { lane: 'long', ms: 90_000 },
  findLikeTunes: { lane: 'long', ms: 20_000 },
  findLikeParts: { lane: 'long', ms: 20_000 },
  // Twenty thousand tunes take some minutes.
  keepCopyFile: { lane: 'backup', ms: 600_000 },
  verifyBackupFile: { lane: 'backup', ms: 600_000 },
  restoreBackupFile: { lane: 'backup', ms: 1_800_000 },
};

/** The jobs worked on at once and on this thread: for tests. */
export const jobsHere = Object.fromEntries(
  Object.entries(JOBS).map(([name, job]) => [
    name,
    // A job that throws rejects, as on another thread.
    async (...args: unknown[]) => (job as (...args: unknown[]) => unknown)(...args),
  ]),
) as Jobs;
