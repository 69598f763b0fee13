import type { Tune } from '#core/tune';
import type { TuneChoice } from '#contract/book';
import type { Queryable } from '../db';
import { chosenTunes } from '../book/bulk';

/** Documents fetched at once. */
const BATCH = 50;

/** The chosen tunes by title, a batch in memory at a time. */
export async function* chosenDocuments(db: Queryable, choice: TuneChoice): AsyncGenerator<{ id: string; tune: Tune }> {
  const { where, values } = chosenTunes(choice, 1);
  const at = values.length;
  let after: readonly [title: string, id: string] | null = null;
  for (;;) {
    const cursor = after ? `AND (lower(title), id) > ($${at + 2}, $${at + 3}::uuid)` : '';
    const rows: Row[] = await fetchRows(
      db,
      `SELECT id, lower(title) AS sort_title, document FROM tunes
        WHERE ${where} ${cursor} ORDER BY lower(title), id LIMIT $${at + 1}`,
      [...values, BATCH, ...(after ?? [])],
    );
    for (const { id, document } of rows) yield { id, tune: document };
    const last = rows[rows.length - 1];
    if (rows.length < BATCH || !last) return;
    after = [last.sort_title, last.id];
  }
}

interface Row {
  readonly id: string;
  readonly sort_title: string;
  readonly document: Tune;
}

async function fetchRows(db: Queryable, text: string, values: readonly unknown[]): Promise<Row[]> {
  return (await db.query<Row>(text, [...values])).rows;
}
