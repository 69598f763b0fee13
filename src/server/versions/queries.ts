import type { Tune } from '#core/tune';
import type { TuneVersion } from '#contract/versions';
import type { Queryable } from '../db';

interface VersionRow {
  id: string;
  name: string;
  document: Tune;
  created_at: Date;
}

const toVersion = ({ id, name, document, created_at }: VersionRow): TuneVersion => ({
  id,
  name,
  createdAt: created_at.toISOString(),
  tune: document,
});

/** The named versions of a tune, the newest first. */
export async function listVersions(db: Queryable, tuneId: string): Promise<TuneVersion[]> {
  const { rows } = await db.query<VersionRow>(
    'SELECT id, name, document, created_at FROM tune_versions WHERE tune_id = $1 ORDER BY created_at DESC, id LIMIT 100',
    [tuneId],
  );
  return rows.map(toVersion);
}

export async function countVersions(db: Queryable, tuneId: string): Promise<number> {
  const { rows } = await db.query<{ count: number }>(
    'SELECT count(*)::integer AS count FROM tune_versions WHERE tune_id = $1',
    [tuneId],
  );
  return rows[0]!.count;
}

export async function insertVersion(
  db: Queryable,
  { id, tuneId, name, tune }: { id: string; tuneId: string; name: string; tune: Tune },
): Promise<TuneVersion> {
  const { rows } = await db.query<VersionRow>(
    `INSERT INTO tune_versions (id, tune_id, name, document) VALUES ($1, $2, $3, $4)
     RETURNING id, name, document, created_at`,
    [id, tuneId, name, JSON.stringify(tune)],
  );
  return toVersion(rows[0]!);
}

/** Whether there was such a version to take away. */
export async function deleteVersion(db: Queryable, tuneId: string, id: string): Promise<boolean> {
  const { rowCount } = await db.query('DELETE FROM tune_versions WHERE tune_id = $1 AND id = $2', [tuneId, id]);
  return rowCount === 1;
}
