/** What takes time of its own: of the bow, of the hand, and of ornaments. */
export const EVENT_KINDS = [
  'stroke',
  'crossing',
  'hop',
  'barre',
  'shift',
  'retake',
  'bowed-triplet',
  'cut',
  'flick',
  'short-roll',
  'long-roll',
  'pulse',
  'grace',
  'slide',
  'turn',
] as const;
export type EventKind = (typeof EVENT_KINDS)[number];
