// What decorates a note.
export type { Ornament } from './kinds';
export { ORNAMENTS } from './kinds';
// Whether it fits, and what it asks for.
export type { Obstacle, OrnamentFacts, OrnamentScene } from './ornamentFacts';
export { ornamentFacts } from './ornamentFacts';
// By rule, and taken off for an easier version.
export type { EasierStep, OrnamentRule, RuleSpot } from './rules';
export { RULE_SPOTS, easierVersions, leaveOff, ornament, ornamentSpots } from './rules';
export { swellLast } from './closingSwell';
