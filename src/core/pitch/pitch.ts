import type { Midi } from '#core/base';

export const LETTERS = ['C', 'D', 'E', 'F', 'G', 'A', 'B'] as const;
export type Letter = (typeof LETTERS)[number];

/** A sounding pitch as it is spelled. `alter` in semitones (-2..2); octaves change at C, A4 = 440 Hz. */
export interface Pitch {
  readonly letter: Letter;
  readonly alter: number;
  readonly octave: number;
}

const SEMITONES_ABOVE_C: Record<Letter, number> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 };
const ACCIDENTALS: Record<number, string> = { [-2]: 'bb', [-1]: 'b', 0: '', 1: '#', 2: '##' };

export function midiOf(pitch: Pitch): Midi {
  return 12 * (pitch.octave + 1) + SEMITONES_ABOVE_C[pitch.letter] + pitch.alter;
}

/** Position in letter names, C0 = 0: the difference of two is the number of letter-name steps between them. */
export function staffStep(pitch: Pitch): number {
  return 7 * pitch.octave + LETTERS.indexOf(pitch.letter);
}

/** The unaltered pitch at a staff step; the inverse of `staffStep` for natural notes. */
export function pitchAtStep(step: number, alter = 0): Pitch {
  const octave = Math.floor(step / 7);
  return { letter: LETTERS[step - 7 * octave]!, alter, octave };
}

/**
 * The pitch of a height in semitones, spelled at a staff step or, where that would take more than a double accidental,
 * at the nearest step that does not. `farthest` is the most that a letter may be altered.
 */
export function pitchSpelled(step: number, midi: Midi, farthest = 2): Pitch {
  const natural = pitchAtStep(step);
  const alter = midi - midiOf(natural);
  if (alter > farthest) return pitchSpelled(step + 1, midi, farthest);
  if (alter < -farthest) return pitchSpelled(step - 1, midi, farthest);
  return { ...natural, alter };
}

/** `F#4`, `Bb3`, `C5`. */
export function pitchName(pitch: Pitch): string {
  return `${pitch.letter}${ACCIDENTALS[pitch.alter] ?? ''}${pitch.octave}`;
}

/** Reads `F#4`, `Bb3`, `C##5`; null for anything else. The inverse of `pitchName`. */
export function parsePitch(text: string): Pitch | null {
  const match = /^([A-Ga-g])(##|#|bb|b)?(-?\d)$/.exec(text.trim());
  if (!match) return null;
  const alter = { '##': 2, '#': 1, bb: -2, b: -1 }[match[2] ?? ''] ?? 0;
  return { letter: match[1]!.toUpperCase() as Letter, alter, octave: Number(match[3]) };
}

export function samePitch(a: Pitch, b: Pitch): boolean {
  return a.letter === b.letter && a.alter === b.alter && a.octave === b.octave;
}
