// Bow travel.
export type { NoteTravel } from './travel';
export {
  AIR_SPEED,
  DANCE_SPEED,
  SATURATION_CM,
  bowSpeed,
  nominalLength,
  notesOffHair,
  rawTravel,
  runsOut,
} from './travel';
// Sharing the hair.
export type { AllocatedStroke, StrokeWish } from './allocation';
export {
  LEAST_SHARE,
  SWEET_SPOT_WEIGHT,
  allocateTravel,
  allocationCost,
  sharedTravel,
  strokeWishes,
} from './allocation';
