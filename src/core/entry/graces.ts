import { type Key, type Pitch, samePitch } from '#core/pitch';
import type { NoteEvent } from '#core/tune';
import type { Tuning } from '#core/tuning';
import { calledNote, parseCall } from './calls';
import { letteredPitch, parseLetter } from './letters';

/** Most grace notes before one note. */
export const MAX_GRACES = 16;

/** Grace notes as they were read, or the first word that is none, counted from 1. */
export type GracesRead =
  { readonly pitches: readonly Pitch[] } | { readonly word: string; readonly at: number; readonly expected: string };

/**
 * Reads the grace notes of a note, as calls (`A:1 A:2`) or letters (`e f#`), mixed as you like. Each lies as near as it
 * can to the one before, the first to the note itself.
 */
export function readGraces(text: string, note: NoteEvent, tuning: Tuning, key: Key): GracesRead {
  const words = text.trim().split(/\s+/).filter(Boolean);
  const pitches: Pitch[] = [];
  for (const [i, word] of words.entries()) {
    if (i === MAX_GRACES) return { word, at: i + 1, expected: `at most ${MAX_GRACES} grace notes` };
    const before = pitches[pitches.length - 1] ?? note.pitch;
    const call = parseCall(word);
    const letter = parseLetter(word);
    if (call) pitches.push(calledNote(call, tuning, key, { pitch: before, place: note.place ?? 'D' }).pitch);
    else if (letter) pitches.push(letteredPitch(letter, key, before));
    else return { word, at: i + 1, expected: 'a call such as A:1 or a letter such as f#' };
  }
  return { pitches };
}

const SIGNS = ['bb', 'b', 'n', '#', '##'];

/** Grace notes as letters that read back as the same. */
export function writeGraces(pitches: readonly Pitch[], note: NoteEvent, key: Key): string {
  let before = note.pitch;
  return pitches
    .map((pitch) => {
      const plain = { letter: pitch.letter, alter: null, octaves: 0 };
      const near = letteredPitch(plain, key, before);
      const octaves = pitch.octave - near.octave;
      const sign = samePitch({ ...near, octave: pitch.octave }, pitch) ? '' : SIGNS[pitch.alter + 2]!;
      before = pitch;
      return `${pitch.letter.toLowerCase()}${sign}${(octaves < 0 ? ',' : "'").repeat(Math.abs(octaves))}`;
    })
    .join(' ');
}
