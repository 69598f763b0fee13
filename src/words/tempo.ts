import { formatFraction, type Fraction } from '#core/base';

const BEATS: Record<string, string> = {
  '1/2': 'half notes',
  '1/4': 'quarters',
  '3/8': 'dotted quarters',
  '1/8': 'eighths',
  '3/4': 'dotted halves',
};

/** The note value that is counted, in words: `half notes`. */
export function beatWords(beat: Fraction): string {
  const text = formatFraction(beat);
  return BEATS[text] ?? `${text} notes`;
}
