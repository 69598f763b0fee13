import { LETTERS, midiOf, parsePitch } from '#core/pitch';

/** A chord of the backing by pitch classes (C is 0). */
export interface Chord {
  /** As it was written or found: `D`, `Em`, `A7`. */
  readonly name: string;
  readonly root: number;
  readonly third: number;
  readonly fifth: number;
  /** Where the bass goes if not to the root: `D/F#`. */
  readonly bass: number;
}

const SYMBOL = /^([A-G])([#b♯♭]?)(.*?)(?:\/([A-G])([#b♯♭]?))?$/;
const NOTE_CLASS = (letter: string, sign: string) => {
  const natural = midiOf(parsePitch(`${letter}4`)!);
  return (natural + (sign === '#' || sign === '♯' ? 1 : sign === 'b' || sign === '♭' ? -1 : 0) + 12) % 12;
};

/** The chord of a symbol; null where it is none, such as a word of advice over the staff. Sevenths and more count as their triad. */
export function parseChord(symbol: string): Chord | null {
  const found = SYMBOL.exec(symbol.trim());
  if (!found) return null;
  const [, letter, sign, quality, bassLetter, bassSign] = found as unknown as [
    string,
    string,
    string,
    string,
    string?,
    string?,
  ];
  if (
    !/^(|m|min|-|maj|M|dim|°|o|aug|\+|sus[24]?|[0-9]+|m[0-9]+|min[0-9]+|maj[0-9]+|M7|dim7|add9|6|69|5|7sus4)$/.test(
      quality,
    )
  )
    return null;
  const root = NOTE_CLASS(letter, sign);
  const isMinor = /^(m(?!aj)|min|-|dim|°|o)/.test(quality);
  const isDiminished = /^(dim|°|o)/.test(quality);
  const isAugmented = /^(aug|\+)/.test(quality);
  const third = quality.startsWith('sus2') ? 2 : quality.includes('sus') ? 5 : isMinor ? 3 : 4;
  return {
    name: symbol.trim(),
    root,
    third: (root + third) % 12,
    fifth: (root + (isDiminished ? 6 : isAugmented ? 8 : 7)) % 12,
    bass: bassLetter ? NOTE_CLASS(bassLetter, bassSign ?? '') : root,
  };
}

const SHARP_NAMES = LETTERS.flatMap((letter) => ('CDFGA'.includes(letter) ? [letter, `${letter}#`] : [letter]));
const FLAT_NAMES = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'Gb', 'G', 'Ab', 'A', 'Bb', 'B'];

/** A triad over a root, named with the signs of its key. */
export function triad(root: number, kind: 'major' | 'minor' | 'diminished', inFlats: boolean): Chord {
  const name = (inFlats ? FLAT_NAMES : SHARP_NAMES)[root]!;
  return {
    name: name + { major: '', minor: 'm', diminished: 'dim' }[kind],
    root,
    third: (root + (kind === 'major' ? 4 : 3)) % 12,
    fifth: (root + (kind === 'diminished' ? 6 : 7)) % 12,
    bass: root,
  };
}
