import FFT from 'fft.js';
import { RATE } from './resample';

// Looked up once: they are called for millions of times.
const { abs, ceil, cos, floor, log2, max, min, sqrt } = Math;

/** Samples from one look at the take to the next, and seconds. */
export const HOP = 240;
export const HOP_SECONDS = HOP / RATE;
/** The window through which pitches are seen, a shorter one where they come quickly, and the one for beginnings. */
const LONG = { window: 1536, size: 2048 } as const;
export const LONG_WINDOW: number = LONG.window;
export const QUICK_WINDOW = 1024;
const SHORT = { window: 512, size: 1024 } as const;
/** Steps of the scale of pitches in an octave, its lowest frequency and its highest. */
const PER_OCTAVE = 36;
const LOWEST = 140;
const HIGHEST = 6500;
export const PITCH_BINS = floor(PER_OCTAVE * log2(HIGHEST / LOWEST));
/** What stands out of its surroundings: half an octave on each side, so many times their mean. */
const AROUND = 18;
const STANDS_OUT = 1.1;

const hann = (length: number) =>
  Float64Array.from({ length }, (_, n) => 0.5 - 0.5 * cos((2 * Math.PI * (n + 0.5)) / length));

/** For each step of the scale which bins of the transform it holds, by weight. */
interface Band {
  readonly first: number;
  readonly weights: Float64Array;
}
const BANDS: readonly Band[] = Array.from({ length: PITCH_BINS }, (_, b) => {
  const centre = (LOWEST * 2 ** (b / PER_OCTAVE) * LONG.size) / RATE;
  const half = max(1, centre * (2 ** (1 / PER_OCTAVE) - 1));
  const first = ceil(centre - half);
  const weights: number[] = [];
  for (let k = first; k <= centre + half; k++) weights.push(max(0, 1 - abs(k - centre) / half));
  const sum = weights.reduce((a, w) => a + w, 0) || 1;
  return { first, weights: Float64Array.from(weights, (w) => w / sum) };
});

/** What stands out at each step of the scale of pitches, of length 1. */
export type Spectrum = Float64Array;
export const emptySpectrum = (): Spectrum => new Float64Array(PITCH_BINS);

/**
 * A spectrum over a scale of pitches, as what stands out of it: s(b) = max(0, √m(b) − 1.1·mean of √m over an octave
 * about b), of length 1. So noise and the colour of the fiddle weigh little, and partials much.
 * @param magnitudes of the transform of the long window
 */
export function pitchSpectrum(magnitudes: Float64Array, into: Spectrum = emptySpectrum()): Spectrum {
  const sums = new Float64Array(PITCH_BINS + 1);
  for (let b = 0; b < PITCH_BINS; b++) {
    const { first, weights } = BANDS[b]!;
    let sum = 0;
    for (let j = 0; j < weights.length; j++) sum += weights[j]! * magnitudes[first + j]!;
    into[b] = sqrt(sum);
    sums[b + 1] = sums[b]! + into[b]!;
  }
  let power = 0;
  for (let b = 0; b < PITCH_BINS; b++) {
    const from = max(0, b - AROUND);
    const to = min(PITCH_BINS, b + AROUND + 1);
    const value = max(0, into[b]! - (STANDS_OUT * (sums[to]! - sums[from]!)) / (to - from));
    into[b] = value;
    power += value * value;
  }
  const scale = power > 0 ? 1 / sqrt(power) : 0;
  for (let b = 0; b < PITCH_BINS; b++) into[b]! *= scale;
  return into;
}

/** Bins of the transform that the scale reaches into. */
const SEEN = max(...BANDS.map(({ first, weights }) => first + weights.length));

/** How strong the partials of a bowed string are, 1 to 14, before the fiddle's body takes most of what is below 300 Hz. */
const PARTIALS = 14;
const FALL = 0.8;
const BODY_FROM = 300;

/** The spectrum that a fiddle should have while these pitches sound, through a window of so many samples. */
export function templateOf(hertz: readonly number[], window: number): Spectrum {
  const magnitudes = new Float64Array(LONG.size / 2);
  const lobe = (2 * RATE) / window;
  for (const pitch of hertz)
    for (let h = 1; h <= PARTIALS && h * pitch < HIGHEST; h++) {
      const f = h * pitch;
      const strength = h ** -FALL * min(1, (f / BODY_FROM) ** 1.5);
      const from = max(0, ceil(((f - lobe) * LONG.size) / RATE));
      for (let k = from; k < magnitudes.length && (k * RATE) / LONG.size < f + lobe; k++)
        magnitudes[k]! += strength * (0.5 + 0.5 * cos((Math.PI * ((k * RATE) / LONG.size - f)) / lobe));
    }
  return pitchSpectrum(magnitudes);
}

/** Looks at samples at `RATE`, a frame each hop, from the middle of the windows. */
export class Looker {
  private readonly long = new FFT(LONG.size);
  private readonly short = new FFT(SHORT.size);
  private readonly longWindow: Float64Array;
  private readonly shortWindow = hann(SHORT.window);
  private readonly longIn = new Float64Array(LONG.size);
  private readonly shortIn = new Float64Array(SHORT.size);
  private readonly out = new Float64Array(2 * LONG.size);
  private readonly magnitudes = new Float64Array(LONG.size / 2);
  private readonly lately = new Float64Array(SHORT.size / 2);

  constructor(window: number = LONG_WINDOW) {
    this.longWindow = hann(window);
  }

  /** Samples after a frame's middle that must be there before it is looked at. */
  static readonly AHEAD = LONG.window / 2;

  /** The pitch spectrum around a sample. */
  pitchesAt(samples: Float32Array, middle: number, into: Spectrum): void {
    this.transform(this.long, this.longIn, this.longWindow, samples, middle);
    const { out, magnitudes } = this;
    for (let k = 0; k < SEEN; k++) {
      const re = out[2 * k]!;
      const im = out[2 * k + 1]!;
      magnitudes[k] = sqrt(re * re + im * im);
    }
    pitchSpectrum(this.magnitudes, into);
  }

  /**
   * How much begins here, 0 to about 1: the rise of √magnitude since the last look, all partials together, of the whole
   * (spectral flux, as in Dixon, "Onset detection revisited", 2006). Frames must be looked at one after another.
   */
  riseAt(samples: Float32Array, middle: number): number {
    this.transform(this.short, this.shortIn, this.shortWindow, samples, middle + HOP / 2);
    const { out, lately } = this;
    let rise = 0;
    let whole = 1e-4;
    for (let k = 4; k < lately.length * 0.6; k++) {
      const re = out[2 * k]!;
      const im = out[2 * k + 1]!;
      const value = sqrt(sqrt(re * re + im * im));
      const more = value - lately[k]!;
      if (more > 0) rise += more;
      whole += value;
      lately[k] = value;
    }
    return rise / whole;
  }

  private transform(fft: FFT, input: Float64Array, window: Float64Array, samples: Float32Array, middle: number): void {
    const from = middle - window.length / 2;
    // What lies before the take and after it is silent.
    const first = max(0, -from);
    const last = min(window.length, samples.length - from);
    input.fill(0, 0, window.length);
    for (let n = first; n < last; n++) input[n] = window[n]! * samples[from + n]!;
    fft.realTransform(this.out, input);
  }
}
