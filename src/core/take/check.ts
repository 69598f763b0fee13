import type { BeatsPerMinute } from '#core/base';
import type { DrillKind } from '#core/drills';
import { bitesOf, usualBiteMs } from './bites';
import { bowFindings } from './bowFindings';
import { withoutConsequences } from './consequences';
import { type DrillRow, drillRows } from './drillRows';
import type { Expected } from './expected';
import type { TakeFinding } from './finding';
import { hear } from './hear';
import type { Heard } from './heard';
import { Listener } from './listen';
import { DEFAULT_THRESHOLDS, type Thresholds } from './mistakes';
import { orderFindings } from './orderFindings';
import { pitchFindings } from './pitchFindings';
import type { TakeReference } from './reference';
import { paceOf } from './scene';
import { secondFindings } from './secondFindings';
import { type TakeFigures, takeFigures } from './takeFigures';
import { timeFindings } from './timeFindings';
import { toneFindings } from './toneFindings';
import { lowTonesOf, tonesOf } from './tones';

export interface TakeCheck {
  readonly heard: Heard;
  readonly figures: TakeFigures;
  readonly findings: readonly TakeFinding[];
  /** Of a drill, in its own figures; empty for anything else. */
  readonly rows: readonly DrillRow[];
  /** Nothing is told, and nearly all of it was heard. */
  readonly clean: boolean;
}

export interface CheckOptions {
  readonly thresholds?: Thresholds;
  /** The player's own accepted takes; null: there are none. */
  readonly reference?: TakeReference | null;
  /** The drill it is a take of; null: none. */
  readonly drill?: DrillKind | null;
}

/** So much of the plan must be heard for a take to be called clean. */
const CLEAN_HEARD = 0.9;

/** What a listener has heard, when the take has ended. */
export function checkTake(
  listener: Listener,
  bpm: BeatsPerMinute,
  { thresholds = DEFAULT_THRESHOLDS, reference = null, drill = null }: CheckOptions = {},
): TakeCheck {
  const heard = hear(listener, listener.end());
  const { samples, levels, expected } = listener;
  const pace = paceOf(heard.notes);
  const bites = bitesOf(samples, heard.notes);
  const tones = tonesOf(samples, heard.notes);
  const scene = { samples, levels, expected, heard, thresholds, pace, reference, bites, tones };
  const findings = withoutConsequences([
    ...orderFindings(scene),
    ...pitchFindings(scene),
    ...bowFindings(scene),
    ...secondFindings(scene),
    ...timeFindings(scene),
    ...toneFindings(scene),
  ]).sort((a, b) => a.seconds - b.seconds);
  const figures = takeFigures(heard, bpm, pace, { biteMs: usualBiteMs(bites), lowTones: lowTonesOf(tones) });
  return {
    heard,
    figures,
    findings,
    rows: drill ? drillRows(drill, scene) : [],
    clean: findings.length === 0 && figures.heardNotes >= CLEAN_HEARD * figures.notes,
  };
}

const BLOCK = 4096;

/** A whole take at once. Yields the share done. */
export function* checkInBlocks(
  samples: Float32Array,
  expected: Expected,
  {
    sampleRate,
    bpm,
    ...options
  }: CheckOptions & {
    readonly sampleRate: number;
    readonly bpm: BeatsPerMinute;
  },
): Generator<number, TakeCheck> {
  const listener = new Listener(expected, { sampleRate });
  for (let at = 0; at < samples.length; at += BLOCK) {
    listener.push(samples.subarray(at, Math.min(samples.length, at + BLOCK)));
    yield Math.min(0.9, (0.9 * (at + BLOCK)) / samples.length);
  }
  return checkTake(listener, bpm, options);
}
