const POSITION_WORDS: Record<string, string> = {
  '0.5': 'half',
  '1': 'first',
  '2': 'second',
  '3': 'third',
  '4': 'fourth',
  '5': 'fifth',
};

/** `first`, `half`, for a hand position. */
export function positionWords(position: number | string): string {
  return POSITION_WORDS[String(position)] ?? String(position);
}
