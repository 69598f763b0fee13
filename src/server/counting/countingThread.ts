import { Worker } from 'node:worker_threads';
import { type Remote, wrap } from 'comlink';
import nodeEndpoint from 'comlink/dist/esm/node-adapter.mjs';
import type { CountTunes, countTunes } from './countTunes';

/** A batch that takes longer than this is given up with its thread. */
const TIME_LIMIT_MS = 60_000;

/** Counts on a thread of its own, so that the server answers meanwhile; a thread that ends is started anew. */
export function countingThread(script: URL): { count: CountTunes; stop: () => Promise<void> } {
  let worker: Worker | null = null;
  let remote: Remote<{ countTunes: typeof countTunes }> | null = null;
  const begin = () => {
    // While the server is worked on the script is not built.
    worker = new Worker(script, script.pathname.endsWith('.ts') ? { execArgv: ['--import', 'tsx'] } : {});
    worker.unref();
    remote = wrap(nodeEndpoint(worker));
    return worker;
  };
  const count: CountTunes = async (tunes, settings) => {
    const own = worker ?? begin();
    let timer: ReturnType<typeof setTimeout> | undefined;
    const ended = new Promise<never>((_resolve, reject) => {
      own.once('error', reject);
      own.once('exit', () => reject(new Error('the counting thread ended')));
      timer = setTimeout(() => reject(new Error('counting took too long')), TIME_LIMIT_MS);
    });
    try {
      return await Promise.race([remote!.countTunes(tunes, settings), ended]);
    } catch (error) {
      worker = null;
      await own.terminate();
      throw error;
    } finally {
      clearTimeout(timer);
      own.removeAllListeners('error');
      own.removeAllListeners('exit');
    }
  };
  return {
    count,
    stop: async () => {
      await worker?.terminate();
    },
  };
}
