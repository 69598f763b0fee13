/** Coefficients of a second-order section, a0 taken out. */
export interface Section {
  readonly b0: number;
  readonly b1: number;
  readonly b2: number;
  readonly a1: number;
  readonly a2: number;
}

/** Second-order sections by the bilinear transform (the usual audio formulas): peak gain 1 for a resonance. */
export function resonance(hertz: number, q: number, sampleRate: number): Section {
  const w = (2 * Math.PI * hertz) / sampleRate;
  const alpha = Math.sin(w) / (2 * q);
  const a0 = 1 + alpha;
  return { b0: alpha / a0, b1: 0, b2: -alpha / a0, a1: (-2 * Math.cos(w)) / a0, a2: (1 - alpha) / a0 };
}

export function highPass(hertz: number, q: number, sampleRate: number): Section {
  const w = (2 * Math.PI * hertz) / sampleRate;
  const [alpha, cos] = [Math.sin(w) / (2 * q), Math.cos(w)];
  const a0 = 1 + alpha;
  const b = (1 + cos) / 2 / a0;
  return { b0: b, b1: -2 * b, b2: b, a1: (-2 * cos) / a0, a2: (1 - alpha) / a0 };
}

export function lowPass(hertz: number, q: number, sampleRate: number): Section {
  const w = (2 * Math.PI * hertz) / sampleRate;
  const [alpha, cos] = [Math.sin(w) / (2 * q), Math.cos(w)];
  const a0 = 1 + alpha;
  const b = (1 - cos) / 2 / a0;
  return { b0: b, b1: 2 * b, b2: b, a1: (-2 * cos) / a0, a2: (1 - alpha) / a0 };
}

/** Complex response of a section at a frequency. */
export function responseOf({ b0, b1, b2, a1, a2 }: Section, hertz: number, sampleRate: number): [number, number] {
  const w = (2 * Math.PI * hertz) / sampleRate;
  const [c1, s1, c2, s2] = [Math.cos(w), Math.sin(w), Math.cos(2 * w), Math.sin(2 * w)];
  const [nr, ni] = [b0 + b1 * c1 + b2 * c2, -b1 * s1 - b2 * s2];
  const [dr, di] = [1 + a1 * c1 + a2 * c2, -a1 * s1 - a2 * s2];
  const size = dr * dr + di * di;
  return [(nr * dr + ni * di) / size, (ni * dr - nr * di) / size];
}

/** Anything smaller than this is nothing: what decays for ever would end in numbers that are slow to reckon with. */
export const SILENCE = 1e-15;

/** One second-order section at work (transposed direct form). */
export class Filter {
  private z1 = 0;
  private z2 = 0;

  constructor(private readonly section: Section) {}

  next(x: number): number {
    const { b0, b1, b2, a1, a2 } = this.section;
    const y = b0 * x + this.z1;
    this.z1 = b1 * x - a1 * y + this.z2;
    this.z2 = b2 * x - a2 * y;
    if (this.z1 < SILENCE && this.z1 > -SILENCE) this.z1 = 0;
    if (this.z2 < SILENCE && this.z2 > -SILENCE) this.z2 = 0;
    return y;
  }
}
