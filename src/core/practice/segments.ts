import { occurrencesOf, type Tune, type Unrolled, writtenBars } from '#core/tune';

/** A stretch that is always parted from what is beside it: a part without its endings, or one of its endings. */
export interface Segment {
  readonly part: string;
  /** The play on which the ending is taken first; null: no ending. */
  readonly ending: number | null;
  /** Its notes as they are played the first time, in order: indices of the played notes. */
  readonly notes: readonly number[];
}

/** The segments of a tune in the order of its parts; those of which nothing is ever played are none. Time O(n). */
export function segmentsOf(tune: Tune, unrolled: Unrolled): Segment[] {
  const met = occurrencesOf(unrolled);
  const segments: Segment[] = [];
  for (const [part, bars] of writtenBars(tune)) {
    let plays: string | null = null;
    let notes: number[] = [];
    for (const { event, events } of bars) {
      const own = String(event.onPlays ?? '');
      if (plays !== own) {
        plays = own;
        notes = [];
        segments.push({ part, ending: event.ending ? (event.onPlays?.[0] ?? null) : null, notes });
      }
      for (const { kind, id } of events) {
        const first = kind === 'note' ? met.get(id)?.[0] : undefined;
        if (first !== undefined) notes.push(first);
      }
    }
  }
  return segments.filter(({ notes }) => notes.length > 0);
}
