import { toNumber } from '#core/base';
import { type DroneScene, isPhraseEnd, openDrones, type RankedDrone } from '#core/drones';
import { mapChosen } from '#core/editing';
import { type NoteEvent, PLACES, type Tune } from '#core/tune';

/** The two notes of a closing swell, and the open string that each takes in: together one pair of strings. */
export interface ClosingSwell {
  readonly swelled: string;
  readonly last: string;
  readonly sides: { readonly swelled: RankedDrone['kind']; readonly last: RankedDrone['kind'] };
}

/** The note on which a swell closes: a beat or more, next after it, at the end of a phrase. null: there is none. */
export function swellLast({ unrolled, beat }: DroneScene, index: number): number | null {
  const last = unrolled.notes[index + 1];
  const here = unrolled.notes[index]!;
  if (!last || last.restBefore.n > 0 || last.passIndex !== here.passIndex) return null;
  return toNumber(last.duration) >= beat - 1e-9 && isPhraseEnd(unrolled, index + 1, beat) ? index + 1 : null;
}

/**
 * How a swell closes from a note on: the neighbour string is taken in while the first note swells, and the last note sounds
 * on the same pair. Of the pairs on which the last note's open string agrees with it, the one of least rank over both.
 * null where no last note follows, or no pair agrees.
 */
export function closingSwell(scene: DroneScene, index: number): ClosingSwell | null {
  const last = swellLast(scene, index);
  if (last === null) return null;
  const [here, there] = [index, last].map((i) => scene.unrolled.notes[i]!.note) as [NoteEvent, NoteEvent];
  let best: { readonly rank: number; readonly sides: ClosingSwell['sides'] } | null = null;
  for (const own of openDrones(scene, index))
    for (const other of openDrones(scene, last)) {
      if (other.class === 'sharp' || lowerString(scene, here, own) !== lowerString(scene, there, other)) continue;
      const rank = own.rank + other.rank;
      if (!best || rank < best.rank) best = { rank, sides: { swelled: own.kind, last: other.kind } };
    }
  return best && { swelled: here.id, last: there.id, sides: best.sides };
}

/** The lower string of the pair of a note and its open neighbour. */
function lowerString({ fingers }: DroneScene, { id }: NoteEvent, { kind }: RankedDrone): number {
  return PLACES.indexOf(fingers.get(id)!.place) - (kind === 'lower' ? 1 : 0);
}

/** The tune with a closing swell written on its two notes. */
export function setClosingSwell(tune: Tune, { swelled, last, sides }: ClosingSwell): Tune {
  return mapChosen(tune, new Set([swelled, last]), (note) =>
    note.id === swelled
      ? {
          ...note,
          drone: sides.swelled,
          marks: [...(note.marks ?? []).filter((mark) => mark !== 'closing-swell'), 'closing-swell'],
        }
      : { ...note, drone: sides.last },
  );
}
