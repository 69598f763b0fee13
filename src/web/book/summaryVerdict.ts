import type { TuneSummary } from '#contract/tunes';
import { shortVerdictOf, type Verdict } from '#words/verdict';

/** The verdict on a tune of the book in few words; a tune that is still to be checked counts as good. */
export function summaryVerdict(tune: TuneSummary, learnsBothWays: boolean): Verdict {
  return shortVerdictOf({
    comesRound: tune.comesRound ?? true,
    flips: tune.flippedParts.map((part) => ({ part, pass: null })),
    mayFlip: learnsBothWays || tune.danceType === 'air',
    ceilingBpm: tune.ceilingBpm,
    floorBpm: null,
    goalBpm: tune.wishBpm,
  });
}
