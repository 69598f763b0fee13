import { expose } from 'comlink';
import { reportTune } from '#core/report';
import { gainsAt, makeItStand, tightSpots } from '#core/standing';
import type { DanceWorker } from './danceProtocol';

/** The page is told after every so many reports. */
const TELL_EVERY = 25;

expose({
  gains: async ({ tune, options }, places) => {
    const report = reportTune(tune, options);
    return gainsAt(report, tightSpots(report).slice(0, places));
  },
  stand: async ({ tune, options }, bpm, onTrial) =>
    makeItStand(reportTune(tune, options), bpm, {
      onTrial: (tried) => {
        if (tried % TELL_EVERY === 0) onTrial(tried);
      },
    }),
} satisfies DanceWorker);
