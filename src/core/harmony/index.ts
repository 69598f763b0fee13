// Chords by their symbols, and those that go with a tune.
export type { Chord } from './chord';
export { parseChord } from './chord';
export type { ChordSpan } from './harmony';
export { chordsOfKey, harmonyOf } from './harmony';
