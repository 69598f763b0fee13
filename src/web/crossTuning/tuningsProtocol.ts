import type { NamedTuning, RankedTuning } from '#core/crossTuning';
import type { Key } from '#core/pitch';
import type { PlayerSettings } from '#core/report';
import type { Tune } from '#core/tune';
import type { Tuning } from '#core/tuning';

/** What a ranking is asked. */
export interface RankingRequest {
  readonly tune: Tune;
  readonly tunings: readonly NamedTuning[];
  readonly before: Tuning;
  readonly settings: PlayerSettings;
  readonly tonics: readonly Pick<Key, 'letter' | 'alter'>[];
}

/** What the page asks of its worker. */
export interface TuningsWorker {
  rank(request: RankingRequest, onRanked: (done: number) => void): RankedTuning[] | Promise<RankedTuning[]>;
}
