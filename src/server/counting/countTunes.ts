import { playedEvents } from '#core/document';
import type { PlayerSettings } from '#core/report';
import type { Tune } from '#core/tune';
import { type TuneHead, tuneHead } from '../tunes/tuneHead';
import { countTune, type TuneFigures } from './figures';
import type { CountedTune } from './queries';

const parsed = (documents: readonly string[]) => documents.map((document) => JSON.parse(document) as Tune);

/** Counts documents one after another; one that cannot be judged ends it with the reason. Ten to thirty ms a tune. */
export function countTunes(documents: readonly string[], settings: PlayerSettings): CountedTune[] {
  return parsed(documents).map((tune) => ({ head: tuneHead(tune, settings), figures: countTune(tune, settings) }));
}

/** Events played that are judged while somebody waits: four times the longest tune that is played. */
const MAX_AT_ONCE = 4_000;

/** The same for documents that are quickly counted; of others only what is known without counting. */
export function countNow(
  documents: readonly string[],
  settings: PlayerSettings,
): { readonly head: TuneHead; readonly figures: TuneFigures | null }[] {
  let left = MAX_AT_ONCE;
  return parsed(documents).map((tune) => {
    const head = tuneHead(tune, settings);
    left -= playedEvents(tune);
    return { head, figures: left >= 0 ? countTune(tune, settings) : null };
  });
}

/** What the book knows of documents without counting them. */
export function headTunes(documents: readonly string[], settings: Pick<PlayerSettings, 'bands'>): TuneHead[] {
  return parsed(documents).map((tune) => tuneHead(tune, settings));
}
