import { type Direction, type Unrolled } from '#core/tune';
import { type BowedNote, linkInFlow, opposite, staysInStroke } from './strokes';

/** What becomes of a chunk that is played over and over. */
export interface LoopVerdict {
  readonly strokes: number;
  /** Turns from its first note to its first note again. */
  readonly turns: number;
  readonly entry: Direction;
  /** Direction of its first note the second time. */
  readonly again: Direction;
  readonly comesRound: boolean;
  /** Whether a retake on the way back brings it round: an odd chunk turns once less then. */
  readonly retakeHelps: boolean;
}

/**
 * The round of a chunk by itself: from its first note to its last and straight back to the first, as often as is liked.
 * Coming back begins a stroke: by a retake where the first note is one, else by a turn. An odd number of turns flips it
 * on each loop.
 * @param from first played note
 * @param to last played note
 * @throws RangeError if there is no such stretch
 * Time O(n) for n notes of the chunk.
 */
export function loopVerdict({ notes }: Unrolled, bowed: readonly BowedNote[], from: number, to: number): LoopVerdict {
  if (!(from >= 0 && from <= to && to < notes.length))
    throw new RangeError(`chunk: expected notes within 0 to ${notes.length - 1}, got ${from} to ${to}`);
  let [strokes, inside] = [1, 0];
  for (let i = from + 1; i <= to; i++) {
    const { link } = bowed[i]!;
    if (!staysInStroke(link)) strokes += 1;
    if (link === 'change') inside += 1;
  }
  const first = notes[from]!;
  const back = linkInFlow(first.note, first.pass);
  const turns = inside + (back === 'retake' ? 0 : 1);
  const { bow: entry } = bowed[from]!;
  const comesRound = turns % 2 === 0;
  return {
    strokes,
    turns,
    entry,
    again: comesRound ? entry : opposite(entry),
    comesRound,
    retakeHelps: !comesRound && back !== 'retake',
  };
}
