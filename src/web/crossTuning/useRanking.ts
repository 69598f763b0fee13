import { proxy } from 'comlink';
import { useEffect } from 'react';
import type { RankedTuning } from '#core/crossTuning';
import { useWork, type WorkState } from '../threads/useWork';
import { workerTask } from '../threads/workerTask';
import type { RankingRequest, TuningsWorker } from './tuningsProtocol';

const startTunings = () => new Worker(new URL('./tunings.worker.ts', import.meta.url), { type: 'module' });

/** Ranks tunings in a worker, anew whenever something else is asked. Its progress is the number of those ranked. */
export function useRanking(request: RankingRequest): WorkState<readonly RankedTuning[]> {
  const { state, begin } = useWork<readonly RankedTuning[]>();
  useEffect(
    () =>
      begin((signal, onProgress) =>
        workerTask<TuningsWorker, readonly RankedTuning[]>(
          startTunings,
          (worker) => worker.rank(request, proxy(onProgress)),
          { signal },
        ),
      ),
    [begin, request],
  );
  return state;
}
