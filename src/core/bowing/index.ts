// Directions and strokes.
export type { Again, BowedNote, Start } from './strokes';
export {
  againFrom,
  bowAgain,
  bowNotes,
  entryNote,
  linkInFlow,
  linkOnPass,
  opposite,
  startOf,
  staysInStroke,
} from './strokes';
// The prover: does it come round.
export type { BowedTune } from './bowedTune';
export { bowedTune } from './bowedTune';
export type { DirectionDifference, Ledger, PassLedger, RoundVerdict } from './ledger';
export { bowingLedger, roundVerdict } from './ledger';
export type { LoopVerdict } from './loops';
export { loopVerdict } from './loops';
export type { LockConflict } from './locks';
export { lockConflicts } from './locks';
export type { Disturbance, MendInput, RoundEdit, RoundMend } from './mends';
export { roundMends } from './mends';
// Patterns on the rhythm grid.
export type { Pattern, PatternFigures } from './patterns';
export { LIBRARY_UNIT, PATTERNS, findPattern, patternFigures } from './patterns';
export type { PatternOptions } from './applyPattern';
export { applyPattern, gridUnit, patternLinks } from './applyPattern';
export type { NaturalAccent, RangeFigures } from './patternRange';
export { accentsAlternate, alternateDrift, naturalAccents, rangeFigures } from './patternRange';
export type { PatternRun } from './recognise';
export { recognisePatterns } from './recognise';
// Edits.
export type { Gesture } from './gestures';
export {
  gestureTargets,
  isInsideTuplet,
  joiningLink,
  makeGesture,
  setBowLengths,
  setLinks,
  setLocks,
} from './gestures';
export { scaleBowLengths, strokeHeads } from './bowLength';
