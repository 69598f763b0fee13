import { expose } from 'comlink';
import { bestFirst, type RankedTuning, rankTunings } from '#core/crossTuning';
import type { TuningsWorker } from './tuningsProtocol';

expose({
  rank: ({ tune, tunings, before, settings, tonics }, onRanked) => {
    const ranked: RankedTuning[] = [];
    for (const one of rankTunings(tune, tunings, before, settings, tonics)) {
      ranked.push(one);
      onRanked(ranked.length);
    }
    return bestFirst(ranked);
  },
} satisfies TuningsWorker);
