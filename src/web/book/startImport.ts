import { proxy, transfer, wrap } from 'comlink';
import type { FileChoice } from '#formats/file';
import { MOST_IMPORT_BYTES } from '#contract/tunes';
import type { ImportMessage } from '#formats/text';
import type { ImportEnd, ImportWorker, ImportedTune } from './importProtocol';

/** An import under way; `cancel` ends its worker at once. */
export interface RunningImport {
  /** What there is to say that belongs to no tune, once all of them came. */
  readonly messages: Promise<readonly ImportMessage[]>;
  readonly cancel: () => void;
}

/** Reading takes a second for hundreds of tunes; what takes longer than this is given up. */
const TIME_LIMIT_MS = 60_000;

/**
 * Reads a file in a worker of its own. Its size is looked at before a byte is read. Refused in words for the reader: too
 * large, took too long, could not be read.
 */
export function startImport(
  source: Blob,
  choice: FileChoice,
  onTunes: (tunes: readonly ImportedTune[]) => void,
): RunningImport {
  if (source.size > MOST_IMPORT_BYTES)
    return { messages: Promise.reject(new Error(tooLargeWords(source.size))), cancel: () => undefined };
  const worker = new Worker(new URL('./import.worker.ts', import.meta.url), { type: 'module' });
  const remote = wrap<ImportWorker>(worker);
  let timer: ReturnType<typeof setTimeout> | undefined;
  const messages = new Promise<readonly ImportMessage[]>((resolve, reject) => {
    timer = setTimeout(() => reject(new Error('The file took too long to read.')), TIME_LIMIT_MS);
    worker.onerror = () => reject(new Error('The file could not be read.'));
    // The tunes and the end come by ways of their own: the end may be here before the last of them.
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
    source
      .arrayBuffer()
      .then((bytes) => remote.readFile(transfer(bytes, [bytes]), choice, proxy(receive)))
      .then((told) => {
        end = told;
        settle();
      }, reject);
  }).finally(() => {
    clearTimeout(timer);
    worker.terminate();
  });
  return { messages, cancel: () => worker.terminate() };
}

function tooLargeWords(bytes: number): string {
  const mebibytes = (count: number) => Number((count / 1024 / 1024).toFixed(1));
  return `This is too large: ${mebibytes(bytes).toFixed(1)} MB, and at most ${mebibytes(MOST_IMPORT_BYTES)} MB are read at once. Cut the file in two.`;
}
