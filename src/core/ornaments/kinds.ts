import type { NoteMark } from '#core/tune';

/** What decorates a note, each by its mark. */
export const ORNAMENTS = [
  'bowed-triplet',
  'cut',
  'roll',
  'flick',
  'passing-triplet',
  'brushed-run',
  'pressed-in',
  'slide',
  'snap',
  'staccato',
  'vibrato',
  'vibrato-growing',
  'pulse',
  'closing-swell',
  'fade',
] as const satisfies readonly NoteMark[];
export type Ornament = (typeof ORNAMENTS)[number];

/** Layers that are taken off one after the other for an easier version: what asks most of a learner first. */
export const ORNAMENT_LAYERS = [
  { name: 'rolls and triplets', marks: ['roll', 'bowed-triplet', 'passing-triplet', 'brushed-run'] },
  { name: 'cuts and flicks', marks: ['cut', 'flick'] },
  { name: 'swells, pulses and fades', marks: ['pulse', 'closing-swell', 'fade'] },
  { name: 'slides and vibrato', marks: ['slide', 'pressed-in', 'vibrato', 'vibrato-growing'] },
  { name: 'snaps and staccato', marks: ['snap', 'staccato'] },
] as const satisfies readonly { readonly name: string; readonly marks: readonly Ornament[] }[];
