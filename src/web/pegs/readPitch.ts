import { PitchDetector } from 'pitchy';
import { hertzOf } from '#core/pitch';

/** Below this the detector is guessing: no string is bowed, or several. */
const MIN_CLARITY = 0.9;
/** A frame quieter than this, as the root of its mean square, is silence. */
const MIN_LEVEL = 0.005;
/** What is read is looked for this near the string's pitch; beyond it another string is sounding. */
const NEAR_CENTS = 700;

const detectors = new Map<number, PitchDetector<Float32Array>>();

/** Cents of a frame's pitch above a target, at a reference pitch; null where nothing clear near it sounds. */
export function readCents(frame: Float32Array, sampleRate: number, targetMidi: number, a4?: number): number | null {
  let sum = 0;
  for (const sample of frame) sum += sample * sample;
  if (Math.sqrt(sum / frame.length) < MIN_LEVEL) return null;
  const detector = detectors.get(frame.length) ?? PitchDetector.forFloat32Array(frame.length);
  detectors.set(frame.length, detector);
  const [hertz, clarity] = detector.findPitch(frame, sampleRate);
  if (clarity < MIN_CLARITY || !(hertz > 0)) return null;
  const cents = 1200 * Math.log2(hertz / hertzOf(targetMidi, a4));
  return Math.abs(cents) > NEAR_CENTS ? null : cents;
}
