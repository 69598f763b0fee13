import { compare, ZERO } from '#core/base';
import { calledNote, letteredPitch, parseCall, parseLetter } from '#core/entry';
import type { Key, Pitch } from '#core/pitch';
import { staffStep } from '#core/pitch';
import { type Place, type Tune, unroll, type UnrolledNote } from '#core/tune';
import type { Tuning } from '#core/tuning';

/** Notes of a beginning that are kept for the search. */
export const FIRST_NOTES = 24;

/** How a tune begins: letter-name steps from note to note without octaves, a digit 0 … 6 each. */
export interface FirstNotes {
  /** From the very first note, pickup included. */
  readonly fromStart: string;
  /** From the first full bar. */
  readonly fromBar: string;
}

/** C major: what a key says about accidentals does not matter for steps. */
const ANY_KEY: Key = { letter: 'C', alter: 0, mode: 'major' };

/**
 * The beginning of a tune by steps. Steps do not know the key: D F♯ A and G B D are both 2, 2. Octaves are left out, so
 * that a player need not say them. Only as much of the form is played through as holds them: nearly always one part.
 */
export function firstNotes(tune: Tune): FirstNotes {
  for (let plays = 1; ; plays *= 2) {
    const { notes, passes } = unroll({ ...tune, form: tune.form.slice(0, plays) });
    const bar = passes[0]?.firstFullBarOnset ?? ZERO;
    const inBar = notes.findIndex(({ onset }) => compare(onset, bar) >= 0);
    const holdsAll = inBar >= 0 && notes.length > inBar + FIRST_NOTES;
    if (holdsAll || plays >= tune.form.length) return beginning(notes, Math.max(0, inBar));
  }
}

function beginning(notes: readonly UnrolledNote[], inBar: number): FirstNotes {
  const stepsFrom = (start: number) =>
    stepsOf(notes.slice(start, start + FIRST_NOTES).map(({ note: { pitch } }) => pitch));
  return { fromStart: stepsFrom(0), fromBar: stepsFrom(inBar) };
}

function stepsOf(pitches: readonly Pitch[]): string {
  return pitches
    .slice(1)
    .map((pitch, i) => (((staffStep(pitch) - staffStep(pitches[i]!)) % 7) + 7) % 7)
    .join('');
}

/** What was typed: the steps, or where it cannot be read. `column` counts from 1. */
export type FirstNotesRead =
  | { readonly ok: true; readonly notes: number; readonly steps: string }
  | { readonly ok: false; readonly column: number; readonly found: string };

const RUN_OF_LETTERS = /^[a-g]{2,}$/i;

/**
 * Reads first notes as they are typed: letters (`d f# a`, or close together `dfa`) or calls (`D:0 D:2 A:0`, `A:1 3 0`),
 * also mixed. Calls are those of the given tuning. One note alone has no steps: everything begins so.
 */
export function readFirstNotes(text: string, tuning: Tuning): FirstNotesRead {
  const pitches: Pitch[] = [];
  let before: { pitch: Pitch; place: Place } | null = null;
  for (const { 0: token, index } of text.matchAll(/[^\s,;|]+/g)) {
    const signs = token.replace(/♯/g, '#').replace(/♭/g, 'b');
    for (const word of RUN_OF_LETTERS.test(signs) ? signs : [signs]) {
      const call = parseCall(word);
      const letter = call ? null : parseLetter(word);
      if (call) {
        before = calledNote(call, tuning, ANY_KEY, before, 'nearest');
        pitches.push(before.pitch);
      } else if (letter) {
        pitches.push(letteredPitch(letter, ANY_KEY, pitches[pitches.length - 1] ?? null));
      } else return { ok: false, column: index + 1, found: token };
    }
  }
  return { ok: true, notes: pitches.length, steps: stepsOf(pitches) };
}
