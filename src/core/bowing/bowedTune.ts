import { type Direction, type Tune, unroll } from '#core/tune';
import { type RoundVerdict, roundVerdict } from './ledger';
import { type BowedNote, bowNotes, startOf } from './strokes';

/** How a tune is bowed, and whether it comes round: all that a row of strokes shows. */
export interface BowedTune extends RoundVerdict {
  /** `bowed[i]` belongs to the i-th played note. */
  readonly bowed: readonly BowedNote[];
}

/**
 * Strokes and verdict of a tune by themselves, without the report on hand, arm and tempo: for proposals that are shown side by
 * side. Time O(n) for n played notes.
 */
export function bowedTune(tune: Tune, start: Direction | null = null): BowedTune {
  const unrolled = unroll(tune);
  const bowed = bowNotes(unrolled.notes, startOf(tune, unrolled, start).direction);
  return { bowed, ...roundVerdict(unrolled, bowed) };
}
