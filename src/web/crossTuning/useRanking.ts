import { proxy, wrap } from 'comlink';
import { useEffect, useState } from 'react';
import type { RankedTuning } from '#core/crossTuning';
import type { RankingRequest, TuningsWorker } from './tuningsProtocol';

export interface Ranking {
  readonly done: number;
  readonly ranked: readonly RankedTuning[] | null;
  readonly problem: string | null;
}

const TIME_LIMIT_MS = 60_000;

/** Ranks tunings in a worker, anew whenever something else is asked; what was asked before is given up. */
export function useRanking(request: RankingRequest): Ranking {
  const [state, setState] = useState<Ranking>({ done: 0, ranked: null, problem: null });
  useEffect(() => {
    let isCurrent = true;
    const worker = new Worker(new URL('./tunings.worker.ts', import.meta.url), { type: 'module' });
    const end = (problem: string) => {
      worker.terminate();
      if (isCurrent) setState({ done: 0, ranked: null, problem });
    };
    worker.onerror = () => end('The tunings could not be ranked: the server does not answer.');
    const timer = setTimeout(() => end('Ranking took too long and was given up.'), TIME_LIMIT_MS);
    const onRanked = proxy((done: number) => {
      if (isCurrent) setState((before) => (before.ranked ? before : { ...before, done }));
    });
    void wrap<TuningsWorker>(worker)
      .rank(request, onRanked)
      .then((ranked) => {
        clearTimeout(timer);
        if (isCurrent) setState({ done: ranked.length, ranked, problem: null });
      });
    return () => {
      isCurrent = false;
      clearTimeout(timer);
      worker.terminate();
    };
  }, [request]);
  return state;
}
