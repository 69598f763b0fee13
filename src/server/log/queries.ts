import type { z } from 'zod';
import {
  type Attempt,
  type historyQuerySchema,
  type LogQuery,
  type LogSum,
  type LogSumsQuery,
  type SpanDay,
  type TunePractice,
  type TunePracticeRecord,
  tunePracticeSchema,
  USUAL_PRACTICE,
} from '#contract/log';
import type { Queryable } from '../db';

/** Attempts on a page where no other number is asked for. */
const PAGE = 100;

interface AttemptRow extends Omit<Attempt, 'at' | 'span'> {
  readonly at: Date;
  readonly part: string;
  readonly from: string;
  readonly to: string;
}

const COLUMNS = `id, at, tune_id AS "tuneId", tune_title AS title, tune_revision AS revision, part, from_note AS "from",
  to_note AS "to", what, drill, layer, way, bpm, wish_bpm AS "wishBpm", clean, wrong, minutes, note, pain, corrects,
  is_withdrawn AS "isWithdrawn"`;

/** Rows that nothing corrects and that take nothing back. */
export const CURRENT = `NOT is_withdrawn AND NOT EXISTS (
  SELECT 1 FROM attempts AS later WHERE later.corrects IS NOT NULL AND later.corrects = attempts.id)`;

const attemptOf = ({ part, from, to, at, ...row }: AttemptRow): Attempt => ({
  ...row,
  at: at.toISOString(),
  span: { part, from, to },
});

/**
 * Puts attempts in, each once, whoever sends it again; the tune then counts as practised on that day. A second correction of
 * the same attempt is left out: the first one stands, and is what can be corrected further.
 * @returns how many were new; the others are settled too
 */
export async function insertAttempts(db: Queryable, attempts: readonly Attempt[]): Promise<number> {
  const rows = attempts.map(({ span, ...attempt }) => ({ ...attempt, ...span }));
  const { rowCount } = await db.query(
    `INSERT INTO attempts (id, at, tune_id, tune_title, tune_revision, part, from_note, to_note, what, drill, layer, way,
                           bpm, wish_bpm, clean, wrong, minutes, note, pain, corrects, is_withdrawn)
     SELECT id, at, "tuneId", title, revision, part, "from", "to", what, drill, layer, way, bpm, "wishBpm", clean, wrong,
            minutes, note, nullif(pain, 'null'), corrects, "isWithdrawn"
       FROM jsonb_to_recordset($1::jsonb) AS row(
              id uuid, at timestamptz, "tuneId" uuid, title text, revision integer, part text, "from" text, "to" text,
              what text, drill text, layer text, way text, bpm double precision, "wishBpm" double precision, clean boolean,
              wrong text, minutes double precision, note text, pain jsonb, corrects uuid, "isWithdrawn" boolean)
      ORDER BY at, id
     ON CONFLICT DO NOTHING`,
    [JSON.stringify(rows)],
  );
  await db.query(
    `UPDATE tunes SET practised_at = greatest(practised_at, latest.at)
       FROM (SELECT tune_id, max(at) AS at FROM attempts WHERE id = ANY($1::uuid[]) AND NOT is_withdrawn GROUP BY tune_id) AS latest
      WHERE tunes.id = latest.tune_id AND (practised_at IS NULL OR practised_at < latest.at)`,
    [attempts.map(({ id }) => id)],
  );
  return rowCount ?? 0;
}

/** Attempts that are put in with one statement. */
const BATCH = 2000;

/** A whole log put in, all of it or nothing, in the caller's transaction. Returns how many were new. */
export async function insertLog(db: Queryable, attempts: readonly Attempt[]): Promise<number> {
  let added = 0;
  for (let from = 0; from < attempts.length; from += BATCH)
    added += await insertAttempts(db, attempts.slice(from, from + BATCH));
  return added;
}

/** Tunes of the book by their titles; of several with one title the one that was changed last. */
export async function tunesByTitle(db: Queryable): Promise<ReadonlyMap<string, string>> {
  const { rows } = await db.query<{ title: string; id: string }>(
    'SELECT title, id FROM tunes WHERE removed_at IS NULL ORDER BY updated_at',
  );
  return new Map(rows.map(({ title, id }) => [title, id]));
}

/** A page of the log, the newest first; `next` is the moment and id of the last. */
export async function listAttempts(
  db: Queryable,
  { tune, words, day, zone = 'UTC', after, limit = PAGE }: LogQuery,
): Promise<{ attempts: Attempt[]; next: string | null }> {
  const cursor = cursorOf(after);
  const { rows } = await db.query<AttemptRow>(
    `SELECT ${COLUMNS} FROM attempts
      WHERE ${CURRENT} AND ($1::uuid IS NULL OR tune_id = $1)
        AND ($2::timestamptz IS NULL OR (at, id) < ($2::timestamptz, $3::uuid))
        AND ${hasWords('$5')}
        AND ($6::date IS NULL OR (at >= ($6::date::timestamp AT TIME ZONE $7) AND at < (($6::date + 1)::timestamp AT TIME ZONE $7)))
      ORDER BY at DESC, id DESC LIMIT $4`,
    [tune ?? null, cursor?.at ?? null, cursor?.id ?? null, limit, patternsOf(words), day ?? null, zone],
  );
  const last = rows[rows.length - 1];
  return {
    attempts: rows.map(attemptOf),
    next: last && rows.length === limit ? `${last.at.toISOString()} ${last.id}` : null,
  };
}

/** Each word comes in the title, the note or what went wrong, whatever its accents. */
const hasWords = (patterns: string) =>
  `(SELECT coalesce(bool_and(unaccent(concat_ws(' ', tune_title, note, wrong, drill)) ILIKE unaccent(pattern)), true) FROM unnest(${patterns}::text[]) AS pattern)`;

/** Words of a search that are looked for: each is held against every entry. */
const MAX_WORDS = 8;

/** Patterns that words are found by: signs that a pattern would take for its own stand for themselves. */
function patternsOf(words: string | undefined): string[] {
  const own = (words ?? '').split(/\s+/).filter(Boolean).slice(0, MAX_WORDS);
  return own.map((word) => `%${word.replace(/[\\%_]/g, (sign) => `\\${sign}`)}%`);
}

/** What was played day by day, the newest day first: of each tune in each way, and what went wrong. */
export async function findSums(db: Queryable, { tune, since, zone, words }: LogSumsQuery): Promise<LogSum[]> {
  const { rows } = await db.query<LogSum>(
    `SELECT day, tune_id AS "tuneId", max(tune_title) AS title, what, drill, wrong, count(*)::integer AS attempts,
            count(*) FILTER (WHERE clean)::integer AS clean, max(bpm) FILTER (WHERE clean AND way = 'bowed') AS "cleanBpm",
            sum(minutes) AS minutes
       FROM (SELECT *, to_char(at AT TIME ZONE $3, 'YYYY-MM-DD') AS day FROM attempts
              WHERE ${CURRENT} AND at >= ($2::date::timestamp AT TIME ZONE $3)
                AND ($1::uuid IS NULL OR tune_id = $1) AND ${hasWords('$4')}) AS own
      GROUP BY day, tune_id, what, drill, wrong
      ORDER BY day DESC, min(at), tune_id, what, drill, wrong
      LIMIT ${MAX_SUMS}`,
    [tune ?? null, since, zone, patternsOf(words)],
  );
  return rows;
}

/** Minutes played on each day of a zone, the oldest first. */
export async function findMinutes(
  db: Queryable,
  { since, zone }: { readonly since: string; readonly zone: string },
): Promise<{ day: string; minutes: number }[]> {
  const { rows } = await db.query<{ day: string; minutes: number }>(
    `SELECT to_char(at AT TIME ZONE $2, 'YYYY-MM-DD') AS day, sum(minutes) AS minutes FROM attempts
      WHERE ${CURRENT} AND at >= ($1::date::timestamp AT TIME ZONE $2)
      GROUP BY 1 ORDER BY 1`,
    [since, zone],
  );
  return rows;
}

/** Most rows that are sent: some years of an eager player. */
const MAX_SUMS = 20_000;

/** What a page ended with; what is none begins anew. */
function cursorOf(after: string | undefined): { readonly at: string; readonly id: string } | null {
  const found = /^(\d{4}-\d\d-\d\dT[\d:.]+Z) ([0-9a-f-]{36})$/.exec(after ?? '');
  return found ? { at: found[1]!, id: found[2]! } : null;
}

/** Stretches day by day, in the days of a time zone, the oldest first. */
export async function findHistory(
  db: Queryable,
  { tune, since, zone }: z.output<typeof historyQuerySchema>,
): Promise<SpanDay[]> {
  const { rows } = await db.query<Omit<SpanDay, 'span'> & { part: string; from: string; to: string }>(
    `SELECT tune_id AS "tuneId", max(tune_title) AS title, part, from_note AS "from", to_note AS "to", day,
            count(*)::integer AS attempts, count(*) FILTER (WHERE clean)::integer AS clean,
            (array_agg(clean ORDER BY at DESC))[1] AS "endedClean",
            max(bpm) FILTER (WHERE clean AND way = 'bowed') AS "cleanBpm", max(wish_bpm) AS "wishBpm", sum(minutes) AS minutes
       FROM (SELECT *, to_char(at AT TIME ZONE $3, 'YYYY-MM-DD') AS day FROM attempts
              WHERE ${CURRENT} AND drill IS NULL AND pain IS NULL AND at >= ($2::date::timestamp AT TIME ZONE $3)
                AND ($1::uuid IS NULL OR tune_id = $1)) AS own
      GROUP BY tune_id, part, from_note, to_note, day
      ORDER BY day, tune_id, part, from_note`,
    [tune ?? null, since, zone],
  );
  return rows.map(({ part, from, to, ...row }) => ({ ...row, span: { part, from, to } }));
}

/** The whole log as it is now, the oldest first, a batch in memory at a time. */
export async function* allAttempts(db: Queryable): AsyncGenerator<Attempt> {
  let [at, id] = ['-infinity', '00000000-0000-0000-0000-000000000000'];
  for (;;) {
    const { rows } = await db.query<AttemptRow>(
      `SELECT ${COLUMNS} FROM attempts WHERE ${CURRENT} AND (at, id) > ($1::timestamptz, $2::uuid) ORDER BY at, id LIMIT 1000`,
      [at, id],
    );
    yield* rows.map(attemptOf);
    const last = rows[rows.length - 1];
    if (!last) return;
    [at, id] = [last.at.toISOString(), last.id];
  }
}

export async function findTunePractice(db: Queryable, tuneId: string): Promise<TunePracticeRecord> {
  const { rows } = await db.query<{ revision: number; document: unknown }>(
    'SELECT revision, document FROM tune_practice WHERE tune_id = $1',
    [tuneId],
  );
  const row = rows[0];
  return row
    ? { revision: row.revision, practice: tunePracticeSchema.parse(row.document) }
    : { revision: 0, practice: USUAL_PRACTICE };
}

/** Replaces it if it still is at `baseRevision`; null when it is not, or there is no such tune. */
export async function saveTunePractice(
  db: Queryable,
  tuneId: string,
  baseRevision: number,
  practice: TunePractice,
): Promise<number | null> {
  const document = JSON.stringify(practice);
  const { rows } = await db.query<{ revision: number }>(
    baseRevision === 0
      ? `INSERT INTO tune_practice (tune_id, document) SELECT id, $2 FROM tunes WHERE id = $1
         ON CONFLICT DO NOTHING RETURNING revision`
      : `UPDATE tune_practice SET revision = revision + 1, document = $2, updated_at = now()
          WHERE tune_id = $1 AND revision = $3 RETURNING revision`,
    baseRevision === 0 ? [tuneId, document] : [tuneId, document, baseRevision],
  );
  return rows[0]?.revision ?? null;
}
