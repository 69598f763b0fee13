/** Sizes of paper by their names. */
export const PAPER_NAMES = [
  { value: 'a4', name: 'A4' },
  { value: 'letter', name: 'Letter' },
] as const;
