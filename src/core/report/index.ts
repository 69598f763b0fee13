// The whole check of a plan.
export type { ReportOptions, TuneReport } from './report';
export { danceBeat, reportTune, wishedTempo } from './report';
export type { PlayerSettings } from './settings';
export { defaultSettings } from './settings';
// What it counts, and what it finds.
export type { Figures, ReportSettings, SharedStroke } from './figures';
export { minHair, sharedStrokes } from './figures';
export type { Finding, FindingPlace, LinkEdit, Mend, NoteEdit, Severity } from './finding';
export { mendTune, withNoteEdits } from './mendTune';
export { FINDING_CODES } from './finding';
// Hand, drones and ornaments of a checked plan.
export { droneSceneOf, handOf, ornamentSceneOf } from './scenes';
