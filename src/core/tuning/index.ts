// Tunings and what they ask of the strings.
export type { Tuning, TuningFigures } from './tunings';
export { STANDARD_TUNING, TUNINGS, parseTuning, tensionRatio, tuningFigures, tuningName } from './tunings';
