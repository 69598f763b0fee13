// What decorates a note.
export type { Ornament } from './kinds';
export { ORNAMENTS } from './kinds';
// Whether it fits, and what it asks for.
export type { Obstacle, OrnamentFacts, OrnamentScene } from './ornamentFacts';
export { ornamentFacts } from './ornamentFacts';
// By rule, and taken off for an easier version.
export type { OrnamentRule, RuleSpot } from './rules';
export { RULE_SPOTS, leaveOff, ornament, ornamentSpots } from './rules';
export type { EasierStep } from './easier';
export { easierVersions } from './easier';
export type { FullerStep } from './fuller';
export { fullerVersions } from './fuller';
export { swellLast } from './closingSwell';
