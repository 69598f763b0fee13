import { divide, formatFraction, type Fraction, fraction } from '#core/base';
import { POSITIONS } from '#core/fingering';
import { HOLD_RANGE, LILTS, MAX_BREATH, PACE_RANGE } from '#core/tempo';
import { MAX_WISH, MIN_WISH } from '#core/travel';
import { DANCE_TYPES } from '#core/tune';
import { ALL_FILE_KINDS, FILE_KINDS } from '#formats/kinds';
import type { DirectiveName } from '#formats/score';
import { type ImportMatter, type ImportMessage, lengthWords, type ReadSubject, tuningFault } from '#formats/text';
import type { MemberOf } from './memberOf';
import { counted } from './plural';

/** What a reader has to say in words; of a file inside an archive it says which. */
export function importWords({ matter, entry }: Pick<ImportMessage, 'matter' | 'entry'>): string {
  const tell = WORDS[matter.what] as (matter: ImportMatter) => string;
  return `${entry === undefined ? '' : `${entry}: `}${tell(matter)}`;
}

type MatterOf<W extends ImportMatter['what']> = MemberOf<ImportMatter, 'what', W>;

/** `ABC, MusicXML, MIDI or`, before a plan or plans. */
const KINDS = `${ALL_FILE_KINDS.slice(0, -1)
  .map((kind) => FILE_KINDS[kind].label)
  .join(', ')} or`;
const A_PLAN = `${KINDS} a Morrin plan`;

const SUBJECTS: Readonly<Record<ReadSubject, string>> = {
  tune: 'This tune',
  score: 'This score',
  file: 'This file',
};

/** Words for each matter: one without words does not compile. */
const WORDS: { readonly [W in ImportMatter['what']]: (matter: MatterOf<W>) => string } = {
  'file-empty': () => `The file is empty: expected ${A_PLAN}.`,
  'no-tunes-file': () => `This is no file of tunes: expected ${A_PLAN}.`,
  'archive-too-many': ({ max }) => `This archive holds more than ${max} files.`,
  'archive-too-large': ({ maxMb }) => `Unpacked, this archive is over ${maxMb} MB.`,
  'archive-damaged': () => 'This archive is damaged.',
  'archive-empty': () => 'This archive holds no files, or is damaged.',
  'archive-without-tunes': () => `This archive holds no file of tunes: expected ${KINDS} Morrin plans.`,
  'packed-score-missing': () => 'This packed score does not hold the file that it names.',
  field: ({ path, words }) => `${path}: ${words}.`,
  'plan-field': ({ path, words }) => `${path}: ${words}.`,
  'empty-book': () => 'There is no tune in this book.',
  'not-json': ({ words }) => `Not JSON: ${words}.`,
  'not-xml': ({ words }) => `Not XML: ${words}`,
  'no-score': ({ found }) => `Expected score-partwise or score-timewise, found ${found}.`,
  'not-midi': () => 'This is not a standard MIDI file, or it is cut off.',
  'midi-frames': () => 'This MIDI file counts in film frames: expected one that counts in beats.',
  'midi-damaged': () => 'This MIDI file is damaged: a time in it is longer than a MIDI file can say.',
  'midi-too-much': ({ found }) => `This MIDI file could not be read: ${lengthWords({ code: 'too-much', found })}.`,
  'not-parsed': () => 'This tune could not be read at all; its text is kept as it is.',
  parser: ({ words }) => `${words}.`,
  'out-of-bounds': ({ subject, fault }) => `${SUBJECTS[subject]} could not be read: ${lengthWords(fault)}.`,
  fault: ({ subject, detail }) =>
    `Reading this ${subject} ended in a fault of Morrin (${detail}). Nothing of the file is lost; the rest is read.`,
  'no-abc-tune': () => 'No tune was found: expected ABC with a K: line and notes after it.',
  'no-key-line': () => 'No K: line was found; in ABC the music begins after the line that names the key, such as K:D.',
  'no-abc-notes': ({ title }) =>
    `No notes were found${title ? ` in "${title}"` : ''}: expected a K: line and notes after it.`,
  'no-part-notes': () => 'No notes were found: expected a part with notes that have a pitch.',
  'no-voice-notes': () => 'No notes were found in this voice.',
  'no-midi-notes': () => 'No notes were found in this MIDI file.',
  'no-midi-voice-notes': () => 'No notes were found in this voice.',
  'too-many-plays': ({ max }) => `With its repeats this plays over ${max} notes; each part is kept once.`,
  'too-many-bars': ({ max }) => `Only the first ${max} bars are read.`,
  'too-many-measures': ({ max }) => `Only the first ${max} measures are read.`,
  'too-many-notes': ({ max }) => `Only the first ${max} notes are read.`,
  voices: ({ read }) =>
    `Several voices: ${read === null ? 'the first one' : `“${read}”`} is read as the melody, the others are left out.`,
  'midi-voices': ({ read, others }) => `“${read}” is read as the melody, ${others} other voices are left out.`,
  'meter-not-kept': () => 'This meter cannot be kept; the meter before it stays.',
  'key-not-kept': () => 'This key signature cannot be kept; the key before it stays.',
  'ending-not-number': ({ text }) => `The ending "${text}" is not a number; its bars are played every time.`,
  'mark-not-kept': ({ name }) => `The mark "${name}" has no place in a plan yet; the original text keeps it.`,
  'remarks-not-kept': () => 'Written remarks over notes have no place in a plan yet; the original text keeps them.',
  'dynamics-not-kept': () => 'Dynamics have no place in a plan; the original file keeps them.',
  'lyrics-not-kept': () => 'Words to be sung have no place in a plan; the original file keeps them.',
  unpitched: () => 'Notes without a pitch are read as rests.',
  transposing: () => 'The part is written for a transposing instrument; pitches are read as they sound.',
  'scordatura-incomplete': () => 'This scordatura does not name all four strings; the tuning stays.',
  'scordatura-implausible': ({ tuning }) => `The tuning stays: ${tuningFault(tuning) ?? ''}.`,
  jump: ({ name }) => `${name} is not followed: the tune is read in its written order.`,
  jumps: () => 'Jumps are not followed: the tune is read in its written order.',
  'slurs-too-deep': ({ max }) => `Slurs are open inside ${max} others here; they are left out.`,
  'slur-unclosed': () => 'A slur is opened here and never closed; the notes keep a stroke each.',
  'slur-unopened': () => 'A slur is closed here that was never opened; it is left out.',
  'quote-unclosed': () => 'A chord name or note is opened with " and not closed; it is left out.',
  'mark-unclosed': ({ mark }) => `The mark ${mark} is opened with ! and not closed; it is left out.`,
  'tuplet-not-full': ({ notes, left }) =>
    `A tuplet of ${notes} is not full: ${left} more expected before the bar line.`,
  'bar-short': (matter) => barWords('too short', matter),
  'bar-long': (matter) => barWords('too long', matter),
  join: ({ from, to, ...matter }) => joinWords(`from ${from} to ${to}`, matter),
  'join-again': (matter) => joinWords('when the tune begins again', matter),
  'unknown-dance': ({ name }) =>
    `"${name}" is not a dance type known here, so its tempo is only a guess. Known: ${DANCE_TYPES.join(', ')}.`,
  'tempo-without-beat': ({ bpm }) => `Q: gives no note value; ${bpm} is taken as dance beats a minute.`,
  'midi-key-guessed': () => 'The file names no key; it was guessed from the notes.',
  'order-not-understood': ({ order }) => `The playing order P:${order} was not understood; the written order is used.`,
  'order-and-repeats': ({ order, form }) =>
    `P:${order} names parts twice that also have repeat signs; both are followed, so the form is ${form}.`,
  'bad-directive': ({ name, value }) => directiveWords(name, DIRECTIVE_EXPECTED[name as DirectiveName], value),
  'directive-tuning': ({ tuning, value }) =>
    directiveWords('tuning', `a tuning that a fiddle can be brought into (${tuningFault(tuning) ?? ''})`, value),
  'unknown-directive': ({ name, value, known }) => directiveWords(name, `one of ${known.join(', ')}`, value),
};

function directiveWords(name: string, expected: string, value: string): string {
  return `%%morrin-${name}: expected ${expected}, got "${value}".`;
}

const freely = ({ min, max }: { readonly min: number; readonly max: number }) =>
  `notes with an amount from ${min} to ${max} such as 5:1`;

/** What each of our own lines is to hold. */
const DIRECTIVE_EXPECTED: Readonly<Record<DirectiveName, string>> = {
  parts: 'names of parts such as ["A","B"]',
  form: 'names of parts such as ["A","B"]',
  plays: 'bars with their passes such as 9:1,2e',
  tuning: 'four pitches low to high, such as A3 E4 A4 E5',
  start: 'down or up',
  links: 'links such as 5:retake or 9@2:change',
  places: 'places such as 5:D',
  pulse: 'notes such as 5 9',
  melody: 'notes such as 5 9',
  bow: `stroke lengths from ${MIN_WISH} to ${MAX_WISH} such as 5:1.25`,
  drones: 'notes with a side such as 5:upper',
  positions: `positions (${POSITIONS.join(', ')}) such as 5:3`,
  marks: 'marks such as 5:cut',
  lilt: `the name of a lilt, such as ${LILTS.map(({ name }) => name).join(', ')}`,
  holds: freely(HOLD_RANGE),
  breaths: freely({ min: 0.001, max: MAX_BREATH }),
  paces: freely(PACE_RANGE),
  reuse: 'bars such as 9:5',
};

interface Sums {
  readonly length: Fraction;
  readonly expected: Fraction;
}

function barWords(order: string, { length, expected }: Sums): string {
  return `This bar is ${order}: it holds ${eighths(length)}, ${eighths(expected)} are expected.`;
}

function joinWords(where: string, { length, expected }: Sums): string {
  const [is, wanted] = [formatFraction(length), formatFraction(expected)];
  return `Last bar and pickup do not make a whole bar ${where}: ${is} instead of ${wanted}.`;
}

/** A length in the words of a counting player: `7 eighths`, or as a fraction where eighths do not fit. */
function eighths(length: Fraction): string {
  const count = divide(length, fraction(1, 8));
  return count.d === 1 ? counted(count.n, 'eighth') : formatFraction(length);
}
