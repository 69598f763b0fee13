import type { Counting } from '#contract/book';
import type { Queryable } from '../db';
import { HEAD_NAMES, HEAD_RECORD, type TuneHead } from '../tunes/tuneHead';
import { FIGURE_NAMES, FIGURE_RECORD, type TuneFigures } from './figures';

/** A tune as it stands to be counted. */
export interface UncountedTune {
  readonly id: string;
  readonly revision: number;
  readonly document: string;
}

/** What counting makes of a tune. */
export interface CountedTune {
  readonly head: TuneHead;
  readonly figures: TuneFigures;
}

/** A tune is not tried more often with the same settings. */
export const MAX_TRIES = 3;
/** The tune was given up with the settings `$1`. */
const GIVEN_UP = `(failed_by IS NOT DISTINCT FROM $1 AND count_tries >= ${MAX_TRIES})`;

/** Tunes whose figures are not those of a key, without those that were given up. */
export async function listUncounted(db: Queryable, key: string, limit: number): Promise<UncountedTune[]> {
  const { rows } = await db.query<UncountedTune>(
    `(SELECT id, revision, document::text FROM tunes WHERE counted_by IS NULL AND NOT ${GIVEN_UP} LIMIT $2)
     UNION ALL
     (SELECT id, revision, document::text FROM tunes WHERE counted_by < $1 AND NOT ${GIVEN_UP} LIMIT $2)
     UNION ALL
     (SELECT id, revision, document::text FROM tunes WHERE counted_by > $1 AND NOT ${GIVEN_UP} LIMIT $2)
     LIMIT $2`,
    [key, limit],
  );
  return rows;
}

/** The first tunes of the book by title. */
export async function listFirstTunes(db: Queryable, limit: number): Promise<UncountedTune[]> {
  const { rows } = await db.query<UncountedTune>(
    'SELECT id, revision, document::text FROM tunes WHERE removed_at IS NULL ORDER BY title_order(title), id LIMIT $1',
    [limit],
  );
  return rows;
}

/** Keeps with a tune that it could not be counted, and why. */
export async function keepFailure(
  db: Queryable,
  key: string,
  { id, revision }: Pick<UncountedTune, 'id' | 'revision'>,
  why: string,
): Promise<void> {
  await db.query(
    `UPDATE tunes SET count_tries = CASE WHEN failed_by = $3 THEN count_tries + 1 ELSE 1 END, failed_by = $3, failed_why = left($4, 300)
      WHERE id = $1 AND revision = $2`,
    [id, revision, key, why],
  );
}

/** How many tunes are still to be counted, of how many, and how many were given up. */
export async function countUncounted(db: Queryable, key: string): Promise<Counting> {
  const { rows } = await db.query<Counting>(
    `SELECT count(*) FILTER (WHERE counted_by IS DISTINCT FROM $1 AND NOT ${GIVEN_UP})::integer AS left,
            count(*) FILTER (WHERE counted_by IS DISTINCT FROM $1 AND ${GIVEN_UP})::integer AS "givenUp",
            count(*)::integer AS tunes FROM tunes`,
    [key],
  );
  return rows[0]!;
}

/** Keeps what was counted, unless a tune was saved meanwhile: that save counted it itself. */
export async function keepCounted(
  db: Queryable,
  key: string,
  counted: readonly (UncountedTune & CountedTune)[],
): Promise<void> {
  const rows = counted.map(({ id, revision, head, figures }) => ({ id, revision, head, figures, prints: head.prints }));
  await db.query(
    `WITH counted AS (
       SELECT * FROM jsonb_to_recordset($2::jsonb) AS c(id uuid, revision integer, head jsonb, figures jsonb, prints jsonb)
     ), kept AS (
       UPDATE tunes
          SET (${HEAD_NAMES}) = (SELECT h.* FROM jsonb_to_record(counted.head) AS h(${HEAD_RECORD})),
              (${FIGURE_NAMES}) = (SELECT f.* FROM jsonb_to_record(counted.figures) AS f(${FIGURE_RECORD})),
              counted_by = $1
         FROM counted
        WHERE tunes.id = counted.id AND tunes.revision = counted.revision
       RETURNING tunes.id, counted.prints
     )
     INSERT INTO tune_prints (tune_id, part, print)
     SELECT kept.id, p.part, p.print FROM kept, jsonb_to_recordset(kept.prints) AS p(part text, print integer[])
     ON CONFLICT (tune_id, part) DO UPDATE SET print = excluded.print`,
    [key, JSON.stringify(rows)],
  );
}
