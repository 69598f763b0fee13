// What a tune, or a stretch of it, asks of its player.
export type { DemandedOrnament, Demands } from './demands';
export { demandsOf } from './demands';
// The same as figures by skill, what was shown, and what is missing.
export type { MissingSkill, Skill, SkillFigures } from './skills';
export {
  asDemands,
  bestFigures,
  figuresAt,
  missingSkills,
  PLAIN_SKILLS,
  skillFigures,
  skillOf,
  SKILLS,
} from './skills';
export type { CleanStretch } from './shownIn';
export { shownIn } from './shownIn';
// Drills and tunes that lead there.
export { SKILL_DRILLS } from './skillDrills';
export type { Stone } from './steppingStones';
export { steppingStones } from './steppingStones';
