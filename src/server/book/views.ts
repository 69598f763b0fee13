import { randomUUID } from 'node:crypto';
import type { z } from 'zod';
import { type BookView, MAX_VIEWS, type nameViewSchema } from '#contract/book';
import type { Queryable } from '../db';

export async function listViews(db: Queryable): Promise<BookView[]> {
  const { rows } = await db.query<BookView>(
    'SELECT id, name, query FROM book_views ORDER BY lower(name), id LIMIT $1',
    [MAX_VIEWS],
  );
  return rows;
}

/** Views are counted and kept by one at a time: a lock held to the end of the transaction. */
const VIEWS_LOCK = 4_710_002;

/**
 * Keeps a view under its name, in place of one that had it, in the caller's transaction; null where there are as many as are
 * kept.
 */
export async function keepView(
  db: Queryable,
  { name, query }: z.output<typeof nameViewSchema>,
): Promise<BookView | null> {
  await db.query('SELECT pg_advisory_xact_lock($1)', [VIEWS_LOCK]);
  const { rows } = await db.query<BookView>(
    `INSERT INTO book_views (id, name, query)
     SELECT $1, $2, $3
      WHERE (SELECT count(*) FROM book_views) < $4 OR EXISTS (SELECT 1 FROM book_views WHERE name = $2)
     ON CONFLICT (name) DO UPDATE SET query = excluded.query
     RETURNING id, name, query`,
    [randomUUID(), name, JSON.stringify(query), MAX_VIEWS],
  );
  return rows[0] ?? null;
}

export async function deleteView(db: Queryable, id: string): Promise<boolean> {
  const { rowCount } = await db.query('DELETE FROM book_views WHERE id = $1', [id]);
  return rowCount === 1;
}
