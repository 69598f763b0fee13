import type { LikeTune, PartLikenesses } from '#contract/imports';
import { MIN_SHARED } from '#core/likeness';
import type { Queryable } from '../db';
import type { Jobs } from '../jobs/jobs';
import { WHOLE_TUNE } from '../tunes/tuneHead';
import type { Candidate, StoredMelody } from './compare';

/** Tunes that share the most of a print and are compared note by note. */
const MAX_CANDIDATES_COMPARED = 6;

/** Prints that share a run with one and are counted: a run that more lines have than any book of tunes tells nothing. */
const MAX_COUNTED = 10_000;

/**
 * Tunes of the book that share enough of each print, those that share most first; found through the index, so that the
 * book's size hardly matters.
 */
async function findCandidates(
  db: Queryable,
  prints: readonly (readonly number[])[],
  isWhole: boolean,
  without: string | null,
): Promise<Candidate[]> {
  const { rows } = await db.query<Candidate>(
    // Materialised: the prints are counted once, whatever the planner thinks of how many tunes there are.
    `WITH found AS MATERIALIZED (
       SELECT asked.number::integer AS asked, near.tune_id, near.part, near.shared
         FROM jsonb_array_elements($1::jsonb) WITH ORDINALITY AS asked(print, number),
              LATERAL (
                SELECT tune_id, part, (SELECT count(*) FROM unnest(tune_prints.print) AS hash WHERE hash = ANY(wanted.print)) AS shared
                  FROM (SELECT array_agg(value::integer) AS print FROM jsonb_array_elements_text(asked.print)) AS wanted, tune_prints
                 WHERE tune_prints.print && wanted.print AND (tune_prints.part = '') = $2 AND tune_id IS DISTINCT FROM $3
                 LIMIT $5
              ) AS near
        WHERE near.shared >= $4
     )
     SELECT asked, found.tune_id AS id, found.part
       FROM found JOIN tunes ON tunes.id = found.tune_id AND removed_at IS NULL
      ORDER BY asked, shared DESC, found.tune_id, found.part`,
    [JSON.stringify(prints), isWhole, without, MIN_SHARED, MAX_COUNTED],
  );
  const counts = new Map<number, number>();
  return rows.filter(({ asked }) => {
    const count = (counts.get(asked) ?? 0) + 1;
    counts.set(asked, count);
    return count <= MAX_CANDIDATES_COMPARED;
  });
}

/** Documents read for one comparison, as packed on the disk: those of two hundred tunes as they are played. */
const MAX_READ_BYTES = 512 * 1024;

/** Tunes to be compared, the likest first, as far as their documents are no more than can be read at once. */
async function findMelodies(db: Queryable, candidates: readonly Pick<Candidate, 'id'>[]): Promise<StoredMelody[]> {
  const { rows } = await db.query<StoredMelody>(
    `SELECT id, title, document::text
       FROM (SELECT id, title, document, pg_column_size(document) AS size,
                    sum(pg_column_size(document)) OVER (ORDER BY array_position($1::uuid[], id)) AS read
               FROM tunes WHERE id = ANY($1::uuid[])) AS near
      WHERE read <= $2 OR read = size`,
    [[...new Set(candidates.map(({ id }) => id))], MAX_READ_BYTES],
  );
  return rows;
}

export interface AskedMelody {
  readonly print: readonly number[];
  readonly pitches: readonly number[];
}

/** Melodies whose candidates are compared in one piece of work: a book is brought in by hundreds. */
const ASKED_AT_ONCE = 50;

/** For each melody the tunes of the book like it, the likest first. */
export async function listLikeTunes(
  db: Queryable,
  jobs: Jobs,
  melodies: readonly AskedMelody[],
): Promise<LikeTune[][]> {
  const found: LikeTune[][] = [];
  for (let at = 0; at < melodies.length; at += ASKED_AT_ONCE) {
    const some = melodies.slice(at, at + ASKED_AT_ONCE);
    const candidates = await findCandidates(
      db,
      some.map(({ print }) => print),
      true,
      null,
    );
    const pitches = some.map((melody) => melody.pitches);
    found.push(...(await jobs.findLikeTunes(pitches, candidates, await findMelodies(db, candidates))));
  }
  return found;
}

/** Parts of a tune that others are looked for; no tune that is played has as many. */
const MAX_PARTS = 12;

/** Tunes like one of the book, and parts of others that are like parts of it. */
export async function listPartLikenesses(db: Queryable, jobs: Jobs, id: string): Promise<PartLikenesses> {
  const { rows } = await db.query<{ part: string; print: number[] }>(
    'SELECT part, print FROM tune_prints WHERE tune_id = $1 ORDER BY part',
    [id],
  );
  const [own] = await findMelodies(db, [{ id }]);
  if (!own || rows.length === 0) return { tunes: [], parts: [] };
  const wholes = rows.filter(({ part }) => part === WHOLE_TUNE);
  const asked = rows.filter(({ part }) => part !== WHOLE_TUNE).slice(0, MAX_PARTS);
  const near = (prints: typeof rows, isWhole: boolean) =>
    prints.length === 0
      ? Promise.resolve([])
      : findCandidates(
          db,
          prints.map(({ print }) => print),
          isWhole,
          id,
        );
  const [whole, parts] = [await near(wholes, true), await near(asked, false)];
  return jobs.findLikeParts(
    own,
    whole,
    asked.map(({ part }) => part),
    parts,
    await findMelodies(db, [...whole, ...parts]),
  );
}
