import { proxy, wrap } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import type { Gain, Standing } from '#core/standing';
import type { DanceRequest, DanceWorker } from './danceProtocol';

const TIME_LIMIT_MS = 60_000;
const AWAY = 'It could not be counted: the server does not answer. The rest of the page goes on.';
const TOO_LONG = 'It took too long and was given up.';

/** Starts a worker; `end` stops it and says why it gave nothing. */
function startWorker(onProblem: (problem: string) => void): { readonly worker: Worker; readonly end: () => void } {
  const worker = new Worker(new URL('./dance.worker.ts', import.meta.url), { type: 'module' });
  const timer = setTimeout(() => fail(TOO_LONG), TIME_LIMIT_MS);
  const end = () => {
    clearTimeout(timer);
    worker.terminate();
  };
  const fail = (problem: string) => {
    end();
    onProblem(problem);
  };
  worker.onerror = () => fail(AWAY);
  return { worker, end };
}

export interface Gains {
  readonly gains: readonly Gain[] | null;
  /** They are those of the tune as it was; the new ones are on their way. */
  readonly isOld: boolean;
  readonly problem: string | null;
}

/** What single changes buy, counted anew when the tune changes; until then the old answer stays. */
export function useGains(request: DanceRequest, places: number): Gains {
  const [state, setState] = useState<{
    readonly of: DanceRequest;
    readonly gains: readonly Gain[] | null;
    readonly problem: string | null;
  }>({
    of: request,
    gains: null,
    problem: null,
  });
  useEffect(() => {
    let isCurrent = true;
    const { worker, end } = startWorker((problem) => isCurrent && setState({ of: request, gains: null, problem }));
    void wrap<DanceWorker>(worker)
      .gains(request, places)
      .then((gains) => {
        end();
        if (isCurrent) setState({ of: request, gains, problem: null });
      });
    return () => {
      isCurrent = false;
      end();
    };
  }, [request, places]);
  return { gains: state.gains, isOld: state.of !== request, problem: state.problem };
}

export type Search =
  | { readonly kind: 'none' }
  | { readonly kind: 'going'; readonly bpm: number; readonly tried: number }
  | { readonly kind: 'found'; readonly bpm: number; readonly of: DanceRequest; readonly standing: Standing }
  | { readonly kind: 'failed'; readonly problem: string };

/** The search for the fewest changes; begun and given up by hand. */
export function useStanding(request: DanceRequest): {
  readonly search: Search;
  readonly begin: (bpm: number) => void;
  readonly cancel: () => void;
} {
  const [search, setSearch] = useState<Search>({ kind: 'none' });
  const ending = useRef<(() => void) | null>(null);
  useEffect(() => () => ending.current?.(), []);
  const cancel = () => {
    ending.current?.();
    ending.current = null;
    setSearch({ kind: 'none' });
  };
  const begin = (bpm: number) => {
    ending.current?.();
    const { worker, end } = startWorker((problem) => setSearch({ kind: 'failed', problem }));
    ending.current = end;
    setSearch({ kind: 'going', bpm, tried: 0 });
    void wrap<DanceWorker>(worker)
      .stand(
        request,
        bpm,
        // It comes by a way of its own, and may come in after what was found.
        proxy((tried: number) =>
          setSearch((now) => (now.kind === 'going' && now.bpm === bpm ? { ...now, tried } : now)),
        ),
      )
      .then((standing) => {
        end();
        setSearch({ kind: 'found', bpm, of: request, standing });
      });
  };
  return { search, begin, cancel };
}
