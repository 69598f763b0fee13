import type { Semitones } from '#core/base';
import { midiOf, type Pitch, staffStep } from './pitch';

const NAMES = ['unison', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'octave'];
/** Semitones of the perfect or major interval over each number of letter-name steps. */
const PLAIN = [0, 2, 4, 5, 7, 9, 11, 12];
const PERFECT = new Set([0, 3, 4, 7]);

/**
 * Name of the interval between two pitches by letter names and semitones, with its way: `perfect fifth up`,
 * `minor third down`, `unison`; beyond an octave `octave and perfect fifth up`.
 */
export function intervalName(from: Pitch, to: Pitch): string {
  const steps = staffStep(to) - staffStep(from);
  const semitones = midiOf(to) - midiOf(from);
  const isDown = steps < 0 || (steps === 0 && semitones < 0);
  const name = simpleName(Math.abs(steps), isDown ? 0 - semitones : semitones);
  return steps === 0 && semitones === 0 ? name : `${name} ${isDown ? 'down' : 'up'}`;
}

function simpleName(steps: number, semitones: Semitones): string {
  if (steps > 7) return `octave and ${simpleName(steps - 7, semitones - 12)}`;
  const off = semitones - PLAIN[steps]!;
  if (steps === 0 && off === 0) return NAMES[0]!;
  if (steps === 7 && off === 0) return NAMES[7]!;
  return `${qualityOf(off, PERFECT.has(steps))} ${NAMES[steps]!}`;
}

function qualityOf(off: Semitones, isPerfect: boolean): string {
  if (off === 0) return isPerfect ? 'perfect' : 'major';
  if (off > 0) return off === 1 ? 'augmented' : 'doubly augmented';
  if (!isPerfect && off === -1) return 'minor';
  return off === (isPerfect ? -1 : -2) ? 'diminished' : 'doubly diminished';
}

/** Consonances in semitones within the octave: unison, thirds, fourth, fifth, sixths. */
const CONSONANT: ReadonlySet<Semitones> = new Set([0, 3, 4, 5, 7, 8, 9]);

/** Whether two notes so far apart agree, octaves left out of account. */
export function isConsonant(semitones: Semitones): boolean {
  return CONSONANT.has(Math.abs(semitones) % 12);
}
