import type { Semitones } from '#core/base';
import { alterInKey, type Key, midiOf, type Pitch, pitchAtStep, staffStep } from '#core/pitch';
import type { Schools } from '#core/schools';
import { type Place, PLACES } from '#core/tune';
import type { Tuning } from '#core/tuning';

/** A note as it is called out: `D:2`, `A:3+` (raised), `E:1-` (low), or `2` with the string left to the hand. */
export interface Call {
  readonly place: Place | null;
  readonly finger: number;
  /** Semitones off the key's own note: `-` lowers the finger, `+` raises it. */
  readonly shift: Semitones;
}

/** What a call sounds: the string is said or inferred. */
export interface CalledNote {
  readonly pitch: Pitch;
  readonly place: Place;
  readonly inferred: boolean;
}

const CALL = /^(?:([GDAE]):)?([0-4])(-{1,2}|\+{1,2})?$/i;

/** Reads one call; null where it is not one. */
export function parseCall(text: string): Call | null {
  const match = CALL.exec(text);
  if (!match) return null;
  const [, place, finger, shift] = match;
  const size = shift?.length ?? 0;
  return {
    place: place ? (place.toUpperCase() as Place) : null,
    finger: Number(finger),
    shift: shift?.startsWith('-') ? 0 - size : size,
  };
}

/**
 * The note of a call in a tuning and key. The finger gives the letter, counted in letter names from the open string's
 * own; the key in force gives its accidental; `-` and `+` move it by semitones. Finger 0 is the open string as it is
 * tuned, which `+` raises. Without a place it stays on the string of the note before; or, as others are taught, the hand stays
 * as near as it can: the string on which the finger lies nearest in pitch to the note before, on a tie the one played last,
 * then the lower. With nothing before, the D string.
 */
export function calledNote(
  { place, finger, shift }: Call,
  tuning: Tuning,
  key: Key,
  before: { readonly pitch: Pitch; readonly place: Place } | null,
  bare: Schools['bareFinger'] = 'same-string',
): CalledNote {
  if (place) return { pitch: pitchOnString(place, finger, shift, tuning, key), place, inferred: false };
  if (!before || bare === 'same-string') {
    const stays = before?.place ?? 'D';
    return { pitch: pitchOnString(stays, finger, shift, tuning, key), place: stays, inferred: true };
  }
  const options = PLACES.map((candidate) => {
    const pitch = pitchOnString(candidate, finger, shift, tuning, key);
    const distance = Math.abs(midiOf(pitch) - midiOf(before.pitch));
    return { pitch, place: candidate, distance: distance - (candidate === before.place ? 0.5 : 0) };
  });
  const nearest = options.reduce((best, option) => (option.distance < best.distance ? option : best));
  return { pitch: nearest.pitch, place: nearest.place, inferred: true };
}

function pitchOnString(place: Place, finger: number, shift: Semitones, tuning: Tuning, key: Key): Pitch {
  const open = tuning[PLACES.indexOf(place)]!;
  if (finger === 0) return { ...open, alter: open.alter + shift };
  const natural = pitchAtStep(staffStep(open) + finger);
  return { ...natural, alter: alterInKey(key, natural.letter) + shift };
}
