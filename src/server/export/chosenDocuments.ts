import type { TuneChoice } from '#contract/book';
import { chosenTunes } from '../book/bulk';
import type { Queryable } from '../db';

/** A tune as the text that is kept. */
export interface ChosenTune {
  readonly title: string;
  readonly document: string;
}

/** Documents fetched at once. */
const BATCH = 50;

/** The chosen tunes by title, or in the order they are named, each once; a batch in memory at a time. */
export async function* chosenDocuments(db: Queryable, choice: TuneChoice): AsyncGenerator<ChosenTune> {
  if ('ids' in choice && choice.inOrder) {
    const ids = [...new Set(choice.ids)];
    for (let from = 0; from < ids.length; from += BATCH) {
      const batch = ids.slice(from, from + BATCH);
      yield* await fetchRows(
        db,
        `SELECT id, title, document::text FROM tunes WHERE id = ANY($1::uuid[]) ORDER BY array_position($1::uuid[], id)`,
        [batch],
      );
    }
    return;
  }
  const { where, values } = chosenTunes(choice, 1);
  const at = values.length;
  let after: readonly [title: string, id: string] | null = null;
  for (;;) {
    const cursor = after ? `AND (title_order(title), id) > ($${at + 2}, $${at + 3}::uuid)` : '';
    const rows: Row[] = await fetchRows(
      db,
      `SELECT id, title, title_order(title) AS sort_title, document::text FROM tunes
        WHERE ${where} ${cursor} ORDER BY title_order(title), id LIMIT $${at + 1}`,
      [...values, BATCH, ...(after ?? [])],
    );
    for (const { title, document } of rows) yield { title, document };
    const last = rows[rows.length - 1];
    if (rows.length < BATCH || !last) return;
    after = [last.sort_title!, last.id];
  }
}

interface Row extends ChosenTune {
  readonly id: string;
  /** Left out where tunes come in an order of their own. */
  readonly sort_title?: string;
}

async function fetchRows(db: Queryable, text: string, values: readonly unknown[]): Promise<Row[]> {
  return (await db.query<Row>(text, [...values])).rows;
}
