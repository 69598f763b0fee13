import type { Semitones } from '#core/base';
import { midiOf, type Pitch, staffStep } from '#core/pitch';
import { type Place, PLACES } from '#core/tune';
import type { Tuning } from '#core/tuning';

/** Half position is 0.5; the others by the letter-name step on which the first finger lies above the open string. */
export const POSITIONS = [0.5, 1, 2, 3, 4, 5] as const;
export type Position = (typeof POSITIONS)[number];

/**
 * Where the first finger lies at home in each position, in semitones above the nut: a whole tone up in first position,
 * a semitone lower in half position, the plain fourth, fifth ... of the major scale above.
 */
const FIRST_FINGER_HOME: Readonly<Record<Position, Semitones>> = { 0.5: 1, 1: 2, 2: 4, 3: 5, 4: 7, 5: 9 };

/** Home of the fingers above that of the first: tone, minor third, fourth, which is a hand at rest with a low third. */
const HOME_ABOVE_FIRST: readonly Semitones[] = [0, 0, 2, 3, 5];

/** Below the first finger's home the hand reaches one semitone, above it the span of a fourth; half position starts at its home. */
const REACH_ABOVE_FIRST: Semitones = 5;

/** One note under one hand: place, finger (0 is the open string) and the position the hand is in. */
export interface HandStop {
  readonly place: Place;
  readonly finger: number;
  readonly position: Position;
  readonly semitones: Semitones;
  /** The fourth finger is stretched one semitone beyond the hand. */
  readonly extended: boolean;
  /** Another finger than the letters ask for stands in. */
  readonly substitute: boolean;
}

export function handHome(position: Position, finger = 1): Semitones {
  return FIRST_FINGER_HOME[position] + HOME_ABOVE_FIRST[finger]!;
}

/** Semitones above the open string that a hand covers in a position, the extended fourth apart. */
export function handReach(position: Position): { readonly low: Semitones; readonly high: Semitones } {
  const home = FIRST_FINGER_HOME[position];
  return { low: position === 0.5 ? 1 : home - 1, high: home + REACH_ABOVE_FIRST };
}

/**
 * Every way to have a pitch on one string, the finger of its letter first: finger = letter-name steps above the open
 * string less those to the first finger. Half position lies a semitone back, so a sharp or natural takes the next finger
 * up and a flat its own. A neighbour finger may stand in where it is within a tone of its home.
 */
export function stopsOnString(pitch: Pitch, place: Place, tuning: Tuning): HandStop[] {
  const open = tuning[PLACES.indexOf(place)]!;
  const semitones = midiOf(pitch) - midiOf(open);
  if (semitones < 0) return [];
  if (semitones === 0)
    return POSITIONS.map((position) => ({ place, finger: 0, position, semitones, extended: false, substitute: false }));
  const steps = staffStep(pitch) - staffStep(open);
  return POSITIONS.flatMap((position): HandStop[] => {
    const { low, high } = handReach(position);
    if (semitones < low || semitones > high + 1) return [];
    const extended = semitones > high;
    const own = Math.min(
      4,
      Math.max(1, position === 0.5 ? halfFinger(pitch, steps, semitones) : steps - (position - 1)),
    );
    const fingers = extended ? [4] : [own, own - 1, own + 1];
    return fingers
      .filter((finger) => finger === own || canStandIn(finger, position, semitones))
      .map((finger) => ({ place, finger, position, semitones, extended, substitute: finger !== own && !extended }));
  });
}

function halfFinger(pitch: Pitch, steps: number, semitones: Semitones): number {
  if (semitones === 1) return 1;
  return pitch.alter < 0 ? steps : steps + 1;
}

function canStandIn(finger: number, position: Position, semitones: Semitones): boolean {
  return finger >= 1 && finger <= 4 && Math.abs(semitones - handHome(position, finger)) <= 2;
}

/** Where another note of a chord goes: on the string below those it has, or, sounding above the melody, on the one above. */
export function nextString(
  melody: Pitch,
  pitch: Pitch,
  chord: readonly { readonly place: Place }[],
): Place | undefined {
  const strings = chord.map(({ place }) => PLACES.indexOf(place));
  return PLACES[midiOf(pitch) > midiOf(melody) ? Math.max(...strings) + 1 : Math.min(...strings) - 1];
}
