// The dance's own beat and its bands.
export type { TempoBand } from './beat';
export { TEMPO_BANDS, UNKNOWN_TYPE_BAND, beatUnit, defaultTempo, tempoBand, wholeNoteSeconds } from './beat';
// What the player needs time for, and the tempos that follow.
export type { Limit, LimitKey, Limits } from './limits';
export { GUESSED_LIMITS, LIMIT_KEYS, crossingNeeds, crossingTime, limitsWith } from './limits';
export type { DanceCheck, DanceCheckInput, EventKind, PlacedEvent, TimedEvent } from './danceCheck';
export { EVENT_KINDS, danceCeiling, danceCheck, headroomAt } from './danceCheck';
