// What can go wrong, and from where on it is told.
export {
  DEFAULT_THRESHOLDS,
  type FigureUnit,
  type Listening,
  MISTAKE_KINDS,
  type MistakeKind,
  PLAIN_LISTENING,
  type Threshold,
  type Thresholds,
  thresholdsWith,
} from './mistakes';
// What should be heard of a plan.
export { type Expected, expectedOf, type ExpectedNote } from './expected';
// A take as it comes in, and what was heard of it.
export { Listener, MAX_TAKE_SECONDS } from './listen';
export type { AddedNote, Heard, HeardNote, Jump } from './heard';
export type { DrillRow, DrillRowName } from './drillRows';
export type { TakeFinding } from './finding';
export type { FingerDrift, LiltFigure, TakeFigures } from './takeFigures';
export { checkInBlocks, type CheckOptions, checkTake, type TakeCheck } from './check';
export { referenceOf, type TakeReference } from './reference';
export { RATE } from './resample';
