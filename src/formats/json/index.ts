// The tune document as JSON.
export { MOST_EVENTS, tuneSchema } from './tuneSchema';
export type { ReadJson } from './morrinJson';
export { readMorrinJson, writeMorrinJson } from './morrinJson';
