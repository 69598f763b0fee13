import PgBoss from 'pg-boss';
import type { Logger } from 'pino';
import { countAbility } from '../ability/countAbility';
import type { Database } from '../db';
import type { Jobs } from '../jobs/jobs';
import { countBook } from './countBook';

const QUEUE = 'count-book';
/** What the log says of the player, and own ceilings: at most one such job waits, however often it is asked for. */
const ABILITY_QUEUE = 'count-ability';
/** A job that was lost with its process is given to another after this. */
const EXPIRE_SECONDS = 900;
const RETRIES = 5;
const RETRY_DELAY_SECONDS = 5;
/** A worker looks for jobs this often. */
const POLLING_SECONDS = 1;

export interface CountingQueue {
  /** Asks for the book to be counted; the answer comes from whichever process is free. */
  readonly ask: () => Promise<void>;
  /** Asks for what follows from the log: after the book is counted it is asked for anyway. */
  readonly askForAbility: () => Promise<void>;
  readonly stop: () => Promise<void>;
}

/**
 * The queue in the database through which figures are counted in the background. Any number of server processes may work
 * on one book. At the start it is asked for a count: what an earlier process left is finished then.
 */
export async function startCounting(deps: {
  readonly db: Database;
  readonly databaseUrl: string;
  readonly jobs: Pick<Jobs, 'countTunes' | 'judgeStretches' | 'learnPlayer' | 'ownFigures'>;
  readonly log: Logger;
  readonly now?: () => Date;
}): Promise<CountingQueue> {
  const { db, databaseUrl, jobs, log, now = () => new Date() } = deps;
  const boss = new PgBoss({ connectionString: databaseUrl, schema: 'queue', max: 2 });
  boss.on('error', ({ message }) => log.warn(`queue: ${message}`));
  let stopping = false;
  await boss.start();
  const isStopping = () => stopping;
  const onFailed = (id: string, error: unknown) =>
    log.error(`tune ${id} cannot be counted: ${error instanceof Error ? error.message : String(error)}`);
  const limits = { expireInSeconds: EXPIRE_SECONDS, retryLimit: RETRIES, retryDelay: RETRY_DELAY_SECONDS };
  await boss.createQueue(QUEUE, { name: QUEUE, ...limits });
  await boss.createQueue(ABILITY_QUEUE, { name: ABILITY_QUEUE, policy: 'short', ...limits });
  const askForAbility = async () => {
    await boss.send(ABILITY_QUEUE, {});
  };
  await boss.work(QUEUE, { pollingIntervalSeconds: POLLING_SECONDS }, async () => {
    const counted = await countBook({ db, count: jobs.countTunes, isStopping, onFailed });
    if (counted > 0) log.info(`counted ${counted} tunes`);
    if (!stopping) await askForAbility();
  });
  await boss.work(ABILITY_QUEUE, { pollingIntervalSeconds: POLLING_SECONDS }, async () => {
    const counted = await countAbility({ db, jobs, now, isStopping, onFailed });
    if (counted > 0) log.info(`counted own ceilings of ${counted} tunes`);
  });
  const ask = async () => {
    await boss.send(QUEUE, {});
  };
  await ask();
  return {
    ask,
    askForAbility,
    stop: async () => {
      stopping = true;
      await boss.stop({ graceful: false });
    },
  };
}
