import { randomUUID } from 'node:crypto';
import type { FinishImport, ImportFinished, ImportState } from '#contract/imports';
import type { Queryable } from '../db';
import type { ReadPiece } from '../jobs/readBodies';
import { HEAD_NAMES, HEAD_RECORD } from '../tunes/tuneHead';

/** An import that was begun and left is forgotten after this. */
const KEPT_HOURS = 24;

export async function insertImport(db: Queryable, fileName: string): Promise<string> {
  const id = randomUUID();
  await db.query('INSERT INTO imports (id, file_name) VALUES ($1, $2)', [id, fileName]);
  return id;
}

export async function keepOriginal(db: Queryable, id: string, bytes: Buffer): Promise<boolean> {
  const { rowCount } = await db.query('UPDATE imports SET original = $2 WHERE id = $1 AND finished_at IS NULL', [
    id,
    bytes,
  ]);
  return rowCount === 1;
}

export async function findImport(db: Queryable, id: string): Promise<ImportState | null> {
  const { rows } = await db.query<ImportState>(
    `SELECT id, file_name AS "fileName", finished_at IS NOT NULL AS "isFinished",
            (SELECT count(*)::integer FROM import_tunes WHERE import_id = imports.id) AS arrived
       FROM imports WHERE id = $1`,
    [id],
  );
  return rows[0] ?? null;
}

/** Lays tunes of an open import ready, in one statement; a piece that comes again takes the place of the first. */
export async function keepPiece(db: Queryable, id: string, { from, tunes }: ReadPiece): Promise<boolean> {
  const values: unknown[] = [id];
  const rows = tunes.map(({ head, document, source }, i) => {
    const at = values.push(from + i, randomUUID(), JSON.stringify(head), source ?? null, document);
    const place = (back: number, type: string) => `$${at - back}::${type}`;
    return `(${place(4, 'integer')}, ${place(3, 'uuid')}, ${place(2, 'jsonb')}, ${place(1, 'text')}, ${place(0, 'jsonb')})`;
  });
  // Rows of values: the same as arrays take four times as long to be read.
  const { rowCount } = await db.query(
    `INSERT INTO import_tunes (import_id, position, tune_id, head, source, document)
     SELECT $1, piece.* FROM (VALUES ${rows.join(', ')}) AS piece
      WHERE EXISTS (SELECT 1 FROM imports WHERE id = $1 AND finished_at IS NULL)
     ON CONFLICT (import_id, position) DO UPDATE
        SET head = excluded.head, source = excluded.source, document = excluded.document`,
    values,
  );
  return rowCount === tunes.length;
}

/** The first place of an import at which nothing arrived; null where all is there. */
export async function findMissing(db: Queryable, id: string, expected: number): Promise<number | null> {
  const { rows } = await db.query<{ missing: number }>(
    `SELECT place AS missing FROM generate_series(0, $2 - 1) AS place
      WHERE NOT EXISTS (SELECT 1 FROM import_tunes WHERE import_id = $1 AND position = place)
      ORDER BY place LIMIT 1`,
    [id, expected],
  );
  return rows[0]?.missing ?? null;
}

/** What finishing answered the first time; null where an import is open, or there is none. */
export async function findOutcome(db: Queryable, id: string): Promise<ImportFinished | null> {
  const { rows } = await db.query<{ outcome: ImportFinished | null }>('SELECT outcome FROM imports WHERE id = $1', [
    id,
  ]);
  return rows[0]?.outcome ?? null;
}

/**
 * Moves what was laid ready into the book, in the caller's transaction: tunes of their own with their prints and sources,
 * settings to the tunes they join. A setting whose tune is gone meanwhile becomes a tune of its own. Figures are counted
 * later. Null: the import is finished already or there is no such.
 */
export async function finishImport(
  db: Queryable,
  id: string,
  { leftOut, joins }: FinishImport,
): Promise<ImportFinished | null> {
  const { rowCount } = await db.query('UPDATE imports SET finished_at = now() WHERE id = $1 AND finished_at IS NULL', [
    id,
  ]);
  if (rowCount === 0) return null;
  if (leftOut.length > 0)
    await db.query('DELETE FROM import_tunes WHERE import_id = $1 AND position = ANY($2::integer[])', [id, leftOut]);
  const settings =
    joins.length === 0
      ? 0
      : await moveSettings(
          db,
          id,
          joins.map(({ at }) => at),
          joins.map(({ tune }) => tune),
        );
  const { rows } = await db.query<{ id: string }>(
    `INSERT INTO tunes (id, revision, ${HEAD_NAMES}, flipped_parts, document)
     SELECT tune_id, 1, head.*, '{}', document
       FROM import_tunes, jsonb_to_record(head) AS head(${HEAD_RECORD})
      WHERE import_id = $1
      ORDER BY position
     RETURNING id`,
    [id],
  );
  await db.query(
    `INSERT INTO tune_prints (tune_id, part, print)
     SELECT tune_id, p.part, p.print
       FROM import_tunes, jsonb_to_recordset(head -> 'prints') AS p(part text, print integer[])
      WHERE import_id = $1`,
    [id],
  );
  await db.query(
    `INSERT INTO tune_sources (tune_id, file_name, source, import_id)
     SELECT tune_id, file_name, source, imports.id FROM import_tunes JOIN imports ON imports.id = import_id
      WHERE import_id = $1 AND (source IS NOT NULL OR original IS NOT NULL)`,
    [id],
  );
  await db.query('DELETE FROM import_tunes WHERE import_id = $1', [id]);
  const outcome: ImportFinished = { tunes: rows.length, settings, first: rows[0]?.id ?? null };
  await db.query('UPDATE imports SET outcome = $2 WHERE id = $1', [id, JSON.stringify(outcome)]);
  return outcome;
}

/** Tunes that are settings of others become versions of those; returns how many. */
async function moveSettings(
  db: Queryable,
  id: string,
  places: readonly number[],
  tunes: readonly string[],
): Promise<number> {
  const { rowCount } = await db.query(
    `WITH moved AS (
       DELETE FROM import_tunes USING unnest($2::integer[], $3::uuid[]) AS joining(at, tune)
        WHERE import_id = $1 AND position = at AND EXISTS (SELECT 1 FROM tunes WHERE tunes.id = joining.tune)
       RETURNING tune_id, joining.tune, head, document
     )
     INSERT INTO tune_versions (id, tune_id, name, document, kind, note)
     SELECT tune_id, tune, left(head ->> 'title', 120), document, 'setting', 'from ' || file_name
       FROM moved, imports WHERE imports.id = $1`,
    [id, places, tunes],
  );
  return rowCount ?? 0;
}

/** Whether there was an open import to give up. */
export async function deleteImport(db: Queryable, id: string): Promise<boolean> {
  const { rowCount } = await db.query('DELETE FROM imports WHERE id = $1 AND finished_at IS NULL', [id]);
  return rowCount === 1;
}

/** Finished imports whose original no tune needs any more; their answer was asked for again long since. */
export async function forgetOriginals(db: Queryable): Promise<number> {
  const { rowCount } = await db.query(
    `DELETE FROM imports WHERE finished_at < now() - make_interval(hours => $1)
        AND NOT EXISTS (SELECT 1 FROM tune_sources WHERE import_id = imports.id)`,
    [KEPT_HOURS],
  );
  return rowCount ?? 0;
}

/** Imports that were begun long ago and never finished. */
export async function deleteStaleImports(db: Queryable): Promise<number> {
  const { rowCount } = await db.query(
    'DELETE FROM imports WHERE finished_at IS NULL AND begun_at < now() - make_interval(hours => $1)',
    [KEPT_HOURS],
  );
  return rowCount ?? 0;
}
