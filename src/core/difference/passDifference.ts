import type { BowedNote } from '#core/bowing';
import { pitchName } from '#core/pitch';
import type { Direction, Link, Meter, Unrolled, UnrolledNote } from '#core/tune';

/** How a bar of one pass differs from the same bar of another. */
export interface PassBarDifference {
  readonly bar: number;
  /** Every note goes the other way, and nothing else is different. */
  readonly isFlipped: boolean;
  /** Notes that are bowed otherwise: as on the one pass, and as on the other. */
  readonly bowed: readonly {
    readonly id: string;
    readonly beat: number;
    readonly meter: Meter;
    readonly was: BowOf;
    readonly is: BowOf;
  }[];
  /** Other notes are played, as in an ending: both as they are read; null where they are the same. */
  readonly notes: { readonly was: string; readonly is: string } | null;
}

export interface BowOf {
  readonly link: Link;
  readonly bow: Direction;
}

/**
 * Two passes of a part, bar by bar: only what differs. Where a bar has other notes (endings, a pickup played once) they
 * are told, else the notes whose link or direction is another.
 * Time O(n) for n notes of both passes.
 */
export function passDifferences(
  { notes, passes }: Unrolled,
  bowed: readonly BowedNote[],
  one: number,
  other: number,
): PassBarDifference[] {
  const barsOf = (pass: number) => {
    const bars = new Map<number, UnrolledNote[]>();
    const { firstNote, endNote } = passes[pass]!;
    for (const note of notes.slice(firstNote, endNote)) bars.set(note.bar, [...(bars.get(note.bar) ?? []), note]);
    return bars;
  };
  const [was, is] = [barsOf(one), barsOf(other)];
  const numbers = [...new Set([...was.keys(), ...is.keys()])].sort((a, b) => a - b);
  const bowOf = ({ index }: UnrolledNote): BowOf => {
    const { link, bow } = bowed[index]!;
    return { link: link === 'start' ? 'change' : link, bow };
  };
  return numbers.flatMap((bar): PassBarDifference[] => {
    const [before, after] = [was.get(bar) ?? [], is.get(bar) ?? []];
    const words = (list: readonly UnrolledNote[]) => list.map(({ note }) => pitchName(note.pitch)).join(' ');
    if (before.length !== after.length || before.some(({ note }, i) => note.id !== after[i]!.note.id))
      return [{ bar, isFlipped: false, bowed: [], notes: { was: words(before), is: words(after) } }];
    const different = before.flatMap((note, i) => {
      const [a, b] = [bowOf(note), bowOf(after[i]!)];
      return a.link === b.link && a.bow === b.bow
        ? []
        : [{ id: note.note.id, beat: note.beat, meter: note.meter, was: a, is: b }];
    });
    if (different.length === 0) return [];
    const isFlipped = different.length === before.length && different.every((item) => item.was.link === item.is.link);
    return [{ bar, isFlipped, bowed: different, notes: null }];
  });
}
