import { proxy, wrap } from 'comlink';
import type { ImportOutcome, ImportWorker } from './importProtocol';

/** An import under way; `cancel` ends its worker at once. */
export interface RunningImport {
  readonly outcome: Promise<ImportOutcome>;
  readonly cancel: () => void;
}

/** Reading takes a second for hundreds of tunes; what takes longer than this is given up. */
const TIME_LIMIT_MS = 60_000;

export function startImport(bytes: Uint8Array, onProgress: (tunesRead: number) => void): RunningImport {
  const worker = new Worker(new URL('./import.worker.ts', import.meta.url), { type: 'module' });
  const remote = wrap<ImportWorker>(worker);
  let timer: ReturnType<typeof setTimeout> | undefined;
  const outcome = new Promise<ImportOutcome>((resolve, reject) => {
    timer = setTimeout(() => reject(new Error('The text took too long to read.')), TIME_LIMIT_MS);
    worker.onerror = () => reject(new Error('The text could not be read.'));
    remote.readText(bytes, proxy(onProgress)).then(resolve, reject);
  }).finally(() => {
    clearTimeout(timer);
    worker.terminate();
  });
  return { outcome, cancel: () => worker.terminate() };
}
