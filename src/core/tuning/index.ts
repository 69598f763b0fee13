// Tunings and what they ask of the strings.
export type { Tuning, TuningFigures } from './tunings';
export {
  TENSION_NEWTONS,
  STANDARD_TUNING,
  TUNINGS,
  parseTuning,
  tensionRatio,
  tuningFigures,
  tuningName,
} from './tunings';
// The way from one to another.
export type { Implausible } from './plausible';
export { MAX_DOWN, MAX_UP, implausibleStrings } from './plausible';
export type { RetunePlan, RetuneStep, RetunedString, StringWarning } from './retune';
export { retunePlan } from './retune';
