import { proxy } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import type { TuneReport } from '#core/report';
import type { Candidate, StyleWishes } from '#core/search';
import { useWork, type WorkState } from '../threads/useWork';
import { type WorkThread, workThread } from '../threads/workerTask';
import type { SearchWorker } from './searchProtocol';

/** Bowings that are looked for at once. */
export const WANTED = 4;
/** Wishes within this time are one search. */
const PAUSE_MS = 250;

export interface Search {
  /** Its progress is the number of bowings found. */
  readonly state: WorkState<readonly Candidate[]>;
  readonly again: () => void;
  readonly cancel: () => void;
}

/** Asks the worker anew whenever the tune or the wishes change; the old answer stays until the new one comes. */
export function useSearch(report: TuneReport, wishes: StyleWishes): Search {
  // It stays warm from one search to the next.
  const thread = useRef<WorkThread<SearchWorker> | null>(null);
  const { state, begin, cancel } = useWork<readonly Candidate[]>();
  const [tries, setTries] = useState(0);
  useEffect(() => {
    thread.current ??= workThread<SearchWorker>(
      () => new Worker(new URL('./search.worker.ts', import.meta.url), { type: 'module' }),
    );
    const { ask } = thread.current;
    const { bpm, limits, instrument, fingerRule, schools, hand } = report.settings;
    const options = { bpm, limits, instrument, fingerRule, schools, hand };
    return begin(async (signal, onFound) => {
      await pause(PAUSE_MS, signal);
      const request = { tune: report.tune, options, wishes, count: WANTED };
      return ask((worker) => worker.propose(request, proxy(onFound)), { signal });
    });
  }, [begin, report, wishes, tries]);
  useEffect(
    () => () => {
      thread.current?.end();
      thread.current = null;
    },
    [],
  );
  return { state, again: () => setTries(tries + 1), cancel };
}

function pause(ms: number, signal: AbortSignal): Promise<void> {
  return new Promise((resolve, reject) => {
    const timer = setTimeout(resolve, ms);
    signal.addEventListener('abort', () => {
      clearTimeout(timer);
      reject(signal.reason as Error);
    });
  });
}
