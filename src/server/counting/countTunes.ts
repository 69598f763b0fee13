import type { Tune } from '#core/tune';
import type { PlayerSettings } from '#core/report';
import { type TuneHead, tuneHead } from '../tunes/tuneHead';
import { countTune } from './figures';
import type { CountedTune } from './queries';

const parsed = (documents: readonly string[]) => documents.map((document) => JSON.parse(document) as Tune);

/** Counts documents one after another; one that cannot be judged ends it with the reason. Ten to thirty ms a tune. */
export function countTunes(documents: readonly string[], settings: PlayerSettings): CountedTune[] {
  return parsed(documents).map((tune) => ({ head: tuneHead(tune, settings), figures: countTune(tune, settings) }));
}

/** What the book knows of documents without counting them. */
export function headTunes(documents: readonly string[], settings: Pick<PlayerSettings, 'bands'>): TuneHead[] {
  return parsed(documents).map((tune) => tuneHead(tune, settings));
}
