import { playerSettings } from '#contract/settings';
import { withLock } from '../advisoryLock';
import type { Database } from '../db';
import { isOutage } from '../errors';
import type { Jobs } from '../jobs/jobs';
import { findSettings } from '../settings/queries';
import { countingKey } from './figures';
import { keepCounted, keepFailure, listUncounted } from './queries';

/** Tunes counted and kept together. */
const BATCH = 20;

/** Only one process counts at a time: a lock that the database lets go of with the connection that took it. */
const COUNTING_LOCK = 4_710_001;

export interface CountBookDeps {
  readonly db: Database;
  readonly count: Jobs['countTunes'];
  /** Tells that the server stops: the batch under way is finished, the rest stays to be counted. */
  readonly isStopping: () => boolean;
  /** Tells of a tune that could not be counted; it is kept with the tune too. */
  readonly onFailed: (id: string, error: unknown) => void;
}

/**
 * Counts every tune whose figures are not those of the settings that hold, a batch at a time, until none is left. What is
 * left to do stands in the tunes themselves, so it may be ended at any time and begun again by any process. Where another
 * process is at it, there is nothing to do: that one looks once more after it let go of the lock.
 * Returns how many were counted here.
 */
export async function countBook(deps: CountBookDeps): Promise<number> {
  let counted = 0;
  // Tunes that cannot be counted are passed over until the next time.
  const failed = new Set<string>();
  for (;;) {
    const round = await withLock(deps.db, COUNTING_LOCK, () => countAll(deps, failed));
    if (round === null) return counted;
    counted += round;
    if (deps.isStopping() || (await nextBatch(deps.db, failed)).tunes.length === 0) return counted;
  }
}

async function countAll(deps: CountBookDeps, failed: Set<string>): Promise<number> {
  for (let counted = 0; ;) {
    const batch = await nextBatch(deps.db, failed);
    const { tunes, settings, key } = batch;
    if (tunes.length === 0 || deps.isStopping()) return counted;
    try {
      const results = await deps.count(
        tunes.map(({ document }) => document),
        settings,
      );
      await keepCounted(
        deps.db,
        key,
        tunes.map((tune, i) => ({ ...tune, ...results[i]! })),
      );
      counted += tunes.length;
    } catch (error) {
      counted += await countOneByOne(deps, batch, failed, error);
    }
  }
}

/** After a batch failed: each by itself, so that one bad tune does not keep the others back. */
async function countOneByOne(
  { db, count, onFailed }: CountBookDeps,
  { tunes, settings, key }: Awaited<ReturnType<typeof nextBatch>>,
  failed: Set<string>,
  first: unknown,
): Promise<number> {
  if (isOutage(first)) throw first;
  let counted = 0;
  for (const tune of tunes)
    try {
      const [result] = await count([tune.document], settings);
      await keepCounted(db, key, [{ ...tune, ...result! }]);
      counted += 1;
    } catch (error) {
      if (isOutage(error)) throw error;
      failed.add(tune.id);
      await keepFailure(db, key, tune, failureWords(error));
      onFailed(tune.id, error);
    }
  return counted;
}

function failureWords(error: unknown): string {
  return error instanceof Error ? error.message : String(error);
}

async function nextBatch(db: Database, failed: ReadonlySet<string>) {
  const settings = playerSettings((await findSettings(db)).settings);
  const key = countingKey(settings);
  const tunes = (await listUncounted(db, key, BATCH + failed.size)).filter(({ id }) => !failed.has(id));
  return { tunes: tunes.slice(0, BATCH), settings, key };
}
