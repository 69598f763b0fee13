import type { Semitones } from '#core/base';
import { midiOf, parsePitch, type Pitch, pitchName } from '#core/pitch';

/** Open strings by place, lowest place first. */
export type Tuning = readonly [Pitch, Pitch, Pitch, Pitch];

/** Named tunings, always written low to high with octaves. */
export const TUNINGS: readonly { readonly name: string; readonly tuning: Tuning }[] = [
  ['standard', 'G3 D4 A4 E5'],
  ['high bass and counter', 'A3 E4 A4 E5'],
  ['high bass', 'A3 D4 A4 E5'],
  ['low bass', 'D3 D4 A4 E5'],
  ['double D', 'D3 D4 A4 D5'],
  ['double G', 'G3 D4 G4 D5'],
  ['open G', 'G3 D4 G4 B4'],
  ['open A', 'A3 E4 A4 C#5'],
].map(([name, strings]) => ({ name: name!, tuning: parseTuning(strings!)! }));

export const STANDARD_TUNING: Tuning = TUNINGS[0]!.tuning;

/** Reads four pitches low to high with octaves, `A3 E4 A4 E5`; null for anything else. */
export function parseTuning(text: string): Tuning | null {
  const pitches = text.trim().split(/\s+/).map(parsePitch);
  const [g, d, a, e, more] = pitches;
  return g && d && a && e && more === undefined ? [g, d, a, e] : null;
}

export function tuningName(tuning: Tuning): string {
  return tuning.map(pitchName).join(' ');
}

export interface TuningFigures {
  readonly name: string;
  readonly strings: readonly string[];
  /** Change from standard by place. */
  readonly semitones: readonly Semitones[];
  readonly tensionRatio: readonly number[];
  readonly neighbourSemitones: readonly Semitones[];
  readonly totalTensionRatio: number;
}

/** Typical string tensions by place in newtons: guesses, to be replaced by the string maker's figures. */
export const TENSION_NEWTONS: readonly number[] = [44.5, 44, 55, 75];

/** T'/T after a change of n semitones on the same string: tension grows with the square of frequency, 2^(n/6). */
export function tensionRatio(semitones: Semitones): number {
  return 2 ** (semitones / 6);
}

/** What a tuning asks of the strings, against standard. */
export function tuningFigures(name: string, tuning: Tuning): TuningFigures {
  const semitones = tuning.map((pitch, i) => midiOf(pitch) - midiOf(STANDARD_TUNING[i]!));
  const ratios = semitones.map(tensionRatio);
  const total = TENSION_NEWTONS.reduce((sum, newtons) => sum + newtons, 0);
  const retuned = TENSION_NEWTONS.reduce((sum, newtons, i) => sum + newtons * ratios[i]!, 0);
  return {
    name,
    strings: tuning.map(pitchName),
    semitones,
    tensionRatio: ratios,
    neighbourSemitones: [0, 1, 2].map((i) => midiOf(tuning[i + 1]!) - midiOf(tuning[i]!)),
    totalTensionRatio: retuned / total,
  };
}
