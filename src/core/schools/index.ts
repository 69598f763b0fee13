// How players are taught to do things.
export type { Schools } from './schools';
export { SCHOOL_CHOICES, SCHOOL_NAMES, DEFAULT_SCHOOLS } from './schools';
