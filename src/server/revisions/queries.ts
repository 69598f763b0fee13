import { KEPT_REVISIONS, type RevisionList } from '#contract/revisions';
import type { Queryable } from '../db';
import { withDocument } from '../documentJson';

/** Revisions told of one tune: more than thinning leaves of years of daily work. */
const MAX_LISTED = 1000;

export async function listRevisions(db: Queryable, tuneId: string): Promise<RevisionList['revisions']> {
  const { rows } = await db.query<{ revision: number; saved_at: Date }>(
    `SELECT revision, saved_at FROM tune_revisions WHERE tune_id = $1 ORDER BY revision DESC LIMIT $2`,
    [tuneId, MAX_LISTED],
  );
  return rows.map(({ revision, saved_at: savedAt }) => ({ revision, savedAt: savedAt.toISOString() }));
}

/** A revision as JSON; null where it is not kept. */
export async function findRevision(db: Queryable, tuneId: string, revision: number): Promise<string | null> {
  const { rows } = await db.query<{ saved_at: Date; document: string }>(
    'SELECT saved_at, document::text FROM tune_revisions WHERE tune_id = $1 AND revision = $2',
    [tuneId, revision],
  );
  const row = rows[0];
  return row ? withDocument({ revision, savedAt: row.saved_at.toISOString() }, 'tune', row.document) : null;
}

/**
 * Takes away revisions that nobody looks for any more: of each tune the last ones stay, of those before the last of each hour
 * of some days, then of each day, then of each week. Returns how many went.
 */
export async function thinRevisions(db: Queryable, now: Date): Promise<number> {
  const { all, hourlyDays, dailyDays } = KEPT_REVISIONS;
  const { rowCount } = await db.query(
    `DELETE FROM tune_revisions USING (
       SELECT tune_id, revision, number,
              row_number() OVER (PARTITION BY tune_id, slot ORDER BY revision DESC) AS in_slot
         FROM (SELECT tune_id, revision, row_number() OVER (PARTITION BY tune_id ORDER BY revision DESC) AS number,
                      CASE WHEN saved_at > $1::timestamptz - make_interval(days => $3) THEN date_trunc('hour', saved_at)
                           WHEN saved_at > $1::timestamptz - make_interval(days => $4) THEN date_trunc('day', saved_at)
                           ELSE date_trunc('week', saved_at) END AS slot
                 FROM tune_revisions) AS slotted
     ) AS ranked
      WHERE tune_revisions.tune_id = ranked.tune_id AND tune_revisions.revision = ranked.revision
        AND number > $2 AND in_slot > 1`,
    [now, all, hourlyDays, dailyDays],
  );
  return rowCount ?? 0;
}
