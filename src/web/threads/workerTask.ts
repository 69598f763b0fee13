import { type Remote, wrap } from 'comlink';

/** Whatever a page asks for answers in seconds: what takes longer than this is given up. */
export const WORK_LIMIT_MS = 60_000;

/** Why work gave nothing: over its time; its thread could not be started or died; an error was thrown in it. */
export type WorkProblem = 'too-long' | 'not-started' | 'fault';

export class WorkFailure extends Error {
  constructor(
    readonly problem: WorkProblem,
    detail: string = problem,
  ) {
    super(detail);
  }
}

export interface WorkOptions {
  readonly timeLimitMs?: number;
  /** Once aborted, the thread is ended and the work rejects with the signal's reason. */
  readonly signal?: AbortSignal;
}

/** A thread that stays warm between questions; a new question ends the one before. */
export interface WorkThread<R> {
  readonly ask: <T>(question: (remote: Remote<R>) => Promise<T>, options?: WorkOptions) => Promise<T>;
  readonly end: () => void;
}

/**
 * A thread, started when it is first asked. Every question settles: with its answer, with a `WorkFailure`, or aborted.
 * After a failure the next question has a new thread.
 */
export function workThread<R>(start: () => Worker): WorkThread<R> {
  let open: { readonly worker: Worker; readonly remote: Remote<R>; abort: ((why: unknown) => void) | null } | null =
    null;
  const end = (why: unknown = new DOMException('ended', 'AbortError')) => {
    const ended = open;
    open = null;
    ended?.worker.terminate();
    ended?.abort?.(why);
  };
  return {
    end: () => end(),
    ask: <T>(
      question: (remote: Remote<R>) => Promise<T>,
      { timeLimitMs = WORK_LIMIT_MS, signal }: WorkOptions = {},
    ): Promise<T> => {
      if (signal?.aborted) return Promise.reject(signal.reason as Error);
      if (open?.abort) end();
      if (!open) {
        const worker = start();
        open = { worker, remote: wrap<R>(worker), abort: null };
      }
      const asked = open;
      let timer: ReturnType<typeof setTimeout> | undefined;
      const onAbort = () => end(signal!.reason);
      return new Promise<T>((resolve, reject) => {
        asked.abort = reject;
        timer = setTimeout(() => end(new WorkFailure('too-long')), timeLimitMs);
        asked.worker.onerror = () => end(new WorkFailure('not-started'));
        signal?.addEventListener('abort', onAbort);
        question(asked.remote).then(resolve, (error: unknown) =>
          reject(new WorkFailure('fault', error instanceof Error ? error.message : String(error))),
        );
      }).finally(() => {
        clearTimeout(timer);
        signal?.removeEventListener('abort', onAbort);
        asked.abort = null;
      });
    },
  };
}

/** Asks one question of a thread of its own and ends the thread with it, however it went. */
export function workerTask<R, T>(
  start: () => Worker,
  question: (remote: Remote<R>) => Promise<T>,
  options?: WorkOptions,
): Promise<T> {
  const thread = workThread<R>(start);
  return thread.ask(question, options).finally(thread.end);
}
