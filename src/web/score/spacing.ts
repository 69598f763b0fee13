import { keyFifths } from '#core/pitch';
import type { WrittenEvent } from './barContent';
import type { LineSpec } from './lines';

/** Where a bar stands on its line, and each of its events in it, in pixels. */
export interface BarExtent {
  readonly x: number;
  readonly endX: number;
  /** Where the bar's music begins, past clef, key and repeat sign. */
  readonly contentX: number;
  /** Left edge of each event's head. */
  readonly noteXs: readonly number[];
}

/** Room after a bar line before the first note, and least room from note to note. */
const BAR_LEAD = 14;
const SIGN_LEAD = 12;
const MIN_ADVANCE = 5;
/** Room at a bar's end, also before a repeat sign. */
const BAR_END = 5;
const REPEAT_END = 12;
/** Lines with few bars keep the spacing of a full one up to this stretch. */
const MAX_STRETCH = 1.15;
const MIN_PER_WEIGHT = 4;
const METER_ROOM = 30;
const ACCIDENTAL_ROOM = 11;

/**
 * Shares a line's width: signs take what they need, the rest goes to notes by their lengths.
 * `leads` are the pixels that clef, key, meter and repeat sign take at the start of each bar.
 */
export function spaceLine(
  line: LineSpec,
  contents: readonly (readonly WrittenEvent[])[],
  leads: readonly number[],
  width: number,
): BarExtent[] {
  const fixed = line.bars.map((bar, i) => {
    const extras = contents[i]!.reduce((sum, { leftExtra }) => sum + leftExtra, 0);
    const announced = i === line.bars.length - 1 ? courtesyRoom(line.courtesy) : 0;
    return leadRoom(leads[i]!) + extras + (bar.endsRepeat ? REPEAT_END : BAR_END) + announced;
  });
  const weights = contents.map((events) => events.reduce((sum, { weight }) => sum + weight, 0) || 1);
  const totalFixed = fixed.reduce((sum, pixels) => sum + pixels, 0);
  const totalWeight = weights.reduce((sum, weight) => sum + weight, 0);
  const shortness = Math.min(1, (line.bars.length / line.fullBars) * MAX_STRETCH);
  const perWeight = Math.max(MIN_PER_WEIGHT, (width * shortness - totalFixed) / totalWeight);

  let x = 0;
  return contents.map((events, i) => {
    const isLast = i === contents.length - 1;
    const span = isLast && shortness === 1 ? width - x : fixed[i]! + weights[i]! * perWeight;
    const contentX = x + leadRoom(leads[i]!);
    let at = contentX;
    const noteXs = events.map(({ leftExtra, weight }) => {
      const here = at + leftExtra;
      at = here + Math.max(weight * perWeight, MIN_ADVANCE);
      return here;
    });
    const place = { x, endX: x + span, contentX, noteXs };
    x += span;
    return place;
  });
}

function courtesyRoom(courtesy: LineSpec['courtesy']): number {
  if (!courtesy) return 0;
  const signs = courtesy.key ? Math.abs(keyFifths(courtesy.key)) + Math.abs(keyFifths(courtesy.keyBefore)) : 0;
  return (courtesy.meter ? METER_ROOM : 0) + (courtesy.key ? 14 + signs * ACCIDENTAL_ROOM : 0);
}

/** Room from the bar's left edge to its first notehead: past clef, key and repeat sign, or past the bar line. */
function leadRoom(signs: number): number {
  return signs > BAR_LEAD ? signs + SIGN_LEAD : BAR_LEAD;
}
