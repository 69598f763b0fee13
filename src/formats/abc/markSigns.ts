import type { NoteMark } from '#core/tune';

/** Standard decorations; what has none goes into a directive. */
export const MARK_SIGNS: Partial<Record<NoteMark, string>> = {
  staccato: '.',
  accent: '!accent!',
  fermata: '!fermata!',
  tenuto: '!tenuto!',
  trill: '!trill!',
  roll: '~',
  turn: '!turn!',
  mordent: '!mordent!',
  slide: '!slide!',
};
