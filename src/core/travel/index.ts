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
