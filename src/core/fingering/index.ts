// String and finger in first position.
export type { FingerRule, Fingering, Stop } from './firstPosition';
export { EXTENDED_REACH_SEMITONES, REACH_SEMITONES, fingerNote, stopOnString } from './firstPosition';
