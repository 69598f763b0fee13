import type { Mode } from '#core/pitch';
import type { NoteMark } from '#core/tune';

/** Note types by their length in 1/256 of a whole note, the longest first. */
export const NOTE_TYPES: readonly (readonly [string, number])[] = [
  ['long', 1024],
  ['breve', 512],
  ['whole', 256],
  ['half', 128],
  ['quarter', 64],
  ['eighth', 32],
  ['16th', 16],
  ['32nd', 8],
  ['64th', 4],
  ['128th', 2],
  ['256th', 1],
];

/** Marks that have an element, by the group it stands in. */
export const MARK_ELEMENTS: Partial<Record<NoteMark, readonly ['articulations' | 'ornaments', string]>> = {
  staccato: ['articulations', 'staccato'],
  accent: ['articulations', 'accent'],
  tenuto: ['articulations', 'tenuto'],
  trill: ['ornaments', 'trill-mark'],
  turn: ['ornaments', 'turn'],
  mordent: ['ornaments', 'mordent'],
};

/** Elements by mark, those that other programs use for the same too. */
export const MARKS_READ: Readonly<Record<string, NoteMark>> = {
  ...Object.fromEntries(Object.entries(MARK_ELEMENTS).map(([mark, [, name]]) => [name, mark as NoteMark])),
  'strong-accent': 'accent',
  'detached-legato': 'tenuto',
  'inverted-mordent': 'mordent',
  'inverted-turn': 'turn',
};

export const MODES_READ: Readonly<Record<string, Mode>> = {
  major: 'major',
  minor: 'minor',
  dorian: 'dorian',
  phrygian: 'phrygian',
  lydian: 'lydian',
  mixolydian: 'mixolydian',
  aeolian: 'minor',
  ionian: 'major',
  locrian: 'locrian',
};

/** Kinds of chords by what stands after the root of a symbol. */
export const CHORD_KINDS: Readonly<Record<string, string>> = {
  '': 'major',
  m: 'minor',
  '7': 'dominant',
  maj7: 'major-seventh',
  m7: 'minor-seventh',
  dim: 'diminished',
  dim7: 'diminished-seventh',
  aug: 'augmented',
  '6': 'major-sixth',
  m6: 'minor-sixth',
  '9': 'dominant-ninth',
  sus4: 'suspended-fourth',
  sus2: 'suspended-second',
  '5': 'power',
};

/** Names of miscellaneous fields of ours begin so; what follows is the directive's own name. */
export const FIELD_PREFIX = 'morrin-';

/** Stands on a note that is the rest of the one before: a length that no single note has. */
export const JOINED = 'morrin-joined';
