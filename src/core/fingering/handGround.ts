import type { Millimetres, Semitones } from '#core/base';
import type { Instrument } from '#core/instrument';
import { alterInKey, midiOf, pitchAtStep, staffStep } from '#core/pitch';
import { type Place, PLACES, type Tune } from '#core/tune';
import { STANDARD_TUNING } from '#core/tuning';
import { handHome, type HandStop } from './positions';

/** What the tune gives the hand to go by: where the key's own notes lie, and which open strings ring with it. */
export interface HandGround {
  readonly stringLengthMm: Millimetres;
  /** Where a finger rests: on the key's own note of its letter, in semitones above the open string. */
  readonly home: (stop: Pick<HandStop, 'place' | 'finger' | 'position'>) => Semitones;
  /** Whether an open string of the tune's tuning has a stop's pitch and rings: the tonic, the fifth, and in a cross-tuning any. */
  readonly ringsOpen: (stop: Pick<HandStop, 'place' | 'semitones'>) => boolean;
}

/** Semitones of a fifth. */
const FIFTH = 7;

/** The ground of a tune's tuning and key; low first fingers of a flat key lie at home. */
export function handGround(
  { tuning, key }: Pick<Tune, 'tuning' | 'key'>,
  { stringLengthMm }: Pick<Instrument, 'stringLengthMm'>,
): HandGround {
  const opens = tuning.map(midiOf);
  const tonic = midiOf({ letter: key.letter, alter: key.alter, octave: 4 });
  const isCrossTuned = tuning.some((open, i) => midiOf(open) !== midiOf(STANDARD_TUNING[i]!));
  const ringing = new Set(
    opens.filter((open) => isCrossTuned || (open - tonic + 120) % 12 === 0 || (open - tonic - FIFTH + 120) % 12 === 0),
  );
  const homes = new Map<string, Semitones>();
  const findHome = (place: Place, finger: number, position: HandStop['position']): Semitones => {
    // Half position lies a semitone back; it has no letters of its own.
    if (position < 1) return handHome(position, finger);
    const at = PLACES.indexOf(place);
    const natural = pitchAtStep(staffStep(tuning[at]!) + position - 1 + finger);
    return midiOf({ ...natural, alter: alterInKey(key, natural.letter) }) - opens[at]!;
  };
  return {
    stringLengthMm,
    home: ({ place, finger, position }) => {
      const name = `${place}${finger}@${position}`;
      const found = homes.get(name) ?? findHome(place, finger, position);
      homes.set(name, found);
      return found;
    },
    ringsOpen: ({ place, semitones }) => ringing.has(opens[PLACES.indexOf(place)]! + semitones),
  };
}
