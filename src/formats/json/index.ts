// The tune document as JSON.
export { MOST_EVENTS, MOST_PLAYED_EVENTS, playedEvents, tuneSchema } from './tuneSchema';
export type { ReadJson } from './morrinJson';
export { readMorrinJson, writeMorrinJson } from './morrinJson';
