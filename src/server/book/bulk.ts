import { randomUUID } from 'node:crypto';
import type { BulkDeed, TuneChoice } from '#contract/book';
import type { Queryable } from '../db';
import { filterConditions } from './filterSql';

/** Bulk changes that can be taken back; older ones are forgotten. */
const MAX_KEPT = 50;

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
 * Changes many tunes at once, in the caller's transaction, and keeps what each had before. A tune that is already so is left alone.
 * Tags, practice and removal are no part of the document: its revision stays.
 */
export async function changeTunes(
  client: Queryable,
  choice: TuneChoice,
  deed: BulkDeed,
  now: Date,
): Promise<{ changed: number; undo: string }> {
  const { set, changes } = DEEDS[deed.kind];
  const value = valueOf(deed, now);
  const chosen = chosenTunes(choice, 2);
  const { rows } = await client.query<{ before: object[] | null }>(
    `WITH chosen AS (
       SELECT id, tags, practised_at, removed_at FROM tunes WHERE ${chosen.where} AND ${changes} ORDER BY id FOR UPDATE
     ), changed AS (
       UPDATE tunes SET ${set} FROM chosen WHERE tunes.id = chosen.id RETURNING tunes.id
     )
     SELECT jsonb_agg(to_jsonb(chosen)) AS before FROM chosen WHERE id IN (SELECT id FROM changed)`,
    [value, ...chosen.values],
  );
  const before = rows[0]?.before ?? [];
  const undo = randomUUID();
  await client.query('INSERT INTO bulk_changes (id, kind, value, before) VALUES ($1, $2, $3, $4)', [
    undo,
    deed.kind,
    value,
    JSON.stringify(before),
  ]);
  await client.query(
    'DELETE FROM bulk_changes WHERE id NOT IN (SELECT id FROM bulk_changes ORDER BY made_at DESC LIMIT $1)',
    [MAX_KEPT],
  );
  return { changed: before.length, undo };
}

/**
 * How a deed is taken back from tunes that still are as it left them, with `was` for what each had before and `$2` for what
 * was set: tags that came or went meanwhile, a later day of practice and a later removal stay.
 */
const UNDEEDS: Readonly<Record<BulkDeed['kind'], { readonly set: string; readonly isStillSo: string }>> = {
  tag: { set: 'tags = array_remove(tunes.tags, $2::text)', isStillSo: 'tunes.tags @> ARRAY[$2::text]' },
  untag: { set: 'tags = array_append(tunes.tags, $2::text)', isStillSo: 'NOT tunes.tags @> ARRAY[$2::text]' },
  practised: { set: 'practised_at = was.practised_at', isStillSo: 'tunes.practised_at = $2::timestamptz' },
  remove: { set: 'removed_at = NULL', isStillSo: 'tunes.removed_at = $2::timestamptz' },
  'bring-back': {
    set: 'removed_at = was.removed_at',
    isStillSo: 'tunes.removed_at IS NULL AND $2::text IS NULL',
  },
};

/**
 * Takes from each tune of a bulk change what the change set, where it still is so; null: there is no such change any more.
 * Returns how many tunes were changed.
 */
export async function takeBack(db: Queryable, id: string): Promise<number | null> {
  const { rows } = await db.query<{ kind: BulkDeed['kind']; value: string | null; before: object[] }>(
    'DELETE FROM bulk_changes WHERE id = $1 RETURNING kind, value, before',
    [id],
  );
  const change = rows[0];
  // What was changed before it was kept what was set cannot be told from what came later.
  if (!change || (change.value === null && change.kind !== 'bring-back')) return null;
  const { set, isStillSo } = UNDEEDS[change.kind];
  const { rowCount } = await db.query(
    `WITH was AS (
       SELECT was.* FROM jsonb_to_recordset($1::jsonb) AS was(id uuid, practised_at timestamptz, removed_at timestamptz)
         JOIN tunes ON tunes.id = was.id ORDER BY tunes.id FOR UPDATE OF tunes
     )
     UPDATE tunes SET ${set} FROM was WHERE tunes.id = was.id AND ${isStillSo}`,
    [JSON.stringify(change.before), change.value],
  );
  return rowCount ?? 0;
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

/** Tunes that were taken out of the book by then, gone for good: those taken out later were not seen by who asks. */
export async function deleteRemoved(db: Queryable, by: string): Promise<number> {
  const { rowCount } = await db.query('DELETE FROM tunes WHERE removed_at <= $1::timestamptz', [by]);
  return rowCount ?? 0;
}
