import { type Remote, proxy, wrap } from 'comlink';
import type { Candidate } from '#core/search';
import type { SearchRequest, SearchWorker } from './searchProtocol';

/** Searches for bowings in a worker that stays warm from one to the next; `cancel` ends what is under way. */
export interface Searcher {
  readonly propose: (request: SearchRequest, onFound: (found: number) => void) => Promise<Candidate[]>;
  /** What was asked is not answered any more. */
  readonly cancel: () => void;
}

/** Even a medley of hundreds of bars takes a few seconds: what takes longer than this is given up. */
const TIME_LIMIT_MS = 60_000;

export function startSearcher(): Searcher {
  let open: { readonly worker: Worker; readonly remote: Remote<SearchWorker> } | null = null;
  const worker = () => {
    if (!open) {
      const started = new Worker(new URL('./search.worker.ts', import.meta.url), { type: 'module' });
      open = { worker: started, remote: wrap<SearchWorker>(started) };
    }
    return open;
  };
  let isBusy = false;
  const cancel = () => {
    isBusy = false;
    open?.worker.terminate();
    open = null;
  };
  return {
    propose: (request, onFound) => {
      // What was asked before is not wanted any more.
      if (isBusy) cancel();
      isBusy = true;
      const asked = worker();
      let timer: ReturnType<typeof setTimeout> | undefined;
      return new Promise<Candidate[]>((resolve, reject) => {
        timer = setTimeout(() => {
          cancel();
          reject(new Error('The search took too long.'));
        }, TIME_LIMIT_MS);
        asked.worker.onerror = () => reject(new Error('The search could not be started.'));
        asked.remote.propose(request, proxy(onFound)).then(resolve, reject);
      }).finally(() => {
        clearTimeout(timer);
        if (open === asked) isBusy = false;
      });
    },
    cancel,
  };
}
