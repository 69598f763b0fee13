import { proxy, type Remote, transfer } from 'comlink';
import { MAX_IMPORT_BYTES } from '#contract/tunes';
import type { FileChoice } from '#formats/file';
import type { ImportMessage } from '#formats/text';
import { problemWords } from '../threads/problemWords';
import { workerTask, WorkFailure } from '../threads/workerTask';
import type { ImportedTune, ImportEnd, ImportWorker } from './importProtocol';

/** An import under way; `cancel` ends its worker at once. */
export interface RunningImport {
  /** What there is to say that belongs to no tune, once all of them came. */
  readonly messages: Promise<readonly ImportMessage[]>;
  readonly cancel: () => void;
}

const startReader = () => new Worker(new URL('./import.worker.ts', import.meta.url), { type: 'module' });

/**
 * Reads a file in a worker of its own. Its size is looked at before a byte is read. Refused in words for the reader: too
 * large, took too long, could not be read.
 */
export function startImport(
  source: Blob,
  choice: FileChoice,
  onTunes: (tunes: readonly ImportedTune[]) => void,
): RunningImport {
  if (source.size > MAX_IMPORT_BYTES)
    return { messages: Promise.reject(new Error(tooLargeWords(source.size))), cancel: () => undefined };
  const abort = new AbortController();
  const messages = workerTask<ImportWorker, readonly ImportMessage[]>(
    startReader,
    (worker) => readWith(worker, source, choice, onTunes),
    { signal: abort.signal },
  ).catch((error: unknown) => {
    const problem = error instanceof WorkFailure ? error.problem : 'fault';
    throw new Error(`The file could not be read. ${problemWords(problem)}`);
  });
  return { messages, cancel: () => abort.abort() };
}

/** The tunes and the end come by ways of their own: the end may be here before the last of them. */
async function readWith(
  worker: Remote<ImportWorker>,
  source: Blob,
  choice: FileChoice,
  onTunes: (tunes: readonly ImportedTune[]) => void,
): Promise<readonly ImportMessage[]> {
  const bytes = await source.arrayBuffer();
  return new Promise((resolve, reject) => {
    let came = 0;
    let end: ImportEnd | null = null;
    const settle = () => {
      if (end && came >= end.count) resolve(end.messages);
    };
    const receive = (tunes: readonly ImportedTune[]) => {
      came += tunes.length;
      onTunes(tunes);
      settle();
    };
    worker.readFile(transfer(bytes, [bytes]), choice, proxy(receive)).then((told) => {
      end = told;
      settle();
    }, reject);
  });
}

function tooLargeWords(bytes: number): string {
  const mebibytes = (count: number) => Number((count / 1024 / 1024).toFixed(1));
  return `This is too large: ${mebibytes(bytes).toFixed(1)} MB, and at most ${mebibytes(MAX_IMPORT_BYTES)} MB are read at once. Cut the file in two.`;
}
