import { hertzOf } from '#core/pitch';
/** A tone as its partials: frequencies in hertz and amplitudes. */
export interface Tone {
  readonly frequencies: readonly number[];
  readonly amplitudes: readonly number[];
}

/** Partials of a bowed tone and by how much each is weaker than the one below. */
const PARTIALS = 7;
const DECAY = 0.88;

/** Constants of the Plomp–Levelt curve in the form of W. A. Sethares, "Local consonance …", JASA 94 (1993). */
const B1 = 3.5;
const B2 = 5.75;
const D_STAR = 0.24;
const S1 = 0.0207;
const S2 = 18.96;

/** A harmonic tone on a fundamental. */
export function toneOf(hertz: number, partials = PARTIALS, decay = DECAY): Tone {
  const steps = Array.from({ length: partials }, (_, i) => i);
  return { frequencies: steps.map((i) => (i + 1) * hertz), amplitudes: steps.map((i) => decay ** i) };
}

/** Roughness of two sine tones: a·(e^(−b1·s·d) − e^(−b2·s·d)), s = d*⁄(s1·lower + s2), a the smaller amplitude. */
function pairRoughness(f: number, g: number, amplitude: number): number {
  const distance = Math.abs(f - g);
  const s = D_STAR / (S1 * Math.min(f, g) + S2);
  return amplitude * (Math.exp(-B1 * s * distance) - Math.exp(-B2 * s * distance));
}

/**
 * Roughness of two tones together: the sum over all pairs of partials of one and the other. Pairs within one tone are its
 * own roughness and not counted. No unit; 0 is smooth. Time O(k²) for k partials.
 */
export function roughnessOf(a: Tone, b: Tone): number {
  let sum = 0;
  for (let i = 0; i < a.frequencies.length; i++)
    for (let j = 0; j < b.frequencies.length; j++)
      sum += pairRoughness(a.frequencies[i]!, b.frequencies[j]!, Math.min(a.amplitudes[i]!, b.amplitudes[j]!));
  return sum;
}

const known = new Map<number, number>();

/** Roughness of two tempered pitches at A4 = 440 Hz, by their MIDI numbers. */
export function pitchRoughness(midiA: number, midiB: number): number {
  const [low, high] = midiA < midiB ? [midiA, midiB] : [midiB, midiA];
  const key = 128 * low + high;
  const before = known.get(key);
  if (before !== undefined) return before;
  const found = roughnessOf(toneOf(hertzOf(low)), toneOf(hertzOf(high)));
  known.set(key, found);
  return found;
}

/** Semitones of a fifth. */
const FIFTH = 7;

/** Roughness of two pitches over that of a fifth on the lower one: low strings, where all is rougher, are judged as high ones. */
export function relativeRoughness(midiA: number, midiB: number): number {
  const low = Math.min(midiA, midiB);
  return pitchRoughness(midiA, midiB) / pitchRoughness(low, low + FIFTH);
}
