import type { Millimetres, Semitones } from '#core/base';
import { nutDistance, stopOnString } from '#core/fingering';
import type { Instrument } from '#core/instrument';
import { alterInKey, type Key, midiOf, type Pitch, pitchAtStep, staffStep } from '#core/pitch';
import { type Place, PLACES } from '#core/tune';
import type { Tuning } from '#core/tuning';

/** Where a finger stands against its plain place: a low one nearer to the nut, a high one farther from it. */
export type Lean = 'low' | 'plain' | 'high';

/** Plain places of the fingers in semitones above the nut: a tone, a major third, a fourth, a fifth. */
const PLAIN: readonly Semitones[] = [0, 2, 4, 5, 7];
/** Letter-name steps on a string in first position, and one more for the extended fourth. */
const STEPS = 5;

/** One note of the key on one string in first position. */
export interface ScaleStop {
  readonly place: Place;
  readonly pitch: Pitch;
  readonly finger: number;
  readonly semitones: Semitones;
  readonly lean: Lean;
  /** From the nut. */
  readonly mm: Millimetres;
  /** Beyond the hand: the fourth finger stretched, or the first drawn back to the nut. */
  readonly extension: 'low' | 'high' | null;
}

/** The notes of a key on a string, from the open string or the lowest that is in the key up to the extended fourth. */
export function scaleOnString(
  key: Key,
  place: Place,
  tuning: Tuning,
  { stringLengthMm }: Pick<Instrument, 'stringLengthMm'>,
): ScaleStop[] {
  const open = tuning[PLACES.indexOf(place)]!;
  const stops: ScaleStop[] = [];
  for (let step = 0; step <= STEPS; step++) {
    const natural = pitchAtStep(staffStep(open) + step);
    const pitch = { ...natural, alter: alterInKey(key, natural.letter) };
    const stop = stopOnString(pitch, place, tuning);
    if (!stop || (step === STEPS && stop.semitones > 8)) continue;
    const { finger, semitones } = stop;
    stops.push({
      place,
      pitch,
      finger,
      semitones,
      lean: finger === 0 ? 'plain' : leanOf(finger, semitones),
      mm: nutDistance(semitones, stringLengthMm),
      extension: semitones === 8 ? 'high' : semitones === 1 ? 'low' : null,
    });
  }
  return stops;
}

export function leanOf(finger: number, semitones: Semitones): Lean {
  const off = semitones - PLAIN[finger]!;
  if (off === 0) return 'plain';
  return off < 0 ? 'low' : 'high';
}

/** The lowest and highest notes of the key in first position. */
export function rangeOf(
  scale: readonly ScaleStop[],
): { readonly lowest: ScaleStop; readonly highest: ScaleStop } | null {
  const sorted = [...scale].sort((a, b) => midiOf(a.pitch) - midiOf(b.pitch));
  const [lowest, highest] = [sorted[0], sorted[sorted.length - 1]];
  return lowest && highest ? { lowest, highest } : null;
}
