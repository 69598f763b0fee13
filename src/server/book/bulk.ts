import { randomUUID } from 'node:crypto';
import type { BulkDeed, TuneChoice } from '#contract/book';
import { type Database, type Queryable, inTransaction } from '../db';
import { filterConditions } from './filterSql';

/** Bulk changes that can be taken back; older ones are forgotten. */
const MOST_KEPT = 50;

/** What a deed does to a tune, and which tunes it changes at all; `$1` is its value. */
const DEEDS: Readonly<Record<BulkDeed['kind'], { readonly set: string; readonly changes: string }>> = {
  tag: { set: 'tags = array_append(tunes.tags, $1::text)', changes: 'NOT tags @> ARRAY[$1::text]' },
  untag: { set: 'tags = array_remove(tunes.tags, $1::text)', changes: 'tags @> ARRAY[$1::text]' },
  practised: { set: 'practised_at = $1::timestamptz', changes: 'practised_at IS DISTINCT FROM $1::timestamptz' },
  remove: { set: 'removed_at = $1::timestamptz', changes: 'removed_at IS NULL' },
  'bring-back': { set: 'removed_at = NULL', changes: 'removed_at IS NOT NULL AND $1::text IS NULL' },
};

function valueOf(deed: BulkDeed, now: Date): string | null {
  if (deed.kind === 'tag' || deed.kind === 'untag') return deed.tag;
  if (deed.kind === 'practised') return deed.at;
  return deed.kind === 'remove' ? now.toISOString() : null;
}

/**
 * Changes many tunes at once, all or none, and keeps what each had before. A tune that is already so is left alone.
 * Tags, practice and removal are no part of the document: its revision stays.
 */
export function changeTunes(
  db: Database,
  choice: TuneChoice,
  deed: BulkDeed,
  now: Date,
): Promise<{ changed: number; undo: string }> {
  return inTransaction(db, async (client) => {
    const { set, changes } = DEEDS[deed.kind];
    const chosen = chosenTunes(choice, 2);
    const { rows } = await client.query<{ before: object[] | null }>(
      `WITH chosen AS (
         SELECT id, tags, practised_at, removed_at FROM tunes WHERE ${chosen.where} AND ${changes} FOR UPDATE
       ), changed AS (
         UPDATE tunes SET ${set} FROM chosen WHERE tunes.id = chosen.id RETURNING tunes.id
       )
       SELECT jsonb_agg(to_jsonb(chosen)) AS before FROM chosen WHERE id IN (SELECT id FROM changed)`,
      [valueOf(deed, now), ...chosen.values],
    );
    const before = rows[0]?.before ?? [];
    const undo = randomUUID();
    await client.query('INSERT INTO bulk_changes (id, kind, before) VALUES ($1, $2, $3)', [
      undo,
      deed.kind,
      JSON.stringify(before),
    ]);
    await client.query(
      'DELETE FROM bulk_changes WHERE id NOT IN (SELECT id FROM bulk_changes ORDER BY made_at DESC LIMIT $1)',
      [MOST_KEPT],
    );
    return { changed: before.length, undo };
  });
}

/** Gives each tune of a bulk change back what the change took; null: there is no such change any more. */
export function takeBack(db: Database, id: string): Promise<number | null> {
  return inTransaction(db, async (client) => {
    const { rows } = await client.query<{ kind: BulkDeed['kind']; before: object[] }>(
      'DELETE FROM bulk_changes WHERE id = $1 RETURNING kind, before',
      [id],
    );
    const change = rows[0];
    if (!change) return null;
    const column = {
      tag: 'tags',
      untag: 'tags',
      practised: 'practised_at',
      remove: 'removed_at',
      'bring-back': 'removed_at',
    }[change.kind];
    const { rowCount } = await client.query(
      `UPDATE tunes SET ${column} = was.${column}
         FROM jsonb_to_recordset($1::jsonb)
           AS was(id uuid, tags text[], practised_at timestamptz, removed_at timestamptz)
        WHERE tunes.id = was.id`,
      [JSON.stringify(change.before)],
    );
    return rowCount ?? 0;
  });
}

/** The condition that picks the chosen tunes, with its values numbered from `first`. */
export function chosenTunes(choice: TuneChoice, first: number): { where: string; values: readonly unknown[] } {
  if ('ids' in choice) return { where: `id = ANY($${first}::uuid[])`, values: [choice.ids] };
  const { where, values } = filterConditions(choice.filter);
  const numbered = where.map((condition) =>
    condition.replace(/\$(\d+)/g, (_match, number: string) => `$${Number(number) + first - 1}`),
  );
  return { where: numbered.join(' AND '), values };
}

/** Tunes taken out of the book, gone for good. */
export async function deleteRemoved(db: Queryable): Promise<number> {
  const { rowCount } = await db.query('DELETE FROM tunes WHERE removed_at IS NOT NULL');
  return rowCount ?? 0;
}
