// The tune document as JSON.

export { isTune } from './isTune';
export { newTuneSchema, tuneSchema } from './tuneSchema';
export type { ReadJson } from './morrinJson';
export { BOOK_FORMAT, readMorrinBook, readMorrinJson, writeMorrinBook, writeMorrinJson } from './morrinJson';
