import type { Tune } from '#core/tune';

/** Widths from which a line takes eight, four or two bars. */
const EIGHT_BARS_FROM = 1300;
const FOUR_BARS_FROM = 620;
const TWO_BARS_FROM = 300;
/** Narrower lines are a phone's: nothing is squeezed there. */
const NARROW = 480;
/** Room that a note needs; denser bars get fewer on a line. */
export const NOTE_ROOM = 16;
/** With its call under it a note needs more. */
export const CALL_ROOM = 30;
const CLEF_ROOM = 70;

/** Bars that stand on a line of some width without touching: eight, four, two or one. */
export function barsThatFit(tune: Tune, width: number, noteRoom = NOTE_ROOM): number {
  let densest = 1;
  let count = 0;
  for (const event of tune.parts.flatMap(({ events }) => events)) {
    if (event.kind === 'bar') count = 0;
    else count += 1;
    densest = Math.max(densest, count);
  }
  const squeeze = width < NARROW ? 1 : width < EIGHT_BARS_FROM ? 1.15 : 1.22;
  const fitting = (bars: number) => CLEF_ROOM + bars * (densest * noteRoom + 18) <= width * squeeze;
  if (width >= EIGHT_BARS_FROM && fitting(8)) return 8;
  if (width >= FOUR_BARS_FROM && fitting(4)) return 4;
  if (width >= TWO_BARS_FROM && fitting(2)) return 2;
  return width >= FOUR_BARS_FROM ? 2 : 1;
}
