import type { DrillKind } from '#core/drills';
import type { Skill } from './skills';

/** The drill that leads to a skill; null: none is made for it. */
export const SKILL_DRILLS: Readonly<Record<Skill, DrillKind | null>> = {
  tempo: 'pattern',
  strokes: 'bow-amount',
  crossings: 'early-arm',
  angle: 'skipped-string',
  'two-strings': 'pair-plane',
  shift: 'shift',
  barre: 'one-finger-across',
  doubling: 'doubling-approach',
  span: 'stretch-pair',
  'bowed-triplet': 'bowed-triplet',
  cut: 'flick',
  roll: 'flick',
  turn: 'falling-run',
  mordent: 'flick',
  trill: null,
  flick: 'flick',
  'passing-triplet': 'falling-run',
  'brushed-run': 'falling-run',
  'pressed-in': null,
  slide: null,
  snap: null,
  staccato: 'staccato',
  vibrato: 'vibrato',
  'vibrato-growing': 'vibrato',
  pulse: 'pulse',
  'closing-swell': 'closing-swell',
  fade: 'fade',
  grace: 'flick',
};
