import { playerSettings } from '#contract/settings';
import { countingKey, type TuneFigures } from '../counting/figures';
import type { Queryable } from '../db';
import type { Jobs } from '../jobs/jobs';
import { findSettings } from '../settings/queries';
import type { TuneHead } from './tuneHead';

/** A document with what the book knows of it. */
export interface TuneToKeep {
  readonly document: string;
  readonly head: TuneHead;
  /** null: to be counted afterwards. */
  readonly figures: TuneFigures | null;
  /** By which rules and settings. */
  readonly countedBy: string;
}

/**
 * What is kept of documents, with figures by the settings that hold. A tune whose figures take too long is kept without them:
 * a save does not wait for a verdict.
 */
export async function countNow(
  db: Queryable,
  jobs: Jobs,
  documents: readonly string[],
  count: Jobs['countTunes'] | Jobs['countNow'] = jobs.countNow,
): Promise<TuneToKeep[]> {
  const settings = playerSettings((await findSettings(db)).settings);
  const countedBy = countingKey(settings);
  try {
    const counted = await count(documents, settings);
    return counted.map(({ head, figures }, i) => ({ document: documents[i]!, head, figures, countedBy }));
  } catch {
    const heads = await jobs.headTunes(documents, settings);
    return heads.map((head, i) => ({ document: documents[i]!, head, figures: null, countedBy }));
  }
}
