import { dot } from './dot';

// Looked up once: they are called for millions of times.
const { abs, ceil, cos, floor, max, min, sin } = Math;
/** Every take is heard at this rate: partials up to 10 kHz are enough for a fiddle. */
export const RATE = 24000;

/** Zero crossings of the sinc on each side, and steps between two of them in the table. */
const CROSSINGS = 12;
const STEPS = 256;
/** Places between samples whose weights are kept: rates in simple ratios have few. */
const MOST_PLACES = 1024;
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
  /** Weights of the samples about a place between two of them, in parts of `RATE`. */
  private readonly weights = new Map<number, Float64Array>();
  private readonly cut: number;
  private readonly reach: number;
  /** Samples not used up yet; the first is number `start` of the input. */
  private held = new Float64Array(0);
  private start = 0;
  /** The next sample of the output lies after this one of the input, by so many parts of `RATE`: whole numbers, never rounded. */
  private before = 0;
  private place = 0;

  constructor(private readonly from: number) {
    this.cut = BAND * min(1, RATE / from);
    this.reach = ceil(CROSSINGS / this.cut);
    // Before the beginning there was silence.
    this.held = new Float64Array(this.reach);
    this.start = -this.reach;
  }

  push(block: Float32Array): Float32Array {
    const input = new Float64Array(this.held.length + block.length);
    input.set(this.held);
    input.set(block, this.held.length);
    const end = this.start + input.length;
    const out = new Float32Array(ceil((max(0, end - this.before) * RATE) / this.from) + 1);
    let count = 0;
    while (this.before + this.reach < end) {
      out[count++] = this.next(input);
      this.place += this.from;
      const passed = floor(this.place / RATE);
      this.before += passed;
      this.place -= passed * RATE;
    }
    const keep = max(this.start, this.before - this.reach + 1);
    this.held = input.slice(keep - this.start);
    this.start = keep;
    return out.slice(0, count);
  }

  /** What is left when nothing more comes. */
  end(): Float32Array {
    return this.push(new Float32Array(this.reach + 1));
  }

  private next(input: Float64Array): number {
    return dot(this.weightsAt(this.place), input, this.before - this.reach + 1 - this.start);
  }

  private weightsAt(place: number): Float64Array {
    const known = this.weights.get(place);
    if (known) return known;
    const { cut, reach } = this;
    const made = Float64Array.from({ length: 2 * reach }, (_, j) => {
      const x = cut * abs(place / RATE + reach - 1 - j) * STEPS;
      const step = floor(x);
      if (step >= CROSSINGS * STEPS) return 0;
      return cut * (KERNEL[step]! + (KERNEL[step + 1]! - KERNEL[step]!) * (x - step));
    });
    if (this.weights.size < MOST_PLACES) this.weights.set(place, made);
    return made;
  }
}
