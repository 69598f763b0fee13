// Strings on an arc, and the bow's plane.
export type { Interval, Plane } from './planes';
export { neighbourAngle, planeAngle, planeInterval, pairPlane, planeName, planeOf } from './planes';
// The arm's path through them.
export { armPath, turning } from './armPath';
export type { ArmPlan, Crossing, CrossingSums } from './crossings';
export { armPlan, turningOf } from './crossings';
