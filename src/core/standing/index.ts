// Where a tune is tight, and how much of it fails at which tempo.
export type { TightSpot } from './changes';
export { tightSpots } from './changes';
export type { Trouble, TroubleAt } from './trouble';
export { TROUBLES, troubleCurve } from './trouble';
// What each change buys, and the fewest that let it stand at a tempo.
export type { Change, Gain } from './changes';
export { applyChanges, gainsAt } from './changes';
export type { StandOptions, Standing } from './stand';
export { makeItStand } from './stand';
