// What is to sound: strokes, contacts and pitches in seconds.
export type {
  Accent,
  Balance,
  BowStroke,
  Click,
  Contact,
  PitchMove,
  Pluck,
  SoundPlan,
  Swell,
  Touch,
  Vibrato,
} from './soundPlan';
export { FULL_BALANCE, retuned } from './soundPlan';
// The fiddle that plays it, sample by sample, and a whole plan at once.
export type { Taps } from './fiddle';
export { Fiddle } from './fiddle';
export type { RenderOptions } from './render';
export { TAIL_SECONDS, render, renderInBlocks } from './render';
