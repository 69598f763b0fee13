// How players are taught to do things.
export type { Schools } from './schools';
export { SCHOOL_CHOICES, SCHOOL_NAMES, USUAL_SCHOOLS } from './schools';
