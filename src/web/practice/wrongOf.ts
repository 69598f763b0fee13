import type { Wrong } from '#contract/log';
import type { MistakeKind } from '#core/take';

/** What a heard mistake is to the log. */
export const WRONG_OF: Readonly<Record<MistakeKind, Wrong>> = {
  sharp: 'finger',
  flat: 'finger',
  'wrong-note': 'notes',
  'left-out': 'notes',
  'added-note': 'notes',
  'started-again': 'memory',
  'wrong-pass': 'memory',
  'late-finger': 'finger',
  'bumped-drone': 'finger',
  'dropped-second': 'bow',
  'skipped-string-sounds': 'crossing',
  'rushed-turn': 'crossing',
  scratch: 'tone',
  'flick-became-note': 'finger',
  'uneven-triplet': 'bow',
  'pulse-stayed': 'bow',
  rushing: 'rhythm',
  dragging: 'rhythm',
  'late-entry': 'rhythm',
  'hold-cut-short': 'rhythm',
  'silence-cut-short': 'rhythm',
  'staccato-runs-together': 'bow',
  'narrow-vibrato': 'tone',
  'cloudy-low-string': 'tone',
};
