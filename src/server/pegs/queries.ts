import { DEFAULT_PEGS, type Pegs, type PegsRecord, pegsSchema } from '#contract/pegs';
import type { Queryable } from '../db';

/** Fiddles and tunings as they are kept, or one fiddle as usual where none is. */
export async function findPegs(db: Queryable): Promise<PegsRecord> {
  const { rows } = await db.query<{ revision: number; document: unknown }>('SELECT revision, document FROM pegs');
  const row = rows[0];
  return row ? { revision: row.revision, pegs: pegsSchema.parse(row.document) } : { revision: 0, pegs: DEFAULT_PEGS };
}

/** Replaces them if they still are at `baseRevision`; null when they are not. */
export async function savePegs(db: Queryable, baseRevision: number, pegs: Pegs): Promise<number | null> {
  const document = JSON.stringify(pegs);
  const { rows } = await db.query<{ revision: number }>(
    baseRevision === 0
      ? `INSERT INTO pegs (document) VALUES ($1) ON CONFLICT DO NOTHING RETURNING revision`
      : `UPDATE pegs SET revision = revision + 1, document = $1, updated_at = now()
          WHERE revision = $2 RETURNING revision`,
    baseRevision === 0 ? [document] : [document, baseRevision],
  );
  return rows[0]?.revision ?? null;
}
