import { randomUUID } from 'node:crypto';
import type { PlayerSettings } from '#core/report';
import type { ImportFinished, ImportPiece, ImportState } from '#contract/imports';
import type { Queryable } from '../db';
import { HEAD_NAMES, HEAD_RECORD, tuneHead } from '../tunes/tuneHead';

/** An import that was begun and left is forgotten after this. */
const KEPT_HOURS = 24;

export async function insertImport(db: Queryable, fileName: string, expected: number): Promise<string> {
  const id = randomUUID();
  await db.query('INSERT INTO imports (id, file_name, expected) VALUES ($1, $2, $3)', [id, fileName, expected]);
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
    `SELECT id, file_name AS "fileName", expected, finished_at IS NOT NULL AS "isFinished",
            (SELECT count(*)::integer FROM import_tunes WHERE import_id = imports.id) AS arrived
       FROM imports WHERE id = $1`,
    [id],
  );
  return rows[0] ?? null;
}

/** Lays tunes of an open import ready, in one statement; a piece that comes again takes the place of the first. */
export async function keepPiece(
  db: Queryable,
  id: string,
  { from, tunes }: ImportPiece,
  settings: Pick<PlayerSettings, 'bands'>,
): Promise<boolean> {
  const values: unknown[] = [id];
  const rows = tunes.map(({ tune, source, joins }, i) => {
    const at = values.push(
      from + i,
      randomUUID(),
      joins ?? null,
      JSON.stringify(tuneHead(tune, settings)),
      source ?? null,
      JSON.stringify(tune),
    );
    const place = (back: number, type: string) => `$${at - back}::${type}`;
    return `(${place(5, 'integer')}, ${place(4, 'uuid')}, ${place(3, 'uuid')}, ${place(2, 'jsonb')}, ${place(1, 'text')}, ${place(0, 'jsonb')})`;
  });
  // Rows of values: the same as arrays take four times as long to be read.
  const { rowCount } = await db.query(
    `INSERT INTO import_tunes (import_id, position, tune_id, joins, head, source, document)
     SELECT $1, piece.* FROM (VALUES ${rows.join(', ')}) AS piece
      WHERE EXISTS (SELECT 1 FROM imports WHERE id = $1 AND finished_at IS NULL)
     ON CONFLICT (import_id, position) DO UPDATE
        SET joins = excluded.joins, head = excluded.head, source = excluded.source, document = excluded.document`,
    values,
  );
  return rowCount === tunes.length;
}

/** The first place of an import at which nothing arrived; null where all is there. */
export async function findMissing(db: Queryable, id: string): Promise<number | null> {
  const { rows } = await db.query<{ missing: number }>(
    `SELECT place AS missing FROM imports, generate_series(0, expected - 1) AS place
      WHERE id = $1 AND NOT EXISTS (SELECT 1 FROM import_tunes WHERE import_id = $1 AND position = place)
      ORDER BY place LIMIT 1`,
    [id],
  );
  return rows[0]?.missing ?? null;
}

/**
 * Moves everything that was laid ready into the book, in the caller's transaction: tunes of their own with their prints
 * and sources, settings to the tunes they join. A setting whose tune is gone meanwhile becomes a tune of its own. Figures
 * are counted later. Null: the import is finished already or there is no such.
 */
export async function finishImport(db: Queryable, id: string): Promise<ImportFinished | null> {
  const { rowCount } = await db.query('UPDATE imports SET finished_at = now() WHERE id = $1 AND finished_at IS NULL', [
    id,
  ]);
  if (rowCount === 0) return null;
  const OWN = '(joins IS NULL OR NOT EXISTS (SELECT 1 FROM tunes WHERE tunes.id = joins))';
  const own = await db.query<{ id: string; position: number }>(
    `WITH added AS (
       INSERT INTO tunes (id, revision, ${HEAD_NAMES}, flipped_parts, document)
       SELECT tune_id, 1, head.*, '{}', document
         FROM import_tunes, jsonb_to_record(head) AS head(${HEAD_RECORD})
        WHERE import_id = $1 AND ${OWN}
       RETURNING id
     )
     SELECT tune_id AS id, position FROM import_tunes WHERE import_id = $1 AND ${OWN} ORDER BY position`,
    [id],
  );
  const ids = own.rows.map((row) => row.id);
  await db.query(
    `INSERT INTO tune_prints (tune_id, part, print)
     SELECT tune_id, p.part, p.print
       FROM import_tunes, jsonb_to_recordset(head -> 'prints') AS p(part text, print integer[])
      WHERE import_id = $1 AND tune_id = ANY($2::uuid[])`,
    [id, ids],
  );
  await db.query(
    `INSERT INTO tune_sources (tune_id, file_name, source, import_id)
     SELECT tune_id, file_name, source, imports.id FROM import_tunes JOIN imports ON imports.id = import_id
      WHERE import_id = $1 AND tune_id = ANY($2::uuid[]) AND (source IS NOT NULL OR original IS NOT NULL)`,
    [id, ids],
  );
  const settings = await db.query(
    `INSERT INTO tune_versions (id, tune_id, name, document, kind, note)
     SELECT tune_id, joins, left(head ->> 'title', 120), document, 'setting', 'from ' || file_name
       FROM import_tunes JOIN imports ON imports.id = import_id
      WHERE import_id = $1 AND NOT tune_id = ANY($2::uuid[])`,
    [id, ids],
  );
  await db.query('DELETE FROM import_tunes WHERE import_id = $1', [id]);
  return { tunes: ids.length, settings: settings.rowCount ?? 0, first: ids[0] ?? null };
}

/** Whether there was an open import to give up. */
export async function deleteImport(db: Queryable, id: string): Promise<boolean> {
  const { rowCount } = await db.query('DELETE FROM imports WHERE id = $1 AND finished_at IS NULL', [id]);
  return rowCount === 1;
}

/** Imports that were begun long ago and never finished. */
export async function deleteStaleImports(db: Queryable): Promise<number> {
  const { rowCount } = await db.query(
    'DELETE FROM imports WHERE finished_at IS NULL AND begun_at < now() - make_interval(hours => $1)',
    [KEPT_HOURS],
  );
  return rowCount ?? 0;
}
