import { SILENCE } from './filters';

/** Pole of the loss at each round: high partials die away first. */
const DAMPING = 0.18;

/**
 * A string that rings by itself: a loop of its period with loss, after Jaffe and Smith. The delay is the period less what
 * the loss takes; its fraction is made by a first-order allpass (Thiran). The loop's gain is 10^(−3/(T60·f)).
 */
export class RingingString {
  private readonly line: Float64Array;
  private place = 0;
  private readonly allpass: number;
  private input1 = 0;
  private output1 = 0;
  private lost = 0;
  private gain: number;

  constructor(
    private readonly hertz: number,
    private seconds: number,
    sampleRate: number,
  ) {
    const w = (2 * Math.PI * hertz) / sampleRate;
    const lossDelay = Math.atan2(DAMPING * Math.sin(w), 1 - DAMPING * Math.cos(w)) / w;
    const delay = sampleRate / hertz - lossDelay;
    // A fraction from 0.5 to 1.5 keeps the allpass flat.
    const whole = Math.max(1, Math.floor(delay - 0.5));
    const fraction = delay - whole;
    this.line = new Float64Array(whole);
    this.allpass = (1 - fraction) / (1 + fraction);
    this.gain = gainOf(seconds, hertz);
  }

  /** Changes how long it rings: a finger on it, or the bow. */
  ringFor(seconds: number): void {
    if (seconds === this.seconds) return;
    this.seconds = seconds;
    this.gain = gainOf(seconds, this.hertz);
  }

  /** What of its input a string takes up, so that resonance stays below what drives it. */
  get uptake(): number {
    return 1 - this.gain;
  }

  next(input: number): number {
    const late = this.line[this.place]!;
    this.lost = (1 - DAMPING) * late + DAMPING * this.lost;
    const damped = this.gain * this.lost;
    const passed = this.allpass * (damped - this.output1) + this.input1;
    this.input1 = damped;
    this.output1 = passed;
    const sum = input + passed;
    this.line[this.place] = sum < SILENCE && sum > -SILENCE ? 0 : sum;
    this.place = this.place + 1 === this.line.length ? 0 : this.place + 1;
    return passed;
  }
}

function gainOf(seconds: number, hertz: number): number {
  return 10 ** (-3 / (seconds * hertz));
}
