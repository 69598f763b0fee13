import type { TuneRecord } from '#contract/tunes';
import type { Tune } from '#core/tune';
import { FIGURE_NAMES, FIGURE_RECORD, UNCOUNTED } from '../counting/figures';
import type { Queryable } from '../db';
import { withDocument } from '../documentJson';
import type { TuneToKeep } from './countNow';
import { HEAD_NAMES, HEAD_RECORD, type TuneHead } from './tuneHead';

export async function countTunes(db: Queryable): Promise<number> {
  const { rows } = await db.query<{ count: number }>('SELECT count(*)::integer AS count FROM tunes');
  return rows[0]!.count;
}

interface RecordRow {
  id: string;
  revision: number;
  document: string;
  updated_at: Date;
  has_source: boolean;
}

const fieldsOf = (row: RecordRow): Omit<TuneRecord, 'tune'> => ({
  id: row.id,
  revision: row.revision,
  updatedAt: row.updated_at.toISOString(),
  hasSource: row.has_source,
});

async function findRow(db: Queryable, id: string): Promise<RecordRow | null> {
  const { rows } = await db.query<RecordRow>(
    `SELECT id, revision, document::text, updated_at,
            EXISTS (SELECT 1 FROM tune_sources WHERE tune_id = tunes.id) AS has_source
       FROM tunes
      WHERE id = $1`,
    [id],
  );
  return rows[0] ?? null;
}

export async function findTuneById(db: Queryable, id: string): Promise<TuneRecord | null> {
  const row = await findRow(db, id);
  return row && { ...fieldsOf(row), tune: JSON.parse(row.document) as Tune };
}

/** A tune's record as JSON. */
export async function findTuneJson(db: Queryable, id: string): Promise<string | null> {
  const row = await findRow(db, id);
  return row && withDocument(fieldsOf(row), 'tune', row.document);
}

/** Values of the figures as JSON, and of `counted_by`. */
function countedValues({ figures, countedBy }: TuneToKeep): unknown[] {
  return [JSON.stringify(figures ?? UNCOUNTED), figures ? countedBy : null];
}

/** A new tune with its figures and its first revision. */
export async function insertTune(db: Queryable, id: string, tune: TuneToKeep): Promise<void> {
  const { head, document } = tune;
  await db.query(
    `INSERT INTO tunes (id, revision, ${HEAD_NAMES}, ${FIGURE_NAMES}, counted_by, document)
     SELECT $1, 1, head.*, figures.*, $5, $3
       FROM jsonb_to_record($2::jsonb) AS head(${HEAD_RECORD}), jsonb_to_record($4::jsonb) AS figures(${FIGURE_RECORD})`,
    [id, JSON.stringify(head), document, ...countedValues(tune)],
  );
  await replacePrints(db, id, head);
  await insertRevision(db, id, 1, document);
}

/** Replaces a tune if it still is at `baseRevision`; null when it is not, or does not exist. */
export async function updateTune(
  db: Queryable,
  id: string,
  baseRevision: number,
  tune: TuneToKeep,
): Promise<{ revision: number; updatedAt: string } | null> {
  const { head, document } = tune;
  // A tune that came in with hundreds of others has its first revision only in its row.
  await db.query(
    `INSERT INTO tune_revisions (tune_id, revision, document, saved_at)
     SELECT id, revision, document, created_at FROM tunes WHERE id = $1 AND revision = 1
     ON CONFLICT DO NOTHING`,
    [id],
  );
  const { rows } = await db.query<{ revision: number; updated_at: Date }>(
    `UPDATE tunes
        SET revision = revision + 1, (${HEAD_NAMES}) = (SELECT head.* FROM jsonb_to_record($3::jsonb) AS head(${HEAD_RECORD})),
            (${FIGURE_NAMES}) = (SELECT figures.* FROM jsonb_to_record($5::jsonb) AS figures(${FIGURE_RECORD})),
            counted_by = $6, failed_by = NULL, document = $4, updated_at = now()
      WHERE id = $1 AND revision = $2
      RETURNING revision, updated_at`,
    [id, baseRevision, JSON.stringify(head), document, ...countedValues(tune)],
  );
  const row = rows[0];
  if (!row) return null;
  await replacePrints(db, id, head);
  await insertRevision(db, id, row.revision, document);
  return { revision: row.revision, updatedAt: row.updated_at.toISOString() };
}

/** Prints of a tune's melody in place of those it had. */
async function replacePrints(db: Queryable, id: string, { prints }: Pick<TuneHead, 'prints'>): Promise<void> {
  await db.query('DELETE FROM tune_prints WHERE tune_id = $1', [id]);
  await db.query(
    `INSERT INTO tune_prints (tune_id, part, print)
     SELECT $1, part, print FROM jsonb_to_recordset($2::jsonb) AS p(part text, print integer[])`,
    [id, JSON.stringify(prints)],
  );
}

async function insertRevision(db: Queryable, id: string, revision: number, document: string): Promise<void> {
  await db.query('INSERT INTO tune_revisions (tune_id, revision, document) VALUES ($1, $2, $3)', [
    id,
    revision,
    document,
  ]);
}

/** Whether the stored document is this one: a save whose answer was lost comes again. */
export async function isStoredTune(db: Queryable, id: string, document: string): Promise<boolean> {
  const { rows } = await db.query<{ same: boolean }>('SELECT document = $2::jsonb AS same FROM tunes WHERE id = $1', [
    id,
    document,
  ]);
  return rows[0]?.same ?? false;
}

export async function insertSource(db: Queryable, id: string, fileName: string | null, source: string): Promise<void> {
  await db.query('INSERT INTO tune_sources (tune_id, file_name, source) VALUES ($1, $2, $3)', [id, fileName, source]);
}

/** What a tune was read from: its own text, or the whole file it came in. */
export type TuneSource = { readonly fileName: string | null } & ({ readonly text: string } | { readonly file: Buffer });

export async function findSource(db: Queryable, id: string): Promise<TuneSource | null> {
  const { rows } = await db.query<{ file_name: string | null; source: string | null; original: Buffer | null }>(
    `SELECT tune_sources.file_name, source, CASE WHEN source IS NULL THEN original END AS original
       FROM tune_sources LEFT JOIN imports ON imports.id = import_id
      WHERE tune_id = $1`,
    [id],
  );
  const row = rows[0];
  if (!row) return null;
  if (row.source !== null) return { fileName: row.file_name, text: row.source };
  return row.original === null ? null : { fileName: row.file_name, file: row.original };
}
