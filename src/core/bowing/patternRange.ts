import { type Direction, isCompound, type Meter, type Unrolled } from '#core/tune';
import type { Pattern } from './patterns';
import { againFrom, bowAgain, type BowedNote, staysInStroke } from './strokes';

/** What a stretch of a tune comes to as it is bowed, on the first pass that plays it; the whole tune with all its passes. */
export interface RangeFigures {
  readonly strokes: number;
  /** Turns from its first note up to and into the note after it; of the whole tune, into the note at which it begins again. */
  readonly turns: number;
  readonly parity: 'even' | 'odd';
  /** Whole beats of the first bars: their directions, bar by bar. */
  readonly beats: readonly (readonly Direction[])[];
}

/** Bars whose beats are told. */
const BARS_TOLD = 2;

/**
 * Strokes, parity and beats of some notes as bowed.
 * @param ids written notes; all when left out
 * @returns null where none of them is played
 * Time O(n).
 */
export function rangeFigures(
  unrolled: Unrolled,
  bowed: readonly BowedNote[],
  ids?: ReadonlySet<string>,
): RangeFigures | null {
  const { notes } = unrolled;
  const again = ids ? null : againFrom(unrolled);
  const first = again?.index ?? notes.findIndex(({ note }) => ids?.has(note.id));
  if (first < 0) return null;
  const { passIndex } = notes[first]!;
  let [strokes, turns] = [0, 0];
  let last = first;
  const bars = new Map<number, Direction[]>();
  for (let i = first; i < notes.length; i++) {
    const { note, passIndex: pass, bar, beat } = notes[i]!;
    if (ids && (pass !== passIndex || !ids.has(note.id))) continue;
    last = i;
    const { link, bow } = bowed[i]!;
    if (i === first || !staysInStroke(link)) strokes += 1;
    if (i > first && link === 'change') turns += 1;
    if (pass === passIndex && bar > 0 && Number.isInteger(beat) && (bars.size < BARS_TOLD || bars.has(bar)))
      bars.set(bar, [...(bars.get(bar) ?? []), bow]);
  }
  if (again) turns += bowAgain(unrolled, bowed) === bowed[last]!.bow ? 0 : 1;
  else if (notes[last + 1] && bowed[last + 1]!.link === 'change') turns += 1;
  return { strokes, turns, parity: turns % 2 === 0 ? 'even' : 'odd', beats: [...bars.values()] };
}

/** A stroke that a pattern drives: quicker than the others, so that the bow comes home. */
export interface NaturalAccent {
  /** Place of the slot in the cycle, from 1. */
  readonly slot: number;
  /** How many times as fast as the strokes the other way it must be drawn. */
  readonly ratio: number;
}

/** Below this a quicker stroke is not heard as an accent, a guess. */
const MIN_ACCENT = 1.25;

/**
 * Natural accents of a pattern: where the strokes of one direction take more of the cycle than those of the other, the
 * shorter ones must be drawn so many times as fast for the bow to come home, and that is an accent. Cycles with an odd
 * number of strokes come home after two of them by themselves and have none.
 */
export function naturalAccents({ slots }: Pattern): NaturalAccent[] {
  if (!slots || slots.length % 2 === 1) return [];
  const side = (parity: number) => slots.reduce((sum, slot, i) => (i % 2 === parity ? sum + slot : sum), 0);
  const [one, other] = [side(0), side(1)];
  const ratio = Math.max(one, other) / Math.min(one, other);
  if (ratio < MIN_ACCENT) return [];
  const quick = one < other ? 0 : 1;
  return slots.flatMap((_, i) => (i % 2 === quick ? { slot: i + 1, ratio } : []));
}

/**
 * Net travel toward the tip of single strokes of given lengths, begun on a down-bow: the sum with alternating signs. A
 * jig's groups of lengths a, b, b drift by a, then back by a: over two of them the bow comes home whatever a : b is.
 */
export function alternateDrift(lengths: readonly number[]): number {
  return lengths.reduce((sum, length, i) => (i % 2 === 0 ? sum + length : sum - length), 0);
}

/** Whether a pattern on a meter is groups of three singles, whose accents fall on the down-bow and the up-bow in turn. */
export function accentsAlternate({ slots }: Pattern, meter: Meter): boolean {
  return isCompound(meter) && (slots === null || slots.every((slot) => slot === 1));
}
