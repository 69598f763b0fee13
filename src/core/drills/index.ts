// Short drills that measure what the player needs time for.
export type { Drill } from './drills';
export { DRILLS, drillCeiling, drillFor, drillTune, measuredLimit, slowestBow } from './drills';
// A climb from tempo to tempo until it fails.
export type { Ladder } from './ladder';
export { beginLadder, climb } from './ladder';
