// Pitches as they are spelled.
export type { Letter, Pitch } from './pitch';
export { LETTERS, midiOf, parsePitch, pitchAtStep, pitchName, pitchSpelled, samePitch, staffStep } from './pitch';
export { hertzOf, REFERENCE_PITCH } from './frequency';
// Intervals by name.
export { intervalName, isConsonant } from './interval';
// Keys and what their signatures do.
export type { Key, Mode } from './key';
export { MODES, alterInKey, keyFifths, keyName, sameKey } from './key';
