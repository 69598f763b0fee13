import { availableParallelism } from 'node:os';
import PQueue from 'p-queue';
import { Piscina } from 'piscina';
import type { ErrorCode } from '#contract/errors';
import { AppError } from '../errors';
import { JOB_LIMITS, type JobName, type Jobs, type Lane } from './jobs';

/** What a thread answers: the value, or why it was refused. */
export type JobDone = { readonly value: unknown } | { readonly refused: { code: ErrorCode; details?: unknown } };

/** Memory of one thread, in MB: a job that needs more is given up. */
const MAX_HEAP_MB = 768;
/** Jobs of a lane that wait for a thread; more are turned away until some are done. */
const MAX_WAITING = 64;
/** Threads that have nothing to do end after this. */
const IDLE_MS = 60_000;

const THREADS: Readonly<Record<Lane, number>> = {
  quick: 2,
  long: Math.max(1, availableParallelism() - 1),
  background: 1,
  backup: 1,
};

/**
 * Works on jobs on threads of their own, so that requests are answered meanwhile. Each lane has its threads, so that no number
 * of long jobs keeps a save waiting. A job over its limit of time or memory is given up with its thread.
 * @throws AppError `busy` where too many wait, `too-much-work` where a limit was met
 */
export function jobPool(
  script: URL,
  { limits = JOB_LIMITS, maxHeapMb = MAX_HEAP_MB } = {},
): { readonly jobs: Jobs; readonly stop: () => Promise<void> } {
  const pool = new Piscina({
    filename: script.href,
    // While the server is worked on the script is not built.
    execArgv: script.pathname.endsWith('.ts') ? ['--import', 'tsx'] : [],
    // One of each lane is ready at once.
    minThreads: 2,
    maxThreads: Object.values(THREADS).reduce((sum, threads) => sum + threads, 0),
    idleTimeout: IDLE_MS,
    resourceLimits: { maxOldGenerationSizeMb: maxHeapMb },
  });
  const lanes: Readonly<Record<Lane, PQueue>> = {
    quick: new PQueue({ concurrency: THREADS.quick }),
    long: new PQueue({ concurrency: THREADS.long }),
    background: new PQueue({ concurrency: THREADS.background }),
    backup: new PQueue({ concurrency: THREADS.backup }),
  };
  let stopping = false;
  const run = async (name: JobName, args: readonly unknown[]): Promise<unknown> => {
    const { lane, ms } = limits[name];
    if (stopping || lanes[lane].size >= MAX_WAITING) throw new AppError('busy');
    const done = await lanes[lane].add(() =>
      limited(
        () => pool.run({ name, args }, { signal: AbortSignal.timeout(ms), transferList: wholeBuffers(args) }),
        () => stopping,
      ),
    );
    const answer = done as JobDone;
    if ('refused' in answer) throw new AppError(answer.refused.code, answer.refused.details);
    return answer.value;
  };
  return {
    jobs: Object.fromEntries(
      (Object.keys(JOB_LIMITS) as JobName[]).map((name) => [name, (...args: unknown[]) => run(name, args)]),
    ) as unknown as Jobs,
    stop: () => {
      stopping = true;
      for (const lane of Object.values(lanes)) lane.clear();
      return pool.destroy();
    },
  };
}

/** Bytes that may go over to the thread instead of being copied: those that have their memory for themselves. */
function wholeBuffers(args: readonly unknown[]): ArrayBuffer[] {
  return args.flatMap((arg) =>
    arg instanceof Uint8Array && arg.buffer instanceof ArrayBuffer && arg.byteLength === arg.buffer.byteLength
      ? [arg.buffer]
      : [],
  );
}

async function limited(work: () => Promise<unknown>, isStopping: () => boolean): Promise<unknown> {
  try {
    return await work();
  } catch (error) {
    // What ends with the threads says nothing of the job.
    if (isStopping()) throw new AppError('busy');
    const { name, code } = error as { name?: string; code?: string };
    if (name === 'AbortError' || name === 'TimeoutError' || code === 'ERR_WORKER_OUT_OF_MEMORY')
      throw new AppError('too-much-work');
    throw error;
  }
}
