import type { ChangedTune } from '#contract/settings';
import type { PlayerSettings } from '#core/report';
import { countingKey } from '../counting/figures';
import { keepCounted, listFirstTunes } from '../counting/queries';
import type { Queryable } from '../db';
import type { Jobs } from '../jobs/jobs';

/** Tunes that are counted and compared at once; the others are counted in the background. */
const MAX_COMPARED = 100;
/** Letters of documents compared at once: a hundred tunes as they are usual. One that is enormous waits for the background. */
const MAX_LETTERS = 1_500_000;
const MAX_TUNE_LETTERS = 200_000;

/** Counts the first tunes by title anew after a change of settings, and tells what changed in them. */
export async function recountFirst(
  db: Queryable,
  jobs: Jobs,
  before: PlayerSettings,
  after: PlayerSettings,
): Promise<{ changed: ChangedTune[]; compared: number }> {
  let letters = 0;
  const tunes = (await listFirstTunes(db, MAX_COMPARED)).filter(
    ({ document }) => document.length <= MAX_TUNE_LETTERS && (letters += document.length) <= MAX_LETTERS,
  );
  const compared = await jobs.compareTunes(tunes, before, after);
  await keepCounted(
    db,
    countingKey(after),
    tunes.map((tune, i) => ({ ...tune, ...compared[i]! })),
  );
  return { changed: compared.flatMap(({ change }) => (change ? [change] : [])), compared: tunes.length };
}
