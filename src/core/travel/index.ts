// Bow travel.
export type { NoteTravel } from './travel';
export { AIR_SPEED, DANCE_SPEED, SATURATION_CM, bowSpeed, nominalLength, rawTravel } from './travel';
// Sharing the hair.
export type { AllocatedStroke, StrokeWish } from './allocation';
export { MIN_SHARE, SWEET_SPOT_WEIGHT, allocateTravel, allocationCost, sharedTravel, strokeWishes } from './allocation';
// What pulses, accents and wishes add to a stroke.
export type { Ratio, Reach } from './reach';
export {
  ACCENT_PEAK,
  MIN_WISH,
  MAX_WISH,
  PULSE_PEAK,
  accentLength,
  accentSpeed,
  pulseDecibels,
  pulseLength,
  pulseSpeed,
  reachOf,
  strokeRatio,
} from './reach';
// From practice to dance tempo.
export type { ScheduledBow } from './schedule';
export { PRACTICE_SHARE, bowSchedule } from './schedule';
// Whether speed, weight and contact go together.
export type { Fade, ToneWindow } from './toneWindow';
export { REFERENCE_CONTACT, fadeTo, toneOf, toneWindow } from './toneWindow';
