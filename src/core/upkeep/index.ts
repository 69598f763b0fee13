// What wears with playing, and what is due.
export type { Due, HairGap, PlayedDay, StringInUse, Upkeep, UpkeepIntervals } from './upkeep';
export { hoursSince, stringHours, upkeepDue, USUAL_INTERVALS } from './upkeep';
