import { Alignment, type Visit } from './align';
import type { Expected } from './expected';
import { RATE, Resampler } from './resample';
import { Scores } from './scores';
import { emptySpectrum, HOP, Looker } from './spectra';

// Looked up once: they are called for millions of times.
const { log10, max, min } = Math;

/** Longest take, seconds: about 100 MB while it is heard. */
export const MAX_TAKE_SECONDS = 600;
/** How quickly what counts as loud falls, and what counts as quiet rises, dB a frame. */
const LOUD_FALLS = 0.02;
const QUIET_RISES = 0.02;
/** Between these shares of the way from quiet to loud a frame is more and more sounding. */
const SILENT = { all: 0.2, none: 0.5 } as const;
const SILENCE_WORTH = 0.75;
const LEAST_RANGE = 12;
export const QUIETEST = -100;

/** A take as it comes in, block by block: looked at, and followed through the plan, while it is played. */
export class Listener {
  private readonly resampler: Resampler;
  private readonly looker = new Looker();
  readonly scores: Scores;
  private readonly alignment: Alignment;
  /** Everything heard, at `RATE`. */
  samples: Float32Array = new Float32Array(RATE * 8);
  length = 0;
  /** For each frame its level in dB, and how much began in it. */
  readonly levels: number[] = [];
  readonly rises: number[] = [];
  private loud = QUIETEST;
  private quiet = 0;
  private readonly spectrum = emptySpectrum();

  constructor(
    readonly expected: Expected,
    options: { readonly sampleRate: number },
  ) {
    this.resampler = new Resampler(options.sampleRate);
    this.scores = new Scores(expected);
    this.alignment = new Alignment(expected.notes, this.scores);
  }

  /** Takes a block in; whatever does not fit into the longest take is left. */
  push(block: Float32Array): void {
    this.add(this.resampler.push(block));
    this.look(this.length - Looker.AHEAD);
  }

  /** Whether the plan has been played to its end. */
  get isOver(): boolean {
    return this.alignment.isOver(this.levels.length);
  }

  /** Level of the last frame, dB of full scale. */
  get level(): number {
    return this.levels[this.levels.length - 1] ?? QUIETEST;
  }

  /** Ends the take: the way through the plan that was most likely. */
  end(): Visit[] {
    this.add(this.resampler.end());
    this.look(this.length);
    this.alignment.advance(this.levels.length, 0);
    return this.alignment.finish(this.levels.length);
  }

  private add(more: Float32Array): void {
    const room = MAX_TAKE_SECONDS * RATE - this.length;
    const taken = more.length > room ? more.subarray(0, max(0, room)) : more;
    if (this.length + taken.length > this.samples.length) {
      const larger = new Float32Array(max(2 * this.samples.length, this.length + taken.length));
      larger.set(this.samples.subarray(0, this.length));
      this.samples = larger;
    }
    this.samples.set(taken, this.length);
    this.length += taken.length;
  }

  private look(until: number): void {
    for (let t = this.levels.length; t * HOP < until; t++) {
      const middle = t * HOP;
      const level = levelAt(this.samples, middle, this.length);
      const rise = this.looker.riseAt(this.samples, middle);
      this.loud = max(level, this.loud - LOUD_FALLS);
      this.quiet = min(level, this.quiet + QUIET_RISES);
      const share = (level - this.quiet) / max(LEAST_RANGE, this.loud - this.quiet);
      const silence = SILENCE_WORTH * max(0, min(1, (SILENT.none - share) / (SILENT.none - SILENT.all)));
      this.looker.pitchesAt(this.samples, middle, this.spectrum);
      // Noise begins all the time.
      this.alignment.advance(t, rise * (1 - silence / SILENCE_WORTH));
      this.scores.push(this.spectrum, silence);
      this.levels.push(level);
      this.rises.push(rise);
    }
  }
}

/** Level of the hop about a sample, dB of full scale. */
function levelAt(samples: Float32Array, middle: number, length: number): number {
  const from = max(0, middle - HOP);
  const to = min(length, middle + HOP);
  let sum = 0;
  for (let n = from; n < to; n++) sum += samples[n]! * samples[n]!;
  return to > from && sum > 0 ? max(QUIETEST, 10 * log10(sum / (to - from))) : QUIETEST;
}
