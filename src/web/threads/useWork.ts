import { useCallback, useEffect, useRef, useState } from 'react';
import { WorkFailure, type WorkProblem } from './workerTask';

export interface WorkState<T> {
  readonly kind: 'none' | 'going' | 'done' | 'failed' | 'cancelled';
  /** What the work told last of how far it is; 0 before. */
  readonly progress: number;
  /** The last answer; it stays while a new one is on its way, and goes when that fails. */
  readonly answer: T | null;
  readonly problem: WorkProblem | null;
}

type Run<T> = (signal: AbortSignal, onProgress: (progress: number) => void) => Promise<T>;

export interface Work<T> {
  readonly state: WorkState<T>;
  /** Begins; what was under way is aborted. Gives what aborts it without a word, for the end of an effect. */
  readonly begin: (run: Run<T>) => () => void;
  /** Aborts by hand, and says so. */
  readonly cancel: () => void;
}

const NOTHING = { kind: 'none', progress: 0, answer: null, problem: null } as const;

/** Work on another thread as a page shows it; ends with the page. */
export function useWork<T>(): Work<T> {
  const [state, setState] = useState<WorkState<T>>(NOTHING);
  const current = useRef<AbortController | null>(null);
  const stop = useCallback(() => {
    current.current?.abort();
    current.current = null;
  }, []);
  useEffect(() => stop, [stop]);
  const begin = useCallback(
    (run: Run<T>) => {
      stop();
      const own = new AbortController();
      current.current = own;
      // Progress comes by a way of its own, and may come in after the answer.
      let isSettled = false;
      const tell = (next: (before: WorkState<T>) => WorkState<T>) => {
        if (current.current === own && !isSettled) setState(next);
      };
      tell(({ answer }) => ({ kind: 'going', progress: 0, answer, problem: null }));
      run(own.signal, (progress) => tell((before) => ({ ...before, progress }))).then(
        (answer) => {
          tell(({ progress }) => ({ kind: 'done', progress, answer, problem: null }));
          isSettled = true;
        },
        (error: unknown) => {
          const problem = error instanceof WorkFailure ? error.problem : 'fault';
          tell(() => ({ kind: 'failed', progress: 0, answer: null, problem }));
          isSettled = true;
        },
      );
      return () => {
        if (current.current === own) stop();
      };
    },
    [stop],
  );
  const cancel = useCallback(() => {
    stop();
    setState(({ answer }) => ({ kind: 'cancelled', progress: 0, answer, problem: null }));
  }, [stop]);
  return { state, begin, cancel };
}
