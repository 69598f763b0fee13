import type { Queryable } from './db';

/** Tables that hold one document, saved as a whole on the revision that was kept last. */
type RevisedTable = 'player_settings' | 'pegs' | 'sets';

interface RevisedRow {
  readonly revision: number;
  readonly document: unknown;
}

/** The document that is kept; null where none is. */
export async function findRevised(db: Queryable, table: RevisedTable): Promise<RevisedRow | null> {
  const { rows } = await db.query<RevisedRow>(`SELECT revision, document FROM ${table}`);
  return rows[0] ?? null;
}

/**
 * Replaces the document if it still is at `baseRevision`, 0 where none is kept.
 * @returns its new revision; null where it is at another
 */
export async function saveRevised(
  db: Queryable,
  table: RevisedTable,
  baseRevision: number,
  document: object,
): Promise<number | null> {
  const text = JSON.stringify(document);
  const { rows } = await db.query<{ revision: number }>(
    baseRevision === 0
      ? `INSERT INTO ${table} (document) VALUES ($1) ON CONFLICT DO NOTHING RETURNING revision`
      : `UPDATE ${table} SET revision = revision + 1, document = $1, updated_at = now()
          WHERE revision = $2 RETURNING revision`,
    baseRevision === 0 ? [text] : [text, baseRevision],
  );
  return rows[0]?.revision ?? null;
}
