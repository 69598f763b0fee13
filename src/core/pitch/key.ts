import type { Letter } from './pitch';

export const MODES = ['major', 'minor', 'dorian', 'mixolydian', 'phrygian', 'lydian', 'locrian'] as const;
export type Mode = (typeof MODES)[number];

/** A key: tonic, mode, and accidentals that the signature does not follow from these two. */
export interface Key {
  readonly letter: Letter;
  readonly alter: number;
  readonly mode: Mode;
  readonly extra?: readonly { readonly letter: Letter; readonly alter: number }[];
}

const SHARP_ORDER: readonly Letter[] = ['F', 'C', 'G', 'D', 'A', 'E', 'B'];
/** Place of each letter on the line of fifths, C = 0. */
const FIFTHS_OF_LETTER: Record<Letter, number> = { F: -1, C: 0, G: 1, D: 2, A: 3, E: 4, B: 5 };
/** How many fifths a mode's signature lies from the major key on the same tonic. */
const FIFTHS_OF_MODE: Record<Mode, number> = {
  lydian: 1,
  major: 0,
  mixolydian: -1,
  dorian: -2,
  minor: -3,
  phrygian: -4,
  locrian: -5,
};

/** Sharps (positive) or flats (negative) in the signature: the tonic's place on the line of fifths, moved by the mode. */
export function keyFifths(key: Key): number {
  return FIFTHS_OF_LETTER[key.letter] + 7 * key.alter + FIFTHS_OF_MODE[key.mode];
}

/** What the signature does to a letter, in semitones. */
export function alterInKey(key: Key, letter: Letter): number {
  const extra = key.extra?.find((accidental) => accidental.letter === letter);
  if (extra) return extra.alter;
  const fifths = keyFifths(key);
  const place = SHARP_ORDER.indexOf(letter);
  // The seven letters are altered again, to doubles, beyond seven fifths.
  return fifths >= 0 ? Math.floor((fifths + 6 - place) / 7) : 0 - Math.floor((place - fifths) / 7);
}

/** `D major`, `B flat major` is written `Bb major`. */
export function keyName(key: Key): string {
  const accidental = key.alter === 1 ? '#' : key.alter === -1 ? 'b' : '';
  return `${key.letter}${accidental} ${key.mode}`;
}

export function sameKey(a: Key, b: Key): boolean {
  return keyName(a) === keyName(b) && JSON.stringify(a.extra ?? []) === JSON.stringify(b.extra ?? []);
}
