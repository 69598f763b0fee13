import { add, type Fraction, fraction, multiply } from '#core/base';
import { type Key, keyFifths, type Letter, LETTERS, type Pitch } from '#core/pitch';
import type { Meter, NoteMark, TupletMark } from '#core/tune';
import { CHORD_KINDS, JOINED, MARKS_READ, MODES_READ, NOTE_TYPES } from './names';
import { child, childrenOf, childText, type XmlElement } from './xml';

export function notationsOf(note: XmlElement, name: string): XmlElement[] {
  return childrenOf(note, 'notations').flatMap((notations) => childrenOf(notations, name));
}

export function isTied(note: XmlElement): boolean {
  return [...childrenOf(note, 'tie'), ...notationsOf(note, 'tied')].some(
    ({ attributes }) => attributes.type === 'start',
  );
}

/** Whether a note is only the rest of the one before. */
export function isJoined(note: XmlElement): boolean {
  return notationsOf(note, 'other-notation').some(({ text }) => text === JOINED);
}

export function tupletOf(note: XmlElement): TupletMark | null {
  const element = child(note, 'time-modification');
  if (!element) return null;
  const notes = Number(childText(element, 'actual-notes'));
  const inTimeOf = Number(childText(element, 'normal-notes'));
  const isTuplet =
    Number.isInteger(notes) &&
    Number.isInteger(inTimeOf) &&
    notes >= 2 &&
    notes <= 64 &&
    inTimeOf >= 1 &&
    inTimeOf <= 64;
  if (!isTuplet) return null;
  const starts = notationsOf(note, 'tuplet').some(({ attributes }) => attributes.type === 'start');
  return { notes, inTimeOf, ...(starts ? { first: true as const } : {}) };
}

export function fingerOf(text: string | undefined): number | null {
  return text !== undefined && /^[0-4]$/.test(text) ? Number(text) : null;
}

export function marksOf(note: XmlElement): NoteMark[] {
  const found = ['ornaments', 'articulations'].flatMap((group) =>
    notationsOf(note, group).flatMap(({ children }) => children.flatMap(({ name }) => MARKS_READ[name] ?? [])),
  );
  if (notationsOf(note, 'fermata').length > 0) found.push('fermata');
  return [...new Set(found)];
}

export function pitchFrom(
  step: string | undefined,
  alter: string | undefined,
  octave: string | undefined,
): Pitch | null {
  const letter = LETTERS.find((known): known is Letter => known === step?.toUpperCase());
  const [sign, height] = [Math.round(Number(alter ?? 0)), Number(octave)];
  if (!letter || !Number.isInteger(height) || octave === '' || height < -1 || height > 9 || !(Math.abs(sign) <= 2))
    return null;
  return { letter, alter: sign + 0, octave: height };
}

export function meterOf(time: XmlElement): Meter | null {
  const beats = childText(time, 'beats') ?? '';
  const num = beats.split('+').reduce((sum, term) => sum + Number(term), 0);
  const den = Number(childText(time, 'beat-type'));
  if (!Number.isInteger(num) || num < 1 || num > 64 || ![1, 2, 4, 8, 16, 32].includes(den)) return null;
  const { symbol } = time.attributes;
  return symbol === 'common' || symbol === 'cut' ? { num, den, symbol } : { num, den };
}

/** The key of a signature: the tonic whose mode has so many sharps. */
export function keyOf(element: XmlElement): Key | null {
  const fifths = Number(childText(element, 'fifths') ?? NaN);
  if (!Number.isInteger(fifths) || Math.abs(fifths) > 7) return null;
  const mode = MODES_READ[(childText(element, 'mode') ?? 'major').toLowerCase()] ?? 'major';
  for (const alter of [0, 1, -1])
    for (const letter of LETTERS) {
      const key: Key = { letter, alter, mode };
      if (keyFifths(key) === fifths) return key;
    }
  return null;
}

const SUFFIX_OF_KIND = new Map(Object.entries(CHORD_KINDS).map(([suffix, kind]) => [kind, suffix]));

export function harmonyName(harmony: XmlElement): string | null {
  const root = child(harmony, 'root');
  const kind = child(harmony, 'kind');
  const step = root && childText(root, 'root-step');
  if (!root || !step || !/^[A-G]$/.test(step)) return null;
  const sign = (value: string | undefined) => (value === '1' ? '#' : value === '-1' ? 'b' : '');
  const suffix = kind?.attributes.text ?? SUFFIX_OF_KIND.get(kind?.text ?? 'major') ?? '';
  const bass = child(harmony, 'bass');
  const bassStep = bass && childText(bass, 'bass-step');
  const under = bassStep ? `/${bassStep}${sign(childText(bass, 'bass-alter'))}` : '';
  return `${step}${sign(childText(root, 'root-alter'))}${suffix}${under}`.slice(0, 40);
}

/** The length that a note's type, dots and tuplet say; null where it has no type. */
export function writtenLength(note: XmlElement): Fraction | null {
  const type = NOTE_TYPES.find(([name]) => name === childText(note, 'type'));
  if (!type) return null;
  const dots = childrenOf(note, 'dot').length;
  let written = fraction(type[1], 256);
  for (let dot = 1, part = written; dot <= Math.min(dots, 4); dot++) {
    part = multiply(part, fraction(1, 2));
    written = add(written, part);
  }
  const mark = tupletOf(note);
  return mark ? multiply(written, fraction(mark.inTimeOf, mark.notes)) : written;
}

/** The plays that an ending names; null where it does not name numbers. */
export function endingNumbers({ attributes }: XmlElement): number[] | null {
  const numbers = (attributes.number ?? '')
    .split(/[\s,.]+/)
    .filter((part) => part !== '')
    .map(Number);
  const isNumbers = numbers.every((number) => Number.isInteger(number) && number >= 1 && number <= 99);
  return numbers.length > 0 && isNumbers ? numbers : null;
}
