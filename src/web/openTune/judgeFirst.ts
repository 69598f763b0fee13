import { playedEvents } from '#core/document';
import type { PlayerSettings } from '#core/report';
import type { Tune } from '#core/tune';
import { workerTask } from '../threads/workerTask';
import type { JudgeWorker } from './judgeProtocol';

/** Events played that a page judges at once without asking: four times the longest tune that is played. */
const SURELY_QUICK = 4_000;
/** A tune that takes longer would keep its page from answering after every edit. */
const MAX_MS = 4_000;

const startJudge = () => new Worker(new URL('./judge.worker.ts', import.meta.url), { type: 'module' });

/**
 * Whether a tune can be judged in a time in which a page may stand still. One that is far longer than any that is played is
 * tried on another thread first, where it can be given up: a page never hangs on a document.
 */
export async function canBeJudged(tune: Tune, settings: PlayerSettings): Promise<boolean> {
  if (playedEvents(tune) <= SURELY_QUICK) return true;
  try {
    await workerTask<JudgeWorker, void>(startJudge, (worker) => worker.judge(tune, settings), { timeLimitMs: MAX_MS });
    return true;
  } catch {
    return false;
  }
}
