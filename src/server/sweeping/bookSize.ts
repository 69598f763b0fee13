import type { BookSize } from '#contract/bookSize';
import type { Queryable } from '../db';

/** What the book takes on the disk, with indexes. */
export async function bookSize(db: Queryable): Promise<BookSize> {
  const { rows } = await db.query<Record<keyof BookSize, string>>(
    `SELECT pg_total_relation_size('tunes') + pg_total_relation_size('tune_prints') + pg_total_relation_size('book_words') AS tunes,
            pg_total_relation_size('tune_revisions') + pg_total_relation_size('tune_versions') AS revisions,
            pg_total_relation_size('imports') + pg_total_relation_size('import_tunes') + pg_total_relation_size('tune_sources') AS originals,
            pg_database_size(current_database()) AS whole`,
  );
  const { tunes, revisions, originals, whole } = rows[0]!;
  return {
    tunes: Number(tunes),
    revisions: Number(revisions),
    originals: Number(originals),
    whole: Number(whole),
  };
}
