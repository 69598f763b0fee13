// A tune cut into what can be learnt.
export type { Segment } from './segments';
export { segmentsOf } from './segments';
export type { NewNotes } from './newNotes';
export { newNotes } from './newNotes';
export type { Cut, Cutting } from './bites';
export { CUT_COSTS, cutSegment, LONGEST_BARS, NOTES_A_BITE } from './bites';
export type { Bite, CutWish, Join, PracticePlan } from './practicePlan';
export { notesOf, practicePlan, tightestIn } from './practicePlan';
// Stretches with names of the player's own.
export type { NamedPlace, Landmark } from './landmarks';
export { namedPlaces, landmarkStretch, withLandmarkNames } from './landmarks';
// In which order.
export type { BiteOrder, CoverageStep, LearningOrder } from './orders';
export { bestLearningArea, BITE_ORDERS, learningArea, learningOrder, MAX_EXACT_BITES } from './orders';
// Layer by layer.
export type { PracticeLayer } from './layers';
export { layerOf, PRACTICE_LAYERS } from './layers';
// How tempo climbs.
export type { LadderWish, TempoLadder } from './tempoLadder';
export {
  AIR_START,
  beginTempoLadder,
  held,
  LADDER_GUESSES,
  ladderStart,
  stretchStart,
  ladderSteps,
  nextRung,
  repeated,
} from './tempoLadder';
// A step that fails, taken apart and put together again.
export type { Cell, Stretch } from './cell';
export { beginCell, CELL_RESTS, cellAround, cellNow, cellRepeated } from './cell';
export { cellTune } from './cellTune';
// Ladder and cell together, as they are run.
export type { Run } from './run';
export { beginRun, hurt, putTogether, runRepeated, stopped, takenApart } from './run';
// And over some days.
export type { Course, CourseDay, CourseWish } from './course';
export { courseOf, inOrder, PREREQUISITES } from './course';
// What is practised today.
export type { Candidate, ItemKind, PracticeHistory, Session, SessionItem } from './session';
export {
  biteChance,
  BLOCK_MINUTES,
  candidatesOf,
  ITEM_KINDS,
  ITEM_MINUTES,
  NO_HISTORY,
  sessionOf,
  worthOf,
} from './session';
