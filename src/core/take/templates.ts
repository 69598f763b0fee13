import { hertzOf } from '#core/pitch';
import { dot } from './dot';
import { type Spectrum, templateOf } from './spectra';

// Looked up once: they are called for millions of times.
const { log2, round } = Math;

/** Pitches by which anything that is not in the plan is told: a semitone apart, from D3 to E7. */
const ANY = { from: 50, to: 100 } as const;

/** Beside a string that sounds along, another pitch is looked for within so many semitones. */
const NEAR = 6;

/** Spectra of pitches sounding alone or together, on a fiddle tuned to `a4`, made when they are first asked for. */
export class Templates {
  /** First those of single pitches, a semitone apart. */
  readonly all: Spectrum[] = [];
  private readonly ids = new Map<string, number>();

  constructor(
    private readonly a4: number,
    private readonly window: number,
  ) {
    for (let midi = ANY.from; midi <= ANY.to; midi++) this.all.push(templateOf([hertzOf(midi, a4)], window));
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
  best(spectrum: Spectrum): { readonly midi: number; readonly score: number } {
    let [midi, score] = [ANY.from as number, -1];
    for (let k = 0; k <= ANY.to - ANY.from; k++) {
      const sum = cosine(this.all[k]!, spectrum);
      if (sum > score) [midi, score] = [ANY.from + k, sum];
    }
    return { midi, score };
  }

  /** The pitch near a note that agrees best with a spectrum, alone or beside another that sounds along. */
  bestBeside(spectrum: Spectrum, near: number, beside: number): { readonly midi: number; readonly score: number } {
    const alone = this.best(spectrum);
    const second = round(this.midiOf(beside));
    let { midi, score } = second === alone.midi ? { midi: near, score: -1 } : alone;
    for (let other = near - NEAR; other <= near + NEAR; other++) {
      // An octave above it sounds as it does: that is not told.
      if (other !== near && (other - second) % 12 === 0) continue;
      const pair = this.agreement([hertzOf(other, this.a4), beside], spectrum);
      if (pair > score) [midi, score] = [other, pair];
    }
    return { midi, score };
  }

  /** How well pitches sounding together agree with a spectrum. */
  agreement(hertz: readonly number[], spectrum: Spectrum): number {
    return cosine(this.all[this.idOf(hertz)]!, spectrum);
  }

  /** A frequency as the number of a pitch, on a fiddle tuned as this one. */
  midiOf(hertz: number): number {
    return 69 + 12 * log2(hertz / this.a4);
  }
}

/** The cosine of the angle between two spectra, which are of length 1. */
export const cosine = (template: Spectrum, spectrum: Spectrum): number => dot(template, spectrum);
