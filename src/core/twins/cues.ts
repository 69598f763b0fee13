import type { BowedNote } from '#core/bowing';
import type { Fingering } from '#core/fingering';
import { pitchName } from '#core/pitch';
import type { Direction, NoteEvent, Place, Unrolled } from '#core/tune';
import type { TwinFigure } from './twins';

/** By what a player knows which of several equal figures this is. */
export interface CountCue {
  /** Direction, string and note before at its first note, on the first pass that plays it. */
  readonly bow: Direction;
  readonly string: Place | null;
  readonly before: string | null;
  /**
   * What tells it from the others that begin in the same direction; null where direction alone does, or nothing does
   * (then `isAlone` is false).
   */
  readonly second: { readonly kind: CueKind; readonly value: string } | null;
  /** No other figure of the kind has all of this. */
  readonly isAlone: boolean;
}

export type CueKind = 'note-before' | 'beat' | 'part' | 'mark' | 'length-before';

/** Second cues in the order in which they are easiest to hear. */
const KINDS: readonly CueKind[] = ['mark', 'note-before', 'length-before', 'beat', 'part'];

/**
 * Cues at the places of an equal figure. Direction counts only modulo two: of several places the even ones may begin the
 * other way. Those that begin alike are told apart by the first cue of which no two of them have the same value.
 * @returns one for each place; null for a place that no pass plays
 * Time O(n + p²) for n played notes and p places.
 */
export function countCues(
  { spots }: TwinFigure,
  { notes }: Unrolled,
  bowed: readonly BowedNote[],
  fingers: ReadonlyMap<string, Fingering>,
): (CountCue | null)[] {
  const firsts = spots.map(([first]) => notes.find(({ ids }) => ids.includes(first!.id)) ?? null);
  const valueOf = (kind: CueKind, i: number): string | null => {
    const played = firsts[i]!;
    const before = notes[played.index - 1];
    switch (kind) {
      case 'mark':
        return markWords(played.note);
      case 'note-before':
        return before ? pitchName(before.note.pitch) : 'the beginning';
      case 'length-before':
        return before ? `${before.duration.n}/${before.duration.d}` : 'the beginning';
      case 'beat':
        return String(Number(played.beat.toFixed(2)));
      case 'part':
        return played.part;
    }
  };
  return firsts.map((played, i): CountCue | null => {
    if (!played) return null;
    const { bow } = bowed[played.index]!;
    const alike = firsts.flatMap((other, j) => (j !== i && other && bowed[other.index]!.bow === bow ? j : []));
    const kind =
      alike.length > 0
        ? KINDS.find((candidate) => {
            const value = valueOf(candidate, i);
            return value !== null && alike.every((j) => valueOf(candidate, j) !== value);
          })
        : undefined;
    const before = notes[played.index - 1];
    return {
      bow,
      string: fingers.get(played.note.id)?.place ?? null,
      before: before ? pitchName(before.note.pitch) : null,
      second: kind ? { kind, value: valueOf(kind, i)! } : null,
      isAlone: alike.length === 0 || kind !== undefined,
    };
  });
}

function markWords({ marks, drone }: NoteEvent): string | null {
  const words = [...(marks ?? []), ...(drone ? ['drone'] : [])];
  return words.length > 0 ? words.join(' and ') : null;
}
