import { type PlayerSettings, reportTune } from '#core/report';
import type { Tune } from '#core/tune';
import type { ChangedTune } from '#contract/settings';
import type { Queryable } from '../db';
import { listDocuments, updateFigures } from '../tunes/queries';

/** Tunes fetched and counted at once. */
const BATCH = 200;
/** Findings are compared for so many tunes; for the rest only what lists show is counted anew. */
const MOST_COMPARED = 100;

/**
 * Counts the book anew after a change of settings, in the caller's transaction, and tells what changed in the first
 * tunes by title.
 */
export async function recountBook(
  db: Queryable,
  before: PlayerSettings,
  after: PlayerSettings,
): Promise<{ changed: ChangedTune[]; compared: number }> {
  const changed: ChangedTune[] = [];
  let compared = 0;
  for (let offset = 0; ; offset += BATCH) {
    const tunes = await listDocuments(db, BATCH, offset);
    for (const { id, tune } of tunes) {
      await updateFigures(db, id, tune, after);
      if (compared >= MOST_COMPARED) continue;
      compared += 1;
      const change = compareTune(id, tune, before, after);
      if (change) changed.push(change);
    }
    if (tunes.length < BATCH) return { changed, compared };
  }
}

function compareTune(id: string, tune: Tune, before: PlayerSettings, after: PlayerSettings): ChangedTune | null {
  const [was, is] = [reportTune(tune, before), reportTune(tune, after)];
  const ceilingBpm = {
    before: was.figures.check.ceiling?.ceilingBpm ?? null,
    after: is.figures.check.ceiling?.ceilingBpm ?? null,
  };
  const keys = (report: typeof was) => report.findings.map(({ code, ids }) => `${code} ${ids[0] ?? ''}`);
  const [old, now] = [keys(was), keys(is)];
  const codes = (list: readonly string[], others: readonly string[]) =>
    list.filter((key) => !others.includes(key)).map((key) => key.split(' ')[0]!);
  const change = { id, title: tune.title, ceilingBpm, came: codes(now, old), went: codes(old, now) };
  const isSame = ceilingBpm.before === ceilingBpm.after && change.came.length === 0 && change.went.length === 0;
  return isSame ? null : change;
}
