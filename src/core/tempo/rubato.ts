import { add, compare, toNumber } from '#core/base';
import type { Unrolled } from '#core/tune';

/** What a hold may do to a note: it lasts so many times its length. */
export const HOLD_RANGE = { min: 0.5, max: 4 } as const;
/** What surge and ease may do to the pace. */
export const PACE_RANGE = { min: 0.5, max: 2 } as const;
/** A breath is a silence of at most so many whole notes, before the others make room for it. */
export const MAX_BREATH = 1;

/** Lengths as an air is played freely, in whole notes of its mean tempo. `x[i]` belongs to note i. */
export interface FreeLengths {
  readonly onsets: readonly number[];
  readonly durations: readonly number[];
  readonly rests: readonly number[];
}

/**
 * The rubato map of a tune's holds, breaths and paces; null where it has none.
 *
 * A note of length d with hold h weighs d·h / pace, a rest before it its length / pace, a breath after the note before
 * adds its own. The pace glides in a straight line between notes that name one and is 1 before the first and after the
 * last of a pass. In each pass the weights are scaled to sum to the pass's written length: what is held here is given
 * back elsewhere, so notes keep their order, passes and the whole their length, and every length stays in proportion to
 * 1/tempo. A pass that ends in a rest keeps it, weighed with pace 1.
 * Time O(n).
 */
export function freeLengths(unrolled: Unrolled): FreeLengths | null {
  const { notes } = unrolled;
  const isFree = notes.some(({ note }) => note.hold !== undefined || note.breath !== undefined || note.pace);
  if (!isFree) return null;
  const free = { onsets: [] as number[], durations: [] as number[], rests: [] as number[] };
  for (const { firstNote, endNote, from, to } of spansOf(unrolled)) {
    const played = notes.slice(firstNote, endNote);
    const paces = pacesOf(played.map(({ note }) => note.pace));
    let reached = from;
    const weights = played.map(({ note, onset: at, duration }, i) => {
      // A rest may lie across two passes: each has its own part of it.
      const silence = toNumber(at) - reached;
      reached = toNumber(at) + toNumber(duration);
      const breath = played[i - 1]?.note.breath ?? 0;
      return {
        rest: silence / paces[i]! + breath,
        note: (toNumber(duration) * (note.hold ?? 1)) / paces[i]!,
      };
    });
    const tail = to - reached + (played[played.length - 1]?.note.breath ?? 0);
    const sum = weights.reduce((total, { rest, note }) => total + rest + note, tail);
    const scale = sum > 0 ? (to - from) / sum : 1;
    let at = from;
    for (const { rest, note } of weights) {
      const end = free.onsets.length > 0 ? free.onsets.at(-1)! + free.durations.at(-1)! : 0;
      at += rest * scale;
      free.onsets.push(at);
      free.rests.push(Math.max(0, at - end));
      free.durations.push(note * scale);
      at += note * scale;
    }
  }
  return free;
}

interface Span {
  readonly firstNote: number;
  readonly endNote: number;
  readonly from: number;
  readonly to: number;
}

/** The passes; those into which a note is tied over from the one before belong together with it. */
function spansOf({ notes, passes }: Unrolled): Span[] {
  const spans: Span[] = [];
  for (const { firstNote, endNote, onset, end } of passes) {
    const before = spans[spans.length - 1];
    const last = before && notes[before.endNote - 1];
    if (before && last && compare(add(last.onset, last.duration), onset) > 0)
      spans[spans.length - 1] = { ...before, endNote, to: toNumber(end) };
    else spans.push({ firstNote, endNote, from: toNumber(onset), to: toNumber(end) });
  }
  return spans;
}

/** The pace at each note of a pass: as named, and on the way between two that are named. */
function pacesOf(named: readonly (number | undefined)[]): number[] {
  const paces = named.map(() => 1);
  let before: number | null = null;
  for (let i = 0; i < named.length; i++) {
    const pace = named[i];
    if (pace === undefined) continue;
    paces[i] = pace;
    if (before !== null)
      for (let j = before + 1; j < i; j++)
        paces[j] = named[before]! + ((pace - named[before]!) * (j - before)) / (i - before);
    before = i;
  }
  return paces;
}
