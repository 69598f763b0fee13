import type { AbcElement, AbcPitch } from 'abcjs/src/parse/abc_parse.js';
import { type Fraction, nearestFraction } from '#core/base';
import { alterInKey, type Key, type Letter, type Mode, MODES, type Pitch, pitchAtStep } from '#core/pitch';
import type { Meter, NoteEvent } from '#core/tune';
import type { OpenTuplet } from '../score';

const ACCIDENTALS: Record<string, number> = { dblflat: -2, flat: -1, natural: 0, sharp: 1, dblsharp: 2 };
const MODE_NAMES: Record<string, Mode> = {
  '': 'major',
  maj: 'major',
  ion: 'major',
  m: 'minor',
  min: 'minor',
  aeo: 'minor',
  dor: 'dorian',
  mix: 'mixolydian',
  phr: 'phrygian',
  lyd: 'lydian',
  loc: 'locrian',
};
export function meterOf(element: AbcElement | undefined): Meter | null {
  if (!element) return null;
  if (element.type === 'common_time') return { num: 4, den: 4, symbol: 'common' };
  if (element.type === 'cut_time') return { num: 2, den: 2, symbol: 'cut' };
  const value = element.value?.[0];
  if (element.type !== 'specified' || !value) return null;
  const num = value.num.split('+').reduce((sum, term) => sum + Number(term), 0);
  const den = Number(value.den ?? 1);
  return num > 0 && num <= 64 && [1, 2, 4, 8, 16, 32].includes(den) ? { num, den } : null;
}

export function keyOf(element: AbcElement): Key {
  const root = element.root ?? 'C';
  const given = new Map(
    element.accidentals?.map(({ acc, note }) => [note.toUpperCase() as Letter, ACCIDENTALS[acc] ?? 0]),
  );
  if (/^H/i.test(root)) return { letter: 'A', alter: 0, mode: 'mixolydian' };
  const isLetter = /^[A-G]$/.test(root);
  const alter = element.acc === '#' ? 1 : element.acc === 'b' ? -1 : 0;
  const mode = MODE_NAMES[(element.mode ?? '').toLowerCase().slice(0, 3)] ?? MODES[0];
  const key: Key = { letter: isLetter ? (root as Letter) : 'C', alter: isLetter ? alter : 0, mode };
  const extra = (['C', 'D', 'E', 'F', 'G', 'A', 'B'] as const).flatMap((letter) => {
    const wanted = given.get(letter) ?? 0;
    return wanted === alterInKey(key, letter) ? [] : [{ letter, alter: wanted }];
  });
  return extra.length > 0 ? { ...key, extra } : key;
}

export function endingNumbers(text: string): number[] | null {
  const numbers: number[] = [];
  for (const item of text.replace(/[.\s"]/g, '').split(',')) {
    const match = /^(\d{1,2})(?:-(\d{1,2}))?$/.exec(item);
    if (!match) return null;
    for (let k = Number(match[1]); k <= Number(match[2] ?? match[1]); k++) numbers.push(k);
  }
  return numbers.length > 0 && numbers.every((number) => number > 0) ? numbers : null;
}

/** The tuplet that begins at an element; null where none does. */
export function tupletOf(element: AbcElement, offset: number): OpenTuplet | null {
  if (!element.startTriplet) return null;
  const notes = element.startTriplet;
  const inTimeOf = Math.max(1, Math.round((element.tripletMultiplier ?? 2 / 3) * notes));
  return { notes, inTimeOf, left: element.tripletR ?? notes, offset };
}

/** Lengths from here on are no numbers to count with; far beyond what a tune may hold. */
const MAX_COUNTED = 1e9;

/** How long an element is as written; null where its length is beyond counting. */
export function lengthOf({ duration: wholes = 0 }: AbcElement): Fraction | null {
  // The parser gives NaN for a length of thousands of digits.
  return wholes < MAX_COUNTED ? nearestFraction(wholes) : null;
}

/** The chord symbol over an element; the parser writes its sharps and flats as signs of their own. */
export function chordOf(element: AbcElement): string | undefined {
  const name = element.chord?.find(({ position }) => position === undefined || position === 'default')?.name;
  return name
    ?.replace(/([A-G])♯/g, '$1#')
    .replace(/([A-G])♭/g, '$1b')
    .slice(0, 40);
}

/** What a pitch depends on beside its key. */
interface PitchContext {
  /** Accidentals of the bar so far, by letter or by letter and octave. */
  readonly accidentals: Map<string, number>;
  /** How far they hold. */
  readonly propagate: string;
  /** The note before, which may be tied to it. */
  readonly before?: NoteEvent | null;
}

/** The parser counts steps from C4; key and bar accidentals are left to us. */
export function pitchOf(
  { pitch, accidental }: AbcPitch | { pitch: number; accidental?: string },
  key: Key,
  { accidentals, propagate, before = null }: PitchContext,
): Pitch {
  const natural = pitchAtStep(28 + pitch);
  // By default an accidental holds for its letter in every octave up to the bar line.
  const slot = propagate === 'octave' ? `${natural.letter}${natural.octave}` : natural.letter;
  if (accidental !== undefined) {
    const alter = ACCIDENTALS[accidental] ?? 0;
    if (propagate !== 'not') accidentals.set(slot, alter);
    return { ...natural, alter };
  }
  // A tie carries the accidental over the bar line.
  const tied = before?.tie
    ? [before.pitch, ...(before.stops ?? [])].find(
        ({ letter, octave }) => letter === natural.letter && octave === natural.octave,
      )
    : undefined;
  return { ...natural, alter: tied?.alter ?? accidentals.get(slot) ?? alterInKey(key, natural.letter) };
}
