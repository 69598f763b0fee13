import { NO_ABILITY, type PlayerAbility, playerAbilitySchema } from '#contract/ability';
import type { KindCeilings } from '#core/ability';
import type { SkillFigures } from '#core/readiness';
import type { Queryable } from '../db';
import { CURRENT } from '../log/queries';
import type { JudgedStretch, OwnFigures } from './learnPlayer';

/** Attempts that say what the player can do: with the bow, of the tune itself, and not ended because something hurt. */
const TELLING = `drill IS NULL AND what <> 'drill' AND way = 'bowed' AND layer = 'tempo' AND pain IS NULL AND ${CURRENT}`;
/** Attempts that are looked at, the newest first: older ones weigh nothing. */
const MAX_ATTEMPTS = 20_000;

/** A log that grew or was corrected has another one: rows are only ever put in. */
export async function logVersion(db: Queryable): Promise<string> {
  const { rows } = await db.query<{ version: string }>(
    `SELECT (SELECT count(*) || ' ' || coalesce(max(kept_at)::text, '') FROM attempts) || ' ' ||
            (SELECT count(*) || ' ' || coalesce(max(judged_at)::text, '') FROM log_stretches) AS version`,
  );
  return rows[0]!.version;
}

export interface StaleTune {
  readonly id: string;
  readonly document: string;
  readonly judgedBy: string;
  readonly stretches: readonly { readonly from: string; readonly to: string }[];
}

/** A tune with stretches of the log that were not judged by its plan as it is; null: there is none left. */
export async function findStaleTune(db: Queryable, key: string): Promise<StaleTune | null> {
  const { rows } = await db.query<{
    id: string;
    judged_by: string;
    document: string;
    stretches: StaleTune['stretches'];
  }>(
    `WITH stale AS (
       SELECT DISTINCT attempts.tune_id, attempts.from_note, attempts.to_note
         FROM attempts
         JOIN tunes ON tunes.id = attempts.tune_id
         LEFT JOIN log_stretches AS known
           ON known.tune_id = attempts.tune_id AND known.from_note = attempts.from_note AND known.to_note = attempts.to_note
        WHERE ${TELLING}
          AND known.judged_by IS DISTINCT FROM $1 || ':' || tunes.revision
     )
     SELECT tunes.id, $1 || ':' || tunes.revision AS judged_by, tunes.document::text,
            jsonb_agg(jsonb_build_object('from', stale.from_note, 'to', stale.to_note)) AS stretches
       FROM stale JOIN tunes ON tunes.id = stale.tune_id
      GROUP BY tunes.id LIMIT 1`,
    [key],
  );
  const row = rows[0];
  return row ? { id: row.id, document: row.document, judgedBy: row.judged_by, stretches: row.stretches } : null;
}

export async function keepStretches(
  db: Queryable,
  { id, judgedBy, stretches }: Pick<StaleTune, 'id' | 'judgedBy' | 'stretches'>,
  judged: readonly JudgedStretch[],
): Promise<void> {
  await db.query(
    `INSERT INTO log_stretches (tune_id, from_note, to_note, judged_by, bpm, margins, skills)
     SELECT tunes.id, s."from", s."to", $2, s.bpm, nullif(s.margins, 'null'), nullif(s.skills, 'null')
       FROM jsonb_to_recordset($3::jsonb) AS s("from" text, "to" text, bpm double precision, margins jsonb, skills jsonb),
            tunes
      WHERE tunes.id = $1
     ON CONFLICT (tune_id, from_note, to_note) DO UPDATE
       SET judged_by = excluded.judged_by, bpm = excluded.bpm, margins = excluded.margins, skills = excluded.skills,
           judged_at = clock_timestamp()`,
    [id, judgedBy, JSON.stringify(stretches.map((span, i) => ({ ...span, ...judged[i]! })))],
  );
}

/** An attempt and the stretch it was at, by tune and notes. */
export interface TellingAttempt {
  readonly stretch: string;
  readonly at: Date;
  readonly bpm: number;
  readonly clean: boolean;
  readonly shows: boolean;
}

export async function listTellingAttempts(db: Queryable): Promise<TellingAttempt[]> {
  const { rows } = await db.query<TellingAttempt>(
    `SELECT attempts.tune_id || ' ' || attempts.from_note || ' ' || attempts.to_note AS stretch, at, attempts.bpm, clean,
            what IN ('bite', 'join', 'run-through') AS shows
       FROM attempts
      WHERE ${TELLING}
        AND EXISTS (SELECT 1 FROM log_stretches AS known
                     WHERE known.tune_id = attempts.tune_id AND known.from_note = attempts.from_note
                       AND known.to_note = attempts.to_note AND known.margins IS NOT NULL)
      ORDER BY at DESC, id LIMIT ${MAX_ATTEMPTS}`,
  );
  return rows;
}

export async function listJudgedStretches(db: Queryable): Promise<Map<string, JudgedStretch>> {
  const { rows } = await db.query<JudgedStretch & { stretch: string }>(
    `SELECT tune_id || ' ' || from_note || ' ' || to_note AS stretch, bpm, margins, skills FROM log_stretches`,
  );
  return new Map(rows.map(({ stretch, ...judged }) => [stretch, judged]));
}

export async function findAbility(
  db: Queryable,
): Promise<{ readonly key: string | null; readonly ability: PlayerAbility }> {
  const { rows } = await db.query<{ key: string; document: unknown }>('SELECT key, document FROM player_ability');
  const row = rows[0];
  // What an earlier version learnt in another form is learnt again.
  const parsed = playerAbilitySchema.safeParse(row?.document);
  return row && parsed.success ? { key: row.key, ability: parsed.data } : { key: null, ability: NO_ABILITY };
}

export async function keepAbility(db: Queryable, key: string, ability: PlayerAbility): Promise<void> {
  await db.query(
    `INSERT INTO player_ability (key, document) VALUES ($1, $2)
     ON CONFLICT (only_one) DO UPDATE SET key = excluded.key, document = excluded.document, learnt_at = now()`,
    [key, JSON.stringify(ability)],
  );
}

export interface TuneToOwn {
  readonly id: string;
  readonly revision: number;
  readonly ceilings: KindCeilings;
  readonly skills: SkillFigures;
}

/** Counted tunes whose own figures are not those of an ability; `$1` its key, `$2` that of the figures. */
const STALE_OWN = `counted_by = $2 AND own_by IS DISTINCT FROM $1 || ':' || revision`;

export async function listTunesToOwn(
  db: Queryable,
  key: string,
  countedBy: string,
  limit: number,
): Promise<TuneToOwn[]> {
  const { rows } = await db.query<TuneToOwn>(
    `SELECT id, revision, kind_ceilings AS ceilings, skills FROM tunes WHERE ${STALE_OWN} LIMIT $3`,
    [key, countedBy, limit],
  );
  return rows;
}

export async function countTunesToOwn(db: Queryable, key: string, countedBy: string): Promise<number> {
  const { rows } = await db.query<{ left: number }>(`SELECT count(*)::integer AS left FROM tunes WHERE ${STALE_OWN}`, [
    key,
    countedBy,
  ]);
  return rows[0]!.left;
}

/** Keeps own figures, unless a tune was saved meanwhile. */
export async function keepOwnFigures(
  db: Queryable,
  key: string,
  tunes: readonly TuneToOwn[],
  figures: readonly OwnFigures[],
): Promise<void> {
  const rows = tunes.map(({ id, revision }, i) => ({ id, revision, ...figures[i]! }));
  await db.query(
    `UPDATE tunes
        SET own_by = $1 || ':' || own.revision, own_low = own.own_low, own_ceiling = own.own_ceiling,
            own_high = own.own_high, own_binds = nullif(own.own_binds, 'null'), missing = own.missing
       FROM jsonb_to_recordset($2::jsonb) AS own(id uuid, revision integer, own_low double precision,
              own_ceiling double precision, own_high double precision, own_binds jsonb, missing text[])
      WHERE tunes.id = own.id AND tunes.revision = own.revision`,
    [key, JSON.stringify(rows)],
  );
}

/** What tunes of the book ask for, by title. */
export async function listSkills(db: Queryable): Promise<{ id: string; title: string; skills: SkillFigures }[]> {
  const { rows } = await db.query<{ id: string; title: string; skills: SkillFigures }>(
    `SELECT id, title, skills FROM tunes WHERE removed_at IS NULL AND skills <> '{}' ORDER BY title_order(title), id`,
  );
  return rows;
}
