// The dance's own beat and its bands.
export type { BandRegion, Bands, TempoBand } from './bands';
export { REGIONS, DEFAULT_REGION, defaultTempo, tempoBand } from './bands';
export { beatUnit, hasDottedBeats, isDottedBeat, offbeatShare, wholeNoteSeconds, withinBeat } from './beat';
// What the player needs time for, and the tempos that follow.
export type { Limit, LimitKey, Limits } from './limits';
export {
  DENSITY,
  GUESSED_LIMITS,
  MIN_TURN,
  LIMIT_SOURCES,
  LIMIT_KEYS,
  crossingHas,
  crossingNeeds,
  densityFactor,
  limitsWith,
} from './limits';
export { crossingGaps, recentCrossings } from './density';
export type { EventKind } from './eventKinds';
export { EVENT_KINDS } from './eventKinds';
export type { CheckedBowing, DanceCheck, DanceCheckInput, PlacedEvent, TimedEvent } from './danceCheck';
export { HIGHEST_TEMPO, LONG_ROLL_TIME, TRIPLET_TIME, ceilingAt, ceilingOfOther, danceCheck } from './danceCheck';
// Notes that are written even and played uneven, and when each of them sounds at a tempo.
export type { Lilt, LiltFault } from './lilt';
export { LILT_NAME, LILT_NOTES, STRAIGHT, liltFault, liltLeft, liltShift } from './lilt';
export type { DottedRatios } from './lilts';
export { DOTTED_RATIO_RANGE, LILTS, dottedRatio, findLilt } from './lilts';
export type { NoteTimes, Timing } from './noteTimes';
export { noteTimes, secondsAt, timing } from './noteTimes';
// What a player makes of them.
export { AS_PLANNED, hasHolds, learntFactors, meantFor, OWN_FACTOR_RANGE, type OwnFactors } from './ownFactors';
export { HOLD_RANGE, MAX_BREATH, PACE_RANGE } from './rubato';
