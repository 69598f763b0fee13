import type { Seconds } from '#core/base';
import type { ExpectedNote } from './expected';
import { envelopeOf, ownPartials, tracksOf } from './partials';

/** How far around a rough beginning it is looked for, in which steps, through which window. */
const AROUND: Seconds = 0.075;
const STEP: Seconds = 0.0025;
const WINDOW: Seconds = 0.02;
/** A rise to less than so many times what was before is no clear beginning. */
const CLEAR = 1.35;
/** A note has begun when so much of the rise is done: through the window half its level comes that early. A trial. */
const BEGUN = 0.37;
/** Half of an 80 % interval: a share of the time in which the note rises, and at least this. */
const RISE_SHARE = 0.16;
const LEAST_MS = 2;
export const UNCLEAR_MS = 25;

export interface Onset {
  readonly seconds: Seconds;
  /** Half of an 80 % interval. */
  readonly uncertaintyMs: number;
}

/**
 * When a note has half its level: the partials by which it is told from the note before, halfway between the lowest they
 * were and the highest they come to. @param rough from the alignment @param within where it may lie
 */
export function onsetOf(
  samples: Float32Array,
  note: ExpectedNote,
  before: ExpectedNote | null,
  rough: Seconds,
  within: { readonly from: Seconds; readonly to: Seconds },
): Onset {
  const from = Math.max(within.from, rough - AROUND);
  const to = Math.min(within.to, rough + AROUND);
  const none = { seconds: rough, uncertaintyMs: UNCLEAR_MS };
  if (to - from < 4 * STEP) return none;
  const others = [before?.hertz, before?.secondHertz, note.secondHertz].filter((hertz) => hertz != null);
  const span = { from, to, step: STEP, window: WINDOW };
  const level = new Float64Array(Math.floor((to - from) / STEP + 1e-9) + 1);
  for (const hertz of note.begins) {
    const apart = others.filter((other) => Math.abs(Math.log2(other / hertz)) > 0.02);
    const envelope = envelopeOf(tracksOf(samples, hertz, ownPartials(hertz, apart), span));
    for (let i = 0; i < level.length; i++) level[i] = Math.hypot(level[i]!, envelope[i]!);
  }
  const roughAt = Math.round((rough - from) / STEP);
  // The highest it comes to soon after, then back down to the lowest before.
  let high = 0;
  for (let i = Math.max(0, roughAt - 8); i < level.length; i++) high = Math.max(high, level[i]!);
  let top = Math.max(0, roughAt - 12);
  while (top < level.length - 1 && level[top]! < 0.9 * high) top += 1;
  let bottom = top;
  for (let i = top; i >= 0; i--) if (level[i]! < level[bottom]!) bottom = i;
  const low = level[bottom]!;
  if (high < CLEAR * low || top === bottom) return none;
  const cross = (share: number) => {
    const line = low + share * (high - low);
    let i = top;
    while (i > bottom && level[i - 1]! >= line) i -= 1;
    const [a, b] = [level[i - 1] ?? low, level[i]!];
    return from + STEP * (b > a ? i - 1 + (line - a) / (b - a) : i);
  };
  const rise = cross(0.85) - cross(0.15);
  return { seconds: cross(BEGUN), uncertaintyMs: Math.max(LEAST_MS, 1000 * RISE_SHARE * rise) };
}
