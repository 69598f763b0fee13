/** Kinds of what is said of a file. */
export const IMPORT_CODES = [
  'empty',
  'not-text',
  'not-read',
  'fault',
  'no-notes',
  'too-long',
  'syntax',
  'unclosed-slur',
  'unopened-slur',
  'unclosed-tuplet',
  'unclosed-mark',
  'bar-sum',
  'voice-left-out',
  'not-kept',
  'not-followed',
  'unknown-type',
  'tempo-beat',
  'part-order',
  'bad-directive',
] as const;
export type ImportCode = (typeof IMPORT_CODES)[number];

export type ImportSeverity = 'error' | 'warning' | 'info';
