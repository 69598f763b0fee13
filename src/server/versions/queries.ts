import type { ChangeVersion, TuneVersion, VersionOrigin } from '#contract/versions';
import type { Tune } from '#core/tune';
import type { Queryable } from '../db';
import { withDocument } from '../documentJson';

interface VersionRow {
  id: string;
  name: string;
  document: string;
  created_at: Date;
  kind: TuneVersion['kind'];
  taught_by: string;
  learned_on: string | null;
  note: string;
  revision: number;
}

/** A day stays a day, wherever the server stands. */
const COLUMNS =
  "id, name, document::text, created_at, kind, taught_by, to_char(learned_on, 'YYYY-MM-DD') AS learned_on, note, revision";

const fieldsOf = (row: VersionRow): Omit<TuneVersion, 'tune'> => ({
  id: row.id,
  name: row.name,
  createdAt: row.created_at.toISOString(),
  kind: row.kind,
  taughtBy: row.taught_by,
  learnedOn: row.learned_on,
  note: row.note,
  revision: row.revision,
});
const toVersion = (row: VersionRow): TuneVersion => ({ ...fieldsOf(row), tune: JSON.parse(row.document) as Tune });

/** The named versions of a tune as JSON, the newest first. */
export async function listVersions(db: Queryable, tuneId: string): Promise<string> {
  const { rows } = await db.query<VersionRow>(
    `SELECT ${COLUMNS} FROM tune_versions WHERE tune_id = $1 ORDER BY created_at DESC, id LIMIT 100`,
    [tuneId],
  );
  return `[${rows.map((row) => withDocument(fieldsOf(row), 'tune', row.document)).join(',')}]`;
}

/**
 * How many versions a tune has and their letters together, in the caller's transaction; nobody else adds one until its end.
 * null: there is no such tune.
 */
export async function countVersions(
  db: Queryable,
  tuneId: string,
): Promise<{ readonly count: number; readonly letters: number } | null> {
  const { rowCount } = await db.query('SELECT FROM tunes WHERE id = $1 FOR UPDATE', [tuneId]);
  if (rowCount === 0) return null;
  const { rows } = await db.query<{ count: number; letters: number }>(
    'SELECT count(*)::integer AS count, coalesce(sum(length(document::text)), 0)::integer AS letters FROM tune_versions WHERE tune_id = $1',
    [tuneId],
  );
  return rows[0]!;
}

export async function findVersion(db: Queryable, tuneId: string, id: string): Promise<TuneVersion | null> {
  const { rows } = await db.query<VersionRow>(`SELECT ${COLUMNS} FROM tune_versions WHERE tune_id = $1 AND id = $2`, [
    tuneId,
    id,
  ]);
  return rows[0] ? toVersion(rows[0]) : null;
}

export async function insertVersion(
  db: Queryable,
  version: VersionOrigin & { id: string; tuneId: string; name: string; document: string },
): Promise<TuneVersion> {
  const { rows } = await db.query<VersionRow>(
    `INSERT INTO tune_versions (id, tune_id, name, document, kind, taught_by, learned_on, note)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8)
     RETURNING ${COLUMNS}`,
    [
      version.id,
      version.tuneId,
      version.name,
      version.document,
      version.kind,
      version.taughtBy,
      version.learnedOn,
      version.note,
    ],
  );
  return toVersion(rows[0]!);
}

/** The version with another name or origin; null where it is not at `baseRevision`, or there is none. */
export async function updateVersion(
  db: Queryable,
  tuneId: string,
  id: string,
  { baseRevision, name, kind, taughtBy, learnedOn, note }: ChangeVersion,
): Promise<TuneVersion | null> {
  const { rows } = await db.query<VersionRow>(
    `UPDATE tune_versions SET name = $3, kind = $4, taught_by = $5, learned_on = $6, note = $7, revision = revision + 1
      WHERE tune_id = $1 AND id = $2 AND revision = $8
      RETURNING ${COLUMNS}`,
    [tuneId, id, name, kind, taughtBy, learnedOn, note, baseRevision],
  );
  return rows[0] ? toVersion(rows[0]) : null;
}

/** Whether there was such a version to take away. */
export async function deleteVersion(db: Queryable, tuneId: string, id: string): Promise<boolean> {
  const { rowCount } = await db.query('DELETE FROM tune_versions WHERE tune_id = $1 AND id = $2', [tuneId, id]);
  return rowCount === 1;
}
