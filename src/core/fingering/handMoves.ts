import type { Millimetres } from '#core/base';
import type { Instrument } from '#core/instrument';
import { type Place, PLACES, type UnrolledNote } from '#core/tune';
import type { Fingering, Stop } from './firstPosition';
import { shiftWay } from './handCosts';
import type { Position } from './positions';

/** One finger leaves a string for another between two notes that follow each other. */
export interface Hop {
  readonly finger: number;
  readonly from: Place;
  readonly to: Place;
  /** It lies at one place on neighbour strings: it could stop both. */
  readonly couldBarre: boolean;
}

export interface Shift {
  readonly from: Position;
  readonly to: Position;
  /** Way of the hand along the string, without sign. */
  readonly mm: Millimetres;
}

/** What the hand does to come to a played note from the one before; null: neither. */
export interface HandMove {
  readonly hop: Hop | null;
  readonly shift: Shift | null;
}

const known = new WeakMap<
  ReadonlyMap<string, Fingering>,
  { notes: readonly UnrolledNote[]; moves: readonly (HandMove | null)[] }
>();

/**
 * Hops and shifts of a tune as it is played; `moves[i]` leads to note i. A note marked as a barre with the one before is
 * no hop: the finger lies there already. No link changes them: counted once for a fingering.
 * Time O(n).
 */
export function handMoves(
  notes: readonly UnrolledNote[],
  fingers: ReadonlyMap<string, Fingering>,
  { stringLengthMm }: Pick<Instrument, 'stringLengthMm'>,
): readonly (HandMove | null)[] {
  const counted = known.get(fingers);
  if (counted?.notes === notes) return counted.moves;
  const moves: (HandMove | null)[] = [];
  let before: Fingering | null = null;
  for (let i = 0; i < notes.length; i++) {
    const { note } = notes[i]!;
    const fingering = fingers.get(note.id)!;
    moves.push(before && moveBetween(before, fingering, note.marks?.includes('barre') ?? false, stringLengthMm));
    before = fingering;
  }
  known.set(fingers, { notes, moves });
  return moves;
}

function moveBetween(from: Fingering, to: Fingering, isBarred: boolean, stringLengthMm: Millimetres): HandMove | null {
  if (!from.reachable || !to.reachable) return null;
  if (from.position !== to.position && from.position !== null && to.position !== null) {
    const way = Math.abs(shiftWay(from.position, to.position, stringLengthMm));
    return { hop: null, shift: { from: from.position, to: to.position, mm: way } };
  }
  const hop = isBarred ? null : hopBetween(from, to);
  return hop && { hop, shift: null };
}

function hopBetween(from: Fingering, to: Fingering): Hop | null {
  if (from.stops.length === 0 && to.stops.length === 0)
    return from.finger !== null && from.finger > 0 && from.finger === to.finger && from.place !== to.place
      ? hopOf(from as Stop, to as Stop)
      : null;
  for (const a of stopsOf(from))
    for (const b of stopsOf(to)) {
      const isHop = a.finger > 0 && a.finger === b.finger && a.place !== b.place;
      // A finger that already lies across both strings need not move.
      const stays = stopsOf(from).some((other) => other.finger === b.finger && other.place === b.place);
      if (isHop && !stays) return hopOf(a, b);
    }
  return null;
}

function hopOf(a: Pick<Stop, 'finger' | 'place' | 'semitones'>, b: Pick<Stop, 'finger' | 'place' | 'semitones'>): Hop {
  const apart = Math.abs(PLACES.indexOf(a.place) - PLACES.indexOf(b.place));
  return { finger: a.finger, from: a.place, to: b.place, couldBarre: apart === 1 && a.semitones === b.semitones };
}

/** The stopped and open strings of a note or chord, the melody first; none where it is out of reach. */
export function stopsOf({ reachable, place, finger, semitones, stops }: Fingering): readonly Stop[] {
  if (!reachable || finger === null) return [];
  return [{ place, finger, semitones }, ...stops.flatMap((stop) => stop ?? [])];
}
