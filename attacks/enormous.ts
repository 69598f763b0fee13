import type { Tune } from '#core/tune';
import { readAbc } from '#formats/abc';

/** Steps of a melody that does not repeat itself for long. */
const LETTERS = ['D', 'F', 'A', 'd', 'f', 'e', 'c', 'B', 'G', 'E', 'A', 'B', 'd'];
const NOTES_IN_BAR = 8;

/** A part of so many bars of quavers, played twice: no tune has as many, a document may. */
export function longAbc(bars: number, title = `${bars} bars`): string {
  let step = 0;
  const lines = Array.from({ length: bars }, () =>
    Array.from({ length: NOTES_IN_BAR }, () => {
      step += 1;
      return LETTERS[(step * 5 + Math.floor(step / 17)) % LETTERS.length]!;
    }).join(''),
  );
  return `X:1\nT:${title}\nR:reel\nM:4/4\nL:1/8\nK:D\n|:${lines.join('|')}:|\n`;
}

export const longTune = (bars: number, title?: string): Tune => readAbc(longAbc(bars, title)).tunes[0]!.tune;

/** Bars of the longest tune that a document may hold: 30,000 events with their bar lines. */
export const MAX_BARS = 3300;
