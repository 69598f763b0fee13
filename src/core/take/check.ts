import { bowFindings } from './bowFindings';
import type { Expected } from './expected';
import type { TakeFinding } from './finding';
import { hear, type Heard } from './hear';
import { Listener } from './listen';
import { DEFAULT_THRESHOLDS, type Thresholds } from './mistakes';
import { orderFindings } from './orderFindings';
import { pitchFindings } from './pitchFindings';
import { paceOf } from './scene';
import { secondFindings } from './secondFindings';
import { timeFindings } from './timeFindings';
import { toneFindings } from './toneFindings';

export interface TakeCheck {
  readonly heard: Heard;
  readonly findings: readonly TakeFinding[];
}

/** What a listener has heard, when the take has ended. */
export function checkTake(listener: Listener, thresholds: Thresholds = DEFAULT_THRESHOLDS): TakeCheck {
  const heard = hear(listener, listener.end());
  const scene = {
    samples: listener.samples,
    levels: listener.levels,
    expected: listener.expected,
    heard,
    thresholds,
    pace: paceOf(heard.notes),
  };
  const findings = [
    ...orderFindings(scene),
    ...pitchFindings(scene),
    ...bowFindings(scene),
    ...secondFindings(scene),
    ...timeFindings(scene),
    ...toneFindings(scene),
  ].sort((a, b) => a.seconds - b.seconds);
  return { heard, findings };
}

const BLOCK = 4096;

/** A whole take at once. Yields the share done. */
export function* checkInBlocks(
  samples: Float32Array,
  expected: Expected,
  {
    sampleRate,
    a4,
    thresholds,
  }: { readonly sampleRate: number; readonly a4?: number; readonly thresholds?: Thresholds },
): Generator<number, TakeCheck> {
  const listener = new Listener(expected, { sampleRate, a4 });
  for (let at = 0; at < samples.length; at += BLOCK) {
    listener.push(samples.subarray(at, Math.min(samples.length, at + BLOCK)));
    yield Math.min(0.9, (0.9 * (at + BLOCK)) / samples.length);
  }
  return checkTake(listener, thresholds);
}
