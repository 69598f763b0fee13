import type { KnownHand } from '#contract/imports';
import { sharedHands } from '#core/twins';
import type { Queryable } from '../db';
import { CURRENT } from '../log/queries';

/** Tunes that are looked at: those practised last. */
const MAX_LOOKED_AT = 200;

/** Notes in a row from which a hand is worth being told of: fewer are in every tune. A guess. */
const MIN_NOTES = 6;

interface ShapedTune {
  readonly id: string;
  readonly title: string;
  readonly hand_shapes: number[];
  readonly hand_places: string[];
}

/**
 * Stretches of a tune whose hand and bowing the player has from another one that the log has as played clean; of several
 * tunes for one stretch the one with the longest.
 */
export async function listKnownHands(db: Queryable, id: string): Promise<KnownHand[]> {
  const { rows: found } = await db.query<{ hand_shapes: number[] }>('SELECT hand_shapes FROM tunes WHERE id = $1', [
    id,
  ]);
  const own = found[0]?.hand_shapes ?? [];
  const asked = [...new Set(own)].filter((shape) => shape !== 0);
  if (asked.length === 0) return [];
  const { rows } = await db.query<ShapedTune>(
    // Few tunes of a large book are practised: they are found first, by the index on when that was.
    `WITH practised AS MATERIALIZED (
       SELECT id, title, hand_shapes, hand_places
         FROM tunes
        WHERE removed_at IS NULL AND practised_at IS NOT NULL AND id <> $1
        ORDER BY coalesce(practised_at, '-infinity') DESC
        LIMIT $3
     )
     SELECT * FROM practised
      WHERE hand_shapes && $2::integer[]
        AND EXISTS (SELECT 1 FROM attempts WHERE attempts.tune_id = practised.id AND clean AND ${CURRENT})`,
    [id, asked, MAX_LOOKED_AT],
  );
  const known = rows.flatMap((tune) =>
    sharedHands(own, tune.hand_shapes, MIN_NOTES).map(({ from, otherFrom, notes }): KnownHand => {
      const [, part, bar] = /^(.*) (\d+)$/s.exec(tune.hand_places[otherFrom]!)!;
      return { id: tune.id, title: tune.title, from, notes, part: part!, bar: Number(bar) };
    }),
  );
  return longestFirst(known);
}

/** Without those that lie within a longer one, in the order of the tune. */
function longestFirst(known: readonly KnownHand[]): KnownHand[] {
  const kept: KnownHand[] = [];
  for (const one of [...known].sort((a, b) => b.notes - a.notes || a.from - b.from))
    if (!kept.some(({ from, notes }) => from <= one.from && one.from + one.notes <= from + notes)) kept.push(one);
  return kept.sort((a, b) => a.from - b.from);
}
