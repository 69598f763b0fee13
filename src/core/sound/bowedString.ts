import type { Noise } from './noise';

/** Integral from -2 to x of the cubic B-spline, for x from -2 to 0: a step that is rounded to the band. */
function roundedStep(x: number): number {
  if (x < -1) return (2 + x) ** 4 / 24;
  return 0.5 + (2 * x) / 3 - x ** 3 / 3 - x ** 4 / 8;
}

/**
 * A bowed string by Helmholtz motion: at the bow the string is carried along and slips once a period, so the force at the
 * bridge is a saw. Its amplitude has a sign: the motion is turned over with the bow's direction, and passes through
 * nothing at each turn.
 *
 * The saw is limited to the band by the integrated cubic B-spline over four samples, which delays it by two. Jitter moves
 * the place where it slips and not the period, so that the pitch stays.
 */
export class BowedString {
  private phase = 0;
  private slip = 1;
  /** Corrections of samples to come, and the last two samples waiting for theirs. */
  private carry = 0;
  private last = 0;
  private beforeLast = 0;
  private round1 = 0;
  private round2 = 0;
  private low = 0;
  private amplitude = 0;

  /** Set at each tick of control. */
  increment = 0;
  target = 0;
  /** Shares of the way gone in a sample: of the amplitude, and of the corners' rounding. */
  quickness = 0;
  sharpness = 1;
  scratch = 0;
  /** Noise beside the tone, for an amplitude of 1. */
  hiss = 0;
  /** Share of the lowest partials that is missing, and how quickly the filter follows that tells them. */
  cloud = 0;
  cloudiness = 0;
  /** What a finger lets through. */
  let = 1;

  /** Whether there is anything to be heard of it. */
  get isSilent(): boolean {
    return this.target === 0 && this.amplitude < 1e-7 && this.amplitude > -1e-7;
  }

  next(noise: Noise): number {
    this.amplitude += (this.target - this.amplitude) * this.quickness;
    this.phase += this.increment;
    let now = 2 * this.phase - 1 + this.carry;
    this.carry = 0;
    if (this.phase >= this.slip) {
      const since = Math.min(1, (this.phase - this.slip) / this.increment);
      this.phase -= 1;
      this.slip = 1 + (this.scratch > 0 ? JITTER * this.scratch * noise.next() : 0);
      // The saw drops by 2 here.
      now -= 2;
      this.beforeLast -= 2 * roundedStep(since - 2);
      this.last -= 2 * roundedStep(since - 1);
      now += 2 * roundedStep(-since);
      this.carry = 2 * roundedStep(-since - 1);
    }
    const saw = this.beforeLast;
    this.beforeLast = this.last;
    this.last = now;
    const rough = saw + (this.hiss + SCRATCH * this.scratch) * noise.next();
    const driven = rough * this.amplitude * this.let;
    this.round1 += (driven - this.round1) * this.sharpness;
    this.round2 += (this.round1 - this.round2) * this.sharpness;
    if (this.cloud === 0) return this.round2;
    this.low += (this.round2 - this.low) * this.cloudiness;
    return this.round2 - this.cloud * this.low;
  }
}

/** Share of a period by which a slip may come early or late, and noise beside the saw, at an excess of weight of 1. */
const JITTER = 0.07;
const SCRATCH = 0.7;
