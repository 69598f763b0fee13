// A tune in another tuning.
export type { TuningChange } from './changeTuning';
export { changeTuning } from './changeTuning';
// Which tuning suits it.
export type { NamedTuning, RankedTuning, TuningTerm } from './rankTunings';
export { TUNING_TERMS, bestFirst, rankTunings, tiedWith } from './rankTunings';
