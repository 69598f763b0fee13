import { proxy } from 'comlink';
import { useEffect } from 'react';
import type { Gain, Standing } from '#core/standing';
import { useWork, type Work } from '../threads/useWork';
import { workerTask, type WorkProblem } from '../threads/workerTask';
import type { DanceRequest, DanceWorker } from './danceProtocol';

const startDance = () => new Worker(new URL('./dance.worker.ts', import.meta.url), { type: 'module' });

export interface Gains {
  readonly gains: readonly Gain[] | null;
  /** They are those of the tune as it was; the new ones are on their way. */
  readonly isOld: boolean;
  readonly problem: WorkProblem | null;
}

/** What single changes buy, counted anew when the tune changes; until then the old answer stays. */
export function useGains(request: DanceRequest, places: number): Gains {
  const { state, begin } = useWork<{ readonly of: DanceRequest; readonly gains: readonly Gain[] }>();
  useEffect(
    () =>
      begin(async (signal) => ({
        of: request,
        gains: await workerTask<DanceWorker, readonly Gain[]>(startDance, (worker) => worker.gains(request, places), {
          signal,
        }),
      })),
    [begin, request, places],
  );
  return { gains: state.answer?.gains ?? null, isOld: state.answer?.of !== request, problem: state.problem };
}

export interface FoundStanding {
  readonly of: DanceRequest;
  readonly bpm: number;
  readonly standing: Standing;
}

/** The search for the fewest changes; begun and given up by hand. Its progress is the number of plans tried. */
export function useStanding(request: DanceRequest): Pick<Work<FoundStanding>, 'state' | 'cancel'> & {
  readonly search: (bpm: number) => void;
} {
  const { state, begin, cancel } = useWork<FoundStanding>();
  const search = (bpm: number) => {
    begin(async (signal, onProgress) => ({
      of: request,
      bpm,
      standing: await workerTask<DanceWorker, Standing>(
        startDance,
        (worker) => worker.stand(request, bpm, proxy(onProgress)),
        { signal },
      ),
    }));
  };
  return { state, search, cancel };
}
