// Short drills that measure what the player needs time for.
export type { Drill } from './drills';
export { DRILLS, drillCeiling, drillFor, drillTune, measuredLimit, slowestBow } from './drills';
// A climb from tempo to tempo until it fails.
export type { Ladder } from './ladder';
export { beginLadder, climb } from './ladder';
// Drills made from a tune.
export type { DrillCause, DrillKind, DrillStage, StageCode, TuneDrill, Way } from './tuneDrill';
export { DRILL_KINDS, WAYS } from './tuneDrill';
export { chosenDrill, drillsFor } from './tuneDrills';
// What tunes ask of their player.
export type { Technique } from './techniques';
export { ARPEGGIO, isTechnique, patternTechnique, TECHNIQUES, techniquesOf } from './techniques';
export { excerpt } from './smallTune';
