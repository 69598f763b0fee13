// Exact lengths.
export type { Fraction } from './fraction';
export {
  ZERO,
  add,
  compare,
  divide,
  equals,
  floorQuotient,
  formatFraction,
  fraction,
  multiply,
  nearestFraction,
  parseFraction,
  subtract,
  toNumber,
} from './fraction';
// Quantities with their units, and the one range check.
export type {
  BeatsPerMinute,
  Centimetres,
  CentimetresPerSecond,
  Degrees,
  Midi,
  Millimetres,
  Milliseconds,
  Seconds,
  Semitones,
} from './units';
export { assertRange } from './assert';
// Chance that can be run again, and what draws come to.
export { normalOf, seeded, weightedQuantiles } from './seeded';
// What is computed once.
export { memoByIdentity } from './memo';
