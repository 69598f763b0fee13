import type { Logger } from 'pino';
import type { Database } from '../db';
import type { Jobs } from '../jobs/jobs';
import { sweepBook } from '../sweeping/sweepBook';
import { isCopyDue } from './keptCopies';

/** How often it is looked whether a copy is due: a laptop that slept through the hour has one soon after. */
const LOOK_MS = 60 * 60 * 1000;
/** The first look is a while after the start, which has enough to do. */
const FIRST_MS = 60 * 1000;

interface DailyDeps {
  readonly db: Database;
  readonly jobs: Jobs;
  readonly folder: string;
  readonly log: Pick<Logger, 'warn'>;
  readonly now?: () => Date;
  readonly firstMs?: number;
}

/** Keeps a copy of the book each day while the server runs, and then sweeps out what is of no use any more; one that fails is told in the log and tried again. */
export function keepDailyCopies({ db, jobs, folder, log, now = () => new Date(), firstMs = FIRST_MS }: DailyDeps): {
  readonly stop: () => void;
} {
  let timer: ReturnType<typeof setTimeout>;
  const look = async () => {
    try {
      if (!(await isCopyDue(folder, now()))) return;
      await jobs.keepCopyFile(db.options.connectionString!, folder, 'daily', now());
      await sweepBook(db, now());
    } catch (error) {
      log.warn(`the daily copy of the book could not be made: ${(error as Error).message}`);
    }
  };
  const next = (wait: number) => {
    timer = setTimeout(() => void look().finally(() => next(LOOK_MS)), wait).unref();
  };
  next(firstMs);
  return { stop: () => clearTimeout(timer) };
}
