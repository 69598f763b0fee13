// The whole check of a plan.
export type { ReportOptions, TuneReport } from './report';
export { danceBeat, reportTune, wishedTempo } from './report';
export type { PlayerSettings } from './settings';
export { defaultSettings } from './settings';
// What it counts, and what it finds.
export type { Figures, ReportSettings, SharedStroke } from './figures';
export { minHair, sharedStrokes } from './figures';
export { FINDING_CODES, type Finding, type Severity } from './finding';
export type { Spot } from './findingInput';
// What mends it, and the tune mended.
export { type LinkEdit, type NoteEdit, withNoteEdits } from './edits';
export { type Deed, type Gain, type Mend, type Turn, linkEditsOf } from './mend';
export { mendTune } from './mendTune';
// Hand, drones and ornaments of a checked plan.
export { droneSceneOf, handOf, ornamentSceneOf } from './scenes';
