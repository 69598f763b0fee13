// What is wanted, and what it is weighed by.
export type { CostTerm, StyleWishes } from './wishes';
export { COST_TERMS, COST_WEIGHTS, MILLIONTHS, MAX_IN_STROKE, DEFAULT_CELL_CM, DEFAULT_WISHES } from './wishes';
// The objective on a tune.
export type { Choice, SearchModel, SearchOptions } from './model';
export { CHOICES, searchModel } from './model';
// How the dances are bowed.
export type { Template } from './idioms';
export { idiomOf } from './idioms';
// The best bowings, and those that really differ.
export type { Bowing } from './bestBowings';
export { MIN_BARS, MIN_DIFFERENCE, adoptBowing, bestBowings, differingBowings, reallyDiffer } from './bestBowings';
// Bowings with their figures.
export type { BowingFigures, Candidate } from './candidates';
export { bowingTerms, planFigures, proposeBowings } from './candidates';
