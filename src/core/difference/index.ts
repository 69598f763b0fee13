// How two versions of a tune differ.
export type { BarChange, Difference } from './tuneDifference';
export { tuneDifference } from './tuneDifference';
export type { BowOf, PassBarDifference } from './passDifference';
export { passDifferences } from './passDifference';
