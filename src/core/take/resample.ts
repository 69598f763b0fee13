// Looked up once: they are called for millions of times.
const { abs, ceil, cos, floor, max, min, sin } = Math;
/** Every take is heard at this rate: partials up to 10 kHz are enough for a fiddle. */
export const RATE = 24000;

/** Zero crossings of the sinc on each side, and steps between two of them in the table. */
const CROSSINGS = 12;
const STEPS = 256;
/** What is let through of the band. */
const BAND = 0.92;

/** sinc(x)·cos²(πx⁄2c) for x from 0 to c, in small steps. */
const KERNEL = Float64Array.from({ length: CROSSINGS * STEPS + 2 }, (_, i) => {
  const x = i / STEPS;
  if (x >= CROSSINGS) return 0;
  const sinc = x === 0 ? 1 : sin(Math.PI * x) / (Math.PI * x);
  return sinc * cos((Math.PI * x) / (2 * CROSSINGS)) ** 2;
});

/**
 * Samples of any rate as samples at `RATE`, block by block: y(t) = Σ x(n)·c·h(c·(t − n)) with a windowed sinc h cut off at
 * the lower of both bands (Smith, "Digital audio resampling", 1984). The same samples whatever the size of the blocks.
 * Time O(taps) a sample.
 */
export class Resampler {
  private readonly ratio: number;
  private readonly cut: number;
  private readonly reach: number;
  /** Samples not used up yet; the first is number `start` of the input. */
  private held = new Float32Array(0);
  private start = 0;
  private next = 0;

  constructor(from: number) {
    this.ratio = from / RATE;
    this.cut = BAND * min(1, RATE / from);
    this.reach = ceil(CROSSINGS / this.cut);
    // Before the beginning there was silence.
    this.held = new Float32Array(this.reach);
    this.start = -this.reach;
  }

  push(block: Float32Array): Float32Array {
    const input = new Float32Array(this.held.length + block.length);
    input.set(this.held);
    input.set(block, this.held.length);
    const end = this.start + input.length;
    const count = max(0, floor((end - 1 - this.reach) / this.ratio) - this.next + 1);
    const out = new Float32Array(count);
    for (let k = 0; k < count; k++) out[k] = this.at((this.next + k) * this.ratio, input);
    this.next += count;
    const keep = max(this.start, floor(this.next * this.ratio) - this.reach - 1);
    this.held = input.slice(keep - this.start);
    this.start = keep;
    return out;
  }

  /** What is left when nothing more comes. */
  end(): Float32Array {
    return this.push(new Float32Array(this.reach + 1));
  }

  private at(time: number, input: Float32Array): number {
    const { cut, reach, start } = this;
    const last = min(start + input.length - 1, floor(time + reach));
    let sum = 0;
    for (let n = max(start, ceil(time - reach)); n <= last; n++) {
      const x = cut * abs(time - n) * STEPS;
      const step = floor(x);
      if (step >= CROSSINGS * STEPS) continue;
      const weight = KERNEL[step]! + (KERNEL[step + 1]! - KERNEL[step]!) * (x - step);
      sum += weight * input[n - start]!;
    }
    return cut * sum;
  }
}
