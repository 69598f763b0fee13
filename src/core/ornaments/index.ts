// What decorates a note.
export type { Ornament } from './kinds';
export { ORNAMENTS } from './kinds';
// Whether it fits, and what it asks for.
export type { Obstacle, OrnamentFacts, OrnamentScene } from './ornamentFacts';
export { ornamentFacts } from './ornamentFacts';
// By rule, and taken off for an easier version.
export type { EasierStep, OrnamentRule, RulePlace } from './rules';
export { RULE_PLACES, easierVersions, leaveOff, ornament, ornamentPlaces } from './rules';
export { swellLast } from './closingSwell';
