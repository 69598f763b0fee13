import { hertzOf } from '#core/pitch';
import { PITCH_BINS, templateOf } from './spectra';

// Looked up once: they are called for millions of times.
const { log2 } = Math;

/** Pitches by which anything that is not in the plan is told: a semitone apart, from D3 to E7. */
const ANY = { from: 50, to: 100 } as const;

/** Spectra of pitches sounding alone or together, on a fiddle tuned to `a4`, made when they are first asked for. */
export class Templates {
  /** First those of single pitches, a semitone apart. */
  readonly all: Float32Array[] = [];
  private readonly ids = new Map<string, number>();

  constructor(
    private readonly a4: number,
    private readonly window: number,
  ) {
    for (let midi = ANY.from; midi <= ANY.to; midi++) this.all.push(templateOf([(a4 / 440) * hertzOf(midi)], window));
  }

  idOf(hertz: readonly number[]): number {
    const key = hertz.join('+');
    const known = this.ids.get(key);
    if (known !== undefined) return known;
    this.ids.set(key, this.all.length);
    this.all.push(templateOf(hertz, this.window));
    return this.all.length - 1;
  }

  /** The single pitch that agrees best with a spectrum, and how well. */
  best(spectrum: Float32Array): { readonly midi: number; readonly score: number } {
    let [midi, score] = [ANY.from as number, -1];
    for (let k = 0; k <= ANY.to - ANY.from; k++) {
      const sum = cosine(this.all[k]!, spectrum);
      if (sum > score) [midi, score] = [ANY.from + k, sum];
    }
    return { midi, score };
  }

  /** How well pitches sounding together agree with a spectrum. */
  agreement(hertz: readonly number[], spectrum: Float32Array): number {
    return cosine(this.all[this.idOf(hertz)]!, spectrum);
  }

  /** A frequency as the number of a pitch, on a fiddle tuned as this one. */
  midiOf(hertz: number): number {
    return 69 + 12 * log2(hertz / this.a4);
  }
}

/** Both are of length 1. */
function cosine(template: Float32Array, spectrum: Float32Array): number {
  let sum = 0;
  for (let b = 0; b < PITCH_BINS; b++) sum += template[b]! * spectrum[b]!;
  return sum;
}
