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

/** `118`, in whole beats that are sure to hold; `any tempo`. */
export function tempoWords(ceilingBpm: number | null): string {
  return ceilingBpm === null ? 'any tempo' : String(Math.floor(ceilingBpm));
}

/** `up to 118`, `at any tempo`. */
export function heldWords(ceilingBpm: number | null): string {
  return ceilingBpm === null ? 'at any tempo' : `up to ${tempoWords(ceilingBpm)}`;
}

/** `holds up to 118`, `holds at any tempo`. */
export function holdsWords(ceilingBpm: number | null): string {
  return `holds ${heldWords(ceilingBpm)}`;
}

/** `98–112`, in whole beats. */
export function rangeWords({ low, high }: { readonly low: number; readonly high: number }): string {
  return `${Math.floor(low)}–${Math.floor(high)}`;
}
