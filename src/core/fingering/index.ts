// String and finger in first position.
export type { FingerRule, Fingering, Stop } from './firstPosition';
export { fingerNote, stopOnString } from './firstPosition';
// Millimetres on the fingerboard.
export { STRING_LENGTHS, centsToMm, nutDistance } from './nut';
// The hand beyond first position, and what the player keeps from it.
export type { HandStop, Position } from './positions';
export { POSITIONS, handHome, stopsOnString } from './positions';
export type { Ban, BanReason, Hand } from './hand';
export { BAN_REASONS, FREE_HAND, isBanned } from './hand';
// The cheapest fingering of a whole tune.
export type { HandChord } from './handCosts';
export type { Alternative, FingeredNote, FingeringResult, FingeringTerms } from './searchFingering';
export { fingeringTerms, searchFingering } from './searchFingering';
export { choicesFor } from './choices';
export type { Pin } from './pins';
export { pinFingering, pinsFor, releaseFingering } from './pins';
// Every written note with string and finger.
export { fingerTune, heldChords } from './fingerTune';
// What the hand does, note by note.
export type { HandMove, Hop, Shift } from './handMoves';
export { handMoves, stopsOf } from './handMoves';
export type { HandNote, HopOption } from './handPlan';
export { handPlan } from './handPlan';
// The tune folded into first position.
export { foldIntoFirstPosition } from './foldOctave';
