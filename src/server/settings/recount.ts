import { turningOf } from '#core/crossing';
import { type PlayerSettings, type TuneReport, reportTune } from '#core/report';
import { planFigures } from '#core/search';
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
      const report = reportTune(tune, after);
      await updateFigures(db, id, report);
      if (compared >= MOST_COMPARED) continue;
      compared += 1;
      const change = compareReports(id, reportTune(tune, before), report);
      if (change) changed.push(change);
    }
    if (tunes.length < BATCH) return { changed, compared };
  }
}

function compareReports(id: string, was: TuneReport, is: TuneReport): ChangedTune | null {
  const ceilingBpm = {
    before: was.figures.check.ceiling?.ceilingBpm ?? null,
    after: is.figures.check.ceiling?.ceilingBpm ?? null,
  };
  const keys = (report: typeof was) => report.findings.map(({ code, ids }) => `${code} ${ids[0] ?? ''}`);
  const [old, now] = [keys(was), keys(is)];
  const codes = (list: readonly string[], others: readonly string[]) =>
    list.filter((key) => !others.includes(key)).map((key) => key.split(' ')[0]!);
  const both = (figure: (report: typeof was) => number) => ({ before: figure(was), after: figure(is) });
  const change: ChangedTune = {
    id,
    title: is.tune.title,
    ceilingBpm,
    armDegrees: both(({ figures, settings }) => rounded(turningOf(figures.arm.sums, settings.schools.arm))),
    strayCm: both((report) => rounded(planFigures(report).driftCm)),
    came: codes(now, old),
    went: codes(old, now),
  };
  const figures = [change.ceilingBpm, change.armDegrees, change.strayCm];
  const isSame = figures.every(({ before: one, after: other }) => one === other);
  return isSame && change.came.length === 0 && change.went.length === 0 ? null : change;
}

const rounded = (value: number) => Math.round(value * 10) / 10;
