import type { Schools } from '#core/schools';
import { type Place, PLACES, type UnrolledNote } from '#core/tune';
import type { Fingering, Stop } from './firstPosition';
import type { HandGround } from './handGround';
import { stopsOf } from './handMoves';
import { wholeDistance } from './nut';

/** Farther than this nobody plans a finger: a bound, so that the longest tunes stay quick. */
const LOOKED_AHEAD = 256;
/** A held finger strains the hand where it lies so much further from the next than the two do at rest. A guess. */
const STRAIN_MM = 8;
/** Notes on one string that make a falling run. */
const RUN_NOTES = 3;

type Of = (index: number) => Fingering;

/** What of the played tune decides how long a finger may lie. */
export interface FingerScene {
  readonly notes: readonly UnrolledNote[];
  readonly of: Of;
  readonly ground: HandGround;
  readonly hold: Schools['fingers'];
}

/**
 * The last note through which a finger may stay where it is: later notes of the same position lie above it on its string, or
 * on other strings while it is not needed and its string is not wanted open. Those who lift also take it up where the span to
 * the next stop strains, or where a neighbour string must ring open beside it. null: it lifts at once. Time O(256).
 */
export function staysThrough({ notes, of, ground, hold }: FingerScene, from: number, held: Stop): number | null {
  const { position } = of(from);
  let last: number | null = null;
  for (let j = from + 1; j < Math.min(notes.length, from + LOOKED_AHEAD); j++) {
    const next = of(j);
    if (!next.reachable || next.position !== position || isInTheWay(held, next)) break;
    if (wantsOpen(notes[j]!, next, held.place)) break;
    if (hold === 'lift' && (strains(held, next, ground) || ringsBeside(notes[j]!, next, held.place))) break;
    last = j;
  }
  return last;
}

/**
 * The first note at whose beginning a finger may already be set for a later one: from there on the hand is in place, the finger
 * is not needed elsewhere, and nothing sounds on its string that it would stop. The note itself where it may not be sooner.
 */
export function mayLieFrom({ notes, of }: FingerScene, to: number, stop: Stop): number {
  const { position } = of(to);
  let first = to;
  for (let j = to - 1; j >= Math.max(0, to - LOOKED_AHEAD); j--) {
    const before = of(j);
    if (!before.reachable || before.position !== position || isInTheWay(stop, before)) break;
    if (wantsOpen(notes[j]!, before, stop.place)) break;
    first = j;
  }
  return first;
}

/**
 * Fingers that are set together where a run begins to fall on one string, to be lifted one after the other: the highest
 * first. null where none begins. Time O(run).
 */
export function setTogether({ notes, of }: FingerScene, from: number): readonly number[] | null {
  const first = of(from);
  if (!first.reachable || first.finger === null || first.finger === 0) return null;
  const falls = (a: Fingering, b: Fingering) =>
    b.reachable &&
    b.place === a.place &&
    b.position === a.position &&
    b.semitones < a.semitones &&
    b.finger! < a.finger!;
  // Within a run nothing is set anew.
  if (from > 0 && of(from - 1).finger !== null && falls(of(from - 1), first)) return null;
  let end = from;
  while (end + 1 < notes.length && notes[end + 1]!.restBefore.n === 0 && falls(of(end), of(end + 1))) end += 1;
  if (end - from + 1 < RUN_NOTES) return null;
  const fingers = Array.from({ length: end - from + 1 }, (_, k) => of(from + k).finger!).filter((finger) => finger > 0);
  return fingers.length > 1 ? fingers : null;
}

/** A note wants this finger in another place, or its string below where it lies. */
function isInTheWay(held: Stop, next: Fingering): boolean {
  return stopsOf(next).some(
    ({ place, finger, semitones }) =>
      (finger === held.finger && !(place === held.place && semitones === held.semitones)) ||
      (place === held.place && semitones < held.semitones),
  );
}

/** A drone on the string is wanted open. */
function wantsOpen({ note }: UnrolledNote, { place }: Fingering, string: Place): boolean {
  if (!note.drone) return false;
  return PLACES[PLACES.indexOf(place) + (note.drone === 'upper' ? 1 : -1)] === string;
}

function strains(held: Stop, next: Fingering, { home, stringLengthMm }: HandGround): boolean {
  const { position } = next;
  if (position === null) return false;
  return stopsOf(next).some((stop) => {
    if (stop.finger === 0 || stop.finger === held.finger) return false;
    const apart = (a: number, b: number) =>
      Math.abs(wholeDistance(a, stringLengthMm) - wholeDistance(b, stringLengthMm));
    return (
      apart(held.semitones, stop.semitones) - apart(home({ ...held, position }), home({ ...stop, position })) >
      STRAIN_MM
    );
  });
}

/** An open string sounds next to the one on which the finger lies. */
function ringsBeside({ note }: UnrolledNote, next: Fingering, string: Place): boolean {
  const at = PLACES.indexOf(string);
  const open = stopsOf(next)
    .filter(({ finger }) => finger === 0)
    .map(({ place }) => PLACES.indexOf(place));
  if (note.drone) open.push(PLACES.indexOf(next.place) + (note.drone === 'upper' ? 1 : -1));
  return open.some((place) => Math.abs(place - at) === 1);
}
