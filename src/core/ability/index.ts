// How much room a stretch leaves at a tempo, kind by kind.
export type { Margins } from './margins';
export { isLeading, marginsAt, marginsOf } from './margins';
// How likely it comes out clean.
export type { Ability } from './cleanChance';
export { cleanChance, cleanTempo } from './cleanChance';
// What attempts say of a player.
export type { JudgedAttempt } from './likelihood';
export type { KindAbility, LearntAbility } from './learnAbility';
export { abilityOf, kindByKind, learnAbility, learntTogether, PRIOR_SD, weightOf } from './learnAbility';
export type { LoggedAttempt } from './judgedIn';
export { judgedIn } from './judgedIn';
// The limit that is learnt.
export { LIMITS_OF, learntLimit, learntLimits, priorOf } from './learntLimit';
// Up to which tempo a tune holds for this player.
export type { KindCeilings, OwnCeiling } from './ownCeiling';
export { kindCeilings, ownCeiling } from './ownCeiling';
// Which attempt would tell most next.
export { tellsMost } from './tellsMost';
