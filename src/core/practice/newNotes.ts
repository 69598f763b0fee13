import type { TuneReport } from '#core/report';
import { occurrencesOf } from '#core/tune';
import { handTwins, twinFigures } from '#core/twins';

/** What of a tune has to be learnt, and what is known from elsewhere in it. */
export interface NewNotes {
  /** By written note, ties to it left out: whether it is met for the first time when it is first played. */
  readonly isNew: ReadonlyMap<string, boolean>;
  /** The note that each is learnt with: itself, or its like in the figure that was played before. */
  readonly model: ReadonlyMap<string, string>;
}

/**
 * A note is new when it is first played, unless it belongs to a figure that was played before, be it on other strings. A
 * place of a figure counts as played before where its last note first sounds before the other's first.
 * Time O(n log² n) for the figures, and the sum of their places.
 */
export function newNotes({ tune, unrolled, fingers }: TuneReport): NewNotes {
  const met = occurrencesOf(unrolled);
  const firstOf = (id: string) => met.get(id)?.[0] ?? Infinity;
  const likes = new Map<string, { readonly id: string; readonly at: number }>();
  const figures = [...twinFigures(tune).map(({ spots }) => spots), ...handTwins(tune, fingers).map(handPlaces)];
  for (const places of figures) {
    const spots = places
      .map((notes) => {
        const times = notes.map(({ id }) => firstOf(id));
        return { notes, begins: times[0]!, ends: Math.max(...times) };
      })
      .filter(({ ends }) => ends < Infinity)
      .sort((a, b) => a.begins - b.begins);
    const [model] = spots;
    for (const spot of spots.slice(1)) {
      if (model!.ends >= spot.begins) continue;
      for (const [i, { id }] of spot.notes.entries()) {
        const like = { id: model!.notes[i]!.id, at: firstOf(model!.notes[i]!.id) };
        if (like.at < (likes.get(id)?.at ?? Infinity)) likes.set(id, like);
      }
    }
  }
  const model = new Map<string, string>();
  const isNew = new Map<string, boolean>();
  for (const [id] of [...met].sort(([, a], [, b]) => a[0]! - b[0]!)) {
    const like = likes.get(id);
    isNew.set(id, like === undefined);
    model.set(id, like === undefined ? id : model.get(like.id)!);
  }
  return { isNew, model };
}

const handPlaces = ({ spots }: ReturnType<typeof handTwins>[number]) => spots.map(({ notes }) => notes);
