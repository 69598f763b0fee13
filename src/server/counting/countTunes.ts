import type { PlayerSettings } from '#core/report';
import type { Tune } from '#core/tune';
import { tuneHead } from '../tunes/tuneHead';
import { countTune } from './figures';
import type { CountedTune } from './queries';

/** Counts tunes one after another; a tune that cannot be judged ends it with the reason. Ten to thirty ms a tune. */
export function countTunes(tunes: readonly Tune[], settings: PlayerSettings): CountedTune[] {
  return tunes.map((tune) => ({ head: tuneHead(tune, settings), figures: countTune(tune, settings) }));
}

/** The same on another thread. */
export type CountTunes = (tunes: readonly Tune[], settings: PlayerSettings) => Promise<CountedTune[]>;
