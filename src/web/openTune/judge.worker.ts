import { expose } from 'comlink';
import { reportTune } from '#core/report';
import type { JudgeWorker } from './judgeProtocol';

expose({
  judge: async (tune, settings) => {
    // Findings are worked out when they are asked for: all that a page shows follows from them.
    void reportTune(tune, settings).findings.length;
  },
} satisfies JudgeWorker);
