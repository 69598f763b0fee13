import type { Bites } from './bites';
import type { Expected } from './expected';
import type { Heard, HeardNote } from './heard';
import { median } from './measure';
import type { Thresholds } from './mistakes';
import type { TakeReference } from './reference';
import type { Tones } from './tones';

/** What findings are looked for in. */
export interface TakeScene {
  readonly samples: Float32Array;
  /** Level of each frame, dB. */
  readonly levels: readonly number[];
  readonly expected: Expected;
  readonly heard: Heard;
  readonly thresholds: Thresholds;
  readonly reference: TakeReference | null;
  readonly bites: Bites;
  readonly tones: Tones;
  /** How much slower than the plan the player was about each expected note: the median of the lengths around it. */
  readonly pace: readonly number[];
}

/** Notes on each side whose lengths tell the pace. */
const AROUND = 8;

/** How much slower than the plan: for each expected note the median, weighed by length, of played ÷ planned around it. */
export function paceOf(notes: readonly HeardNote[]): number[] {
  const ratios = notes.map((heard, i) => {
    return heard.isFollowed ? (notes[i + 1]!.onset - heard.onset) / heard.note.seconds : NaN;
  });
  const all = median(ratios.filter((ratio) => ratio > 0));
  return notes.map((_, i) => {
    const around: { ratio: number; weight: number }[] = [];
    for (let j = Math.max(0, i - AROUND); j <= Math.min(notes.length - 1, i + AROUND); j++)
      if (j !== i && ratios[j]! > 0) around.push({ ratio: ratios[j]!, weight: Math.min(0.5, notes[j]!.note.seconds) });
    if (around.length < 4) return all;
    around.sort((a, b) => a.ratio - b.ratio);
    const half = around.reduce((sum, { weight }) => sum + weight, 0) / 2;
    let sum = 0;
    return around.find(({ weight }) => (sum += weight) >= half)!.ratio;
  });
}
