import { ALIKE, LEAST_SHARED, type MelodyLine, melodyLikeness, melodyLines, wholeLine } from '#core/likeness';
import type { Tune } from '#core/tune';
import type { LikeTune, PartLikenesses } from '#contract/imports';
import type { Queryable } from '../db';
import { WHOLE_TUNE } from '../tunes/tuneHead';

/** Tunes that share the most of a print and are compared note by note. */
const MOST_COMPARED = 6;

interface Candidate {
  readonly asked: number;
  readonly id: string;
  readonly part: string;
}

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
    `SELECT asked.number AS asked, found.tune_id AS id, found.part
       FROM jsonb_array_elements($1::jsonb) WITH ORDINALITY AS asked(print, number),
            LATERAL (
              SELECT tune_id, part, (SELECT count(*) FROM unnest(tune_prints.print) AS hash WHERE hash = ANY(wanted.print)) AS shared
                FROM (SELECT array_agg(value::integer) AS print FROM jsonb_array_elements_text(asked.print)) AS wanted, tune_prints
               WHERE tune_prints.print && wanted.print AND (tune_prints.part = '') = $2 AND tune_id IS DISTINCT FROM $3
            ) AS found
       JOIN tunes ON tunes.id = found.tune_id AND removed_at IS NULL
      WHERE shared >= $4
      ORDER BY asked, shared DESC, found.tune_id, found.part`,
    [JSON.stringify(prints), isWhole, without, LEAST_SHARED],
  );
  const counts = new Map<number, number>();
  return rows.filter(({ asked }) => {
    const count = (counts.get(Number(asked)) ?? 0) + 1;
    counts.set(Number(asked), count);
    return count <= MOST_COMPARED;
  });
}

async function findLines(
  db: Queryable,
  ids: readonly string[],
): Promise<Map<string, { title: string; lines: MelodyLine[] }>> {
  const { rows } = await db.query<{ id: string; title: string; document: Tune }>(
    'SELECT id, title, document FROM tunes WHERE id = ANY($1::uuid[])',
    [[...new Set(ids)]],
  );
  return new Map(rows.map(({ id, title, document }) => [id, { title, lines: melodyLines(document) }]));
}

export interface AskedMelody {
  readonly print: readonly number[];
  readonly pitches: readonly number[];
}

/** For each melody the tunes of the book like it, the likest first. */
export async function findLikeTunes(
  db: Queryable,
  melodies: readonly AskedMelody[],
  without: string | null = null,
): Promise<LikeTune[][]> {
  const candidates = await findCandidates(
    db,
    melodies.map(({ print }) => print),
    true,
    without,
  );
  const lines = await findLines(
    db,
    candidates.map(({ id }) => id),
  );
  return melodies.map(({ pitches }, i) =>
    candidates
      .filter(({ asked }) => Number(asked) === i + 1)
      .flatMap(({ id }): LikeTune[] => {
        const found = lines.get(id);
        if (!found) return [];
        const { share, semitones } = melodyLikeness(pitches, wholeLine(found.lines));
        return share >= ALIKE ? [{ id, title: found.title, share, semitones }] : [];
      })
      .sort((a, b) => b.share - a.share),
  );
}

/** Tunes like one of the book, and parts of others that are like parts of it. */
export async function findPartLikenesses(db: Queryable, id: string): Promise<PartLikenesses> {
  const { rows } = await db.query<{ part: string; print: number[] }>(
    'SELECT part, print FROM tune_prints WHERE tune_id = $1 ORDER BY part',
    [id],
  );
  const own = (await findLines(db, [id])).get(id);
  if (!own || rows.length === 0) return { tunes: [], parts: [] };
  const whole = rows.find(({ part }) => part === WHOLE_TUNE);
  const tunes = whole ? (await findLikeTunes(db, [{ print: whole.print, pitches: wholeLine(own.lines) }], id))[0]! : [];
  const same = new Set(tunes.map((tune) => tune.id));
  const asked = rows.filter(({ part }) => part !== WHOLE_TUNE);
  const candidates =
    asked.length === 0
      ? []
      : await findCandidates(
          db,
          asked.map(({ print }) => print),
          false,
          id,
        );
  const others = await findLines(
    db,
    candidates.map((candidate) => candidate.id),
  );
  const parts = candidates.flatMap((candidate) => {
    const part = asked[Number(candidate.asked) - 1]!.part;
    const other = others.get(candidate.id)!;
    const pitches = own.lines.find((line) => line.part === part)?.pitches ?? [];
    const theirs = other.lines.find((line) => line.part === candidate.part)?.pitches ?? [];
    const { share, semitones } = melodyLikeness(pitches, theirs);
    // What is said of the whole tune is not said of each part again.
    if (share < ALIKE || same.has(candidate.id)) return [];
    return [{ id: candidate.id, title: other.title, share, semitones, part, ofPart: candidate.part }];
  });
  return { tunes, parts: parts.sort((a, b) => b.share - a.share) };
}
