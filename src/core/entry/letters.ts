import type { Semitones } from '#core/base';
import { alterInKey, type Key, type Letter, LETTERS, midiOf, type Pitch, pitchAtStep, staffStep } from '#core/pitch';
import type { Tuning } from '#core/tuning';

/** A note by its letter: `f`, `f#`, `bb` (b flat), `fn` (natural), with `'` or `,` for octaves off the nearest. */
export interface LetterCall {
  readonly letter: Letter;
  /** null: what the key says. */
  readonly alter: Semitones | null;
  readonly octaves: number;
}

const LETTER = /^([a-g])(##|#|bb|b|n)?('{1,3}|,{1,3})?$/i;
const ALTERS: Record<string, Semitones> = { '##': 2, '#': 1, n: 0, b: -1, bb: -2 };

/** Reads one letter; null where it is not one. */
export function parseLetter(text: string): LetterCall | null {
  const match = LETTER.exec(text);
  if (!match) return null;
  const [, letter, sign, octave] = match;
  const size = octave?.length ?? 0;
  return {
    letter: letter!.toUpperCase() as Letter,
    alter: sign === undefined ? null : ALTERS[sign.toLowerCase()]!,
    octaves: octave?.startsWith(',') ? 0 - size : size,
  };
}

/** Where the hand begins when nothing was played yet: A4, in the middle of the fiddle. */
const FIRST: Pitch = { letter: 'A', alter: 0, octave: 4 };

/**
 * The note of a letter: in the octave nearest to the note before by letter names, so at most a fourth away (a letter
 * three steps either way goes down only where that is the nearer), then moved by whole octaves where asked. Where a tuning is
 * given the hand stays in the first position: what lies beyond it is taken an octave off, unless the tune is out there already.
 */
export function letteredPitch(
  { letter, alter, octaves }: LetterCall,
  key: Key,
  before: Pitch | null,
  tuning: Tuning | null = null,
): Pitch {
  const from = staffStep(before ?? FIRST);
  const up = (LETTERS.indexOf(letter) - from + 70) % 7;
  const steps = up <= 3 ? up : up - 7;
  const at = (octave: number): Pitch => ({
    ...pitchAtStep(from + steps + 7 * octave),
    alter: alter ?? alterInKey(key, letter),
  });
  const near = at(octaves);
  if (octaves !== 0 || !tuning || isInFirstPosition(near, tuning) || (before && !isInFirstPosition(before, tuning)))
    return near;
  return [at(-1), at(1)].find((pitch) => isInFirstPosition(pitch, tuning)) ?? near;
}

/** Semitones above an open string that the hand covers in first position. */
const REACH = 7;

function isInFirstPosition(pitch: Pitch, tuning: Tuning): boolean {
  return tuning.some((open) => {
    const semitones = midiOf(pitch) - midiOf(open);
    return semitones >= 0 && semitones <= REACH;
  });
}
