// How much room a stretch leaves at a tempo, kind by kind.
export type { Margins } from './margins';
export { isLeading, marginsAt, marginsOf } from './margins';
// How likely it comes out clean.
export type { Ability } from './cleanChance';
export { cleanChance, cleanTempo, LAPSE, UNKNOWN_ABILITY } from './cleanChance';
