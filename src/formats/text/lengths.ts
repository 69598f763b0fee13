import { type LengthFault, MUSIC_BOUNDS } from '#core/tune';

/** A length that no tune has: the tune is not read, and the place where it stands is told. */
export class OutOfBounds extends Error {
  /** @param offset where it stands in the text */
  constructor(
    readonly offset: number,
    readonly fault: Pick<LengthFault, 'code' | 'found'>,
  ) {
    super(lengthWords(fault));
  }
}

const number = (value: number) => Math.round(value).toLocaleString('en');

/** What is out of bounds, what was found and what was expected. */
export function lengthWords({ code, found }: Pick<LengthFault, 'code' | 'found'>): string {
  switch (code) {
    case 'too-long':
      return `a note or rest of ${number(found)} whole notes: expected at most ${MUSIC_BOUNDS.noteWholes}`;
    case 'too-fine':
      return `lengths that need ${number(found)}ths of a whole note in common: expected at most ${number(MUSIC_BOUNDS.commonDenominator)}ths`;
    case 'too-much':
      return `${number(found)} whole notes played with all repeats: expected at most ${number(MUSIC_BOUNDS.playedWholes)}`;
  }
}
