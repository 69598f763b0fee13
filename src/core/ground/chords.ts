import type { Millimetres } from '#core/base';
import { type TonalRole } from '#core/drones';
import { alterInKey, type Key, midiOf, type Pitch, pitchAtStep, staffStep } from '#core/pitch';
import { PLACES } from '#core/tune';
import type { ScaleStop } from './scale';

/** Steps of the scale on which the usual chords stand. */
export const DEGREES = ['I', 'IV', 'V'] as const;
export type Degree = (typeof DEGREES)[number];
const STEP_OF: Readonly<Record<Degree, number>> = { I: 0, IV: 3, V: 4 };

/** Two notes of one chord on neighbour strings under one hand. */
export interface ChordPair {
  readonly lower: ScaleStop;
  readonly upper: ScaleStop;
  readonly isBarre: boolean;
  /** How far apart the two fingers stand along the strings; 0 with an open string or a barre. */
  readonly spanMm: Millimetres;
}

export interface ChordFigure {
  readonly degree: Degree;
  /** `D`, `Em`, `F#dim`. */
  readonly name: string;
  /** Root, third and fifth on each string, lowest string first: its figure under the hand. */
  readonly stops: readonly ScaleStop[];
  readonly pairs: readonly ChordPair[];
}

/** The chord on a degree of a key: its figure, and every pair of its notes on neighbour strings that one hand has. */
export function chordFigure(key: Key, degree: Degree, scale: readonly ScaleStop[]): ChordFigure {
  const tonic = staffStep({ letter: key.letter, alter: 0, octave: 4 });
  const tones = [0, 2, 4].map((third) => inKey(key, tonic + STEP_OF[degree] + third));
  const classes = new Set(tones.map((tone) => midiOf(tone) % 12));
  const stops = scale.filter(({ pitch, extension }) => classes.has(midiOf(pitch) % 12) && extension !== 'high');
  const pairs = PLACES.slice(1).flatMap((upperPlace, i) => {
    const lowers = stops.filter(({ place }) => place === PLACES[i]);
    const uppers = stops.filter(({ place }) => place === upperPlace);
    return uppers.flatMap((upper) => lowers.flatMap((lower) => pairOf(lower, upper) ?? []));
  });
  return { degree, name: chordName(tones as [Pitch, Pitch, Pitch]), stops, pairs };
}

function inKey(key: Key, step: number): Pitch {
  const natural = pitchAtStep(step);
  return { ...natural, alter: alterInKey(key, natural.letter) };
}

/** Both under one hand: different fingers in their order, one across both, or an open string. */
function pairOf(lower: ScaleStop, upper: ScaleStop): ChordPair | null {
  if (midiOf(lower.pitch) >= midiOf(upper.pitch)) return null;
  const isOpen = lower.finger === 0 || upper.finger === 0;
  const isBarre = !isOpen && lower.finger === upper.finger;
  if (isBarre && lower.semitones !== upper.semitones) return null;
  const isCrossed = !isOpen && !isBarre && lower.finger > upper.finger !== lower.semitones >= upper.semitones;
  if (isCrossed) return null;
  return { lower, upper, isBarre, spanMm: isOpen || isBarre ? 0 : Math.abs(lower.mm - upper.mm) };
}

function chordName([root, third, fifth]: readonly [Pitch, Pitch, Pitch]): string {
  const accidental = root.alter === 1 ? '#' : root.alter === -1 ? 'b' : '';
  const [to3, to5] = [midiOf(third) - midiOf(root), midiOf(fifth) - midiOf(root)];
  const quality = to3 === 3 ? (to5 === 6 ? 'dim' : 'm') : to5 === 8 ? 'aug' : '';
  return `${root.letter}${accidental}${quality}`;
}

/** An open string in a key: what it is to it; null where it is not of the key. */
export interface OpenString {
  readonly place: ScaleStop['place'];
  readonly pitch: Pitch;
  readonly role: TonalRole | null;
}

export function openStrings(key: Key, tuning: readonly Pitch[]): OpenString[] {
  const tonic = inKey(key, staffStep({ letter: key.letter, alter: 0, octave: 4 }));
  const classOf = (steps: number) => midiOf(inKey(key, staffStep(tonic) + steps)) % 12;
  const scale = new Set(Array.from({ length: 7 }, (_, step) => classOf(step)));
  return tuning.map((pitch, i) => {
    const own = midiOf(pitch) % 12;
    const role = own === classOf(0) ? 'root' : own === classOf(4) ? 'fifth' : own === classOf(2) ? 'third' : 'other';
    return { place: PLACES[i]!, pitch, role: scale.has(own) ? role : null };
  });
}
