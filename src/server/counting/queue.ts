import PgBoss from 'pg-boss';
import type { Logger } from 'pino';
import type { Database } from '../db';
import type { Jobs } from '../jobs/jobs';
import { countBook } from './countBook';

const QUEUE = 'count-book';
/** A job that was lost with its process is given to another after this. */
const EXPIRE_SECONDS = 900;
const RETRIES = 5;
const RETRY_DELAY_SECONDS = 5;
/** A worker looks for jobs this often. */
const POLLING_SECONDS = 1;

export interface CountingQueue {
  /** Asks for the book to be counted; the answer comes from whichever process is free. */
  readonly ask: () => Promise<void>;
  readonly stop: () => Promise<void>;
}

/**
 * The queue in the database through which figures are counted in the background. Any number of server processes may work
 * on one book. At the start it is asked for a count: what an earlier process left is finished then.
 */
export async function startCounting(deps: {
  readonly db: Database;
  readonly databaseUrl: string;
  readonly count: Jobs['countTunes'];
  readonly log: Logger;
}): Promise<CountingQueue> {
  const { db, databaseUrl, count, log } = deps;
  const boss = new PgBoss({ connectionString: databaseUrl, schema: 'queue', max: 2 });
  boss.on('error', ({ message }) => log.warn(`queue: ${message}`));
  let stopping = false;
  await boss.start();
  await boss.createQueue(QUEUE, {
    name: QUEUE,
    expireInSeconds: EXPIRE_SECONDS,
    retryLimit: RETRIES,
    retryDelay: RETRY_DELAY_SECONDS,
  });
  await boss.work(QUEUE, { pollingIntervalSeconds: POLLING_SECONDS }, async () => {
    const onFailed = (id: string, error: unknown) =>
      log.error(`tune ${id} cannot be counted: ${error instanceof Error ? error.message : String(error)}`);
    const counted = await countBook({ db, count, isStopping: () => stopping, onFailed });
    if (counted > 0) log.info(`counted ${counted} tunes`);
  });
  const ask = async () => {
    await boss.send(QUEUE, {});
  };
  await ask();
  return {
    ask,
    stop: async () => {
      stopping = true;
      await boss.stop({ graceful: false });
    },
  };
}
