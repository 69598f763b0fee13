import type { Expected } from './expected';
import { LONG_WINDOW, type Spectrum } from './spectra';
import { cosine, Templates } from './templates';

// Looked up once: they are called for millions of times.
const { max } = Math;

/** A note may be hidden by silence or by a wrong pitch; both are worth so much less than the note itself. */
const SILENT_LESS = 0.05;
const OTHER_LESS = 0.22;
/** An ornament's pitch, or the melody alone where two strings are planned, is worth a little less. */
const VOICE_LESS = 0.03;
/** What is between times through, or before and after the tune, is worth at least this. */
const NOTHING = 0.3;
const OTHER_BETWEEN_LESS = 0.3;
/** A note that is not in the plan may have any pitch. */
const ADDED_LESS = 0.08;

/**
 * How well each note of the plan agrees with a frame: the cosine of the angle between the frame's pitch spectrum and that
 * of the note's pitches, the best of its voices; or silence, or any other pitch, for a little less each. Told against the
 * best there is in the frame, so 0 at most.
 * Time O(templates · bins) a frame.
 */
export class Scores {
  private readonly templates: Templates;
  /** For each kind of note (the same voices) its templates. */
  private readonly kinds: (readonly number[])[] = [];
  readonly kindOf: readonly number[];
  private readonly values: Float64Array;
  /** Sums over all frames so far, a row for each frame: of each kind, then of added notes, and of what lies between. */
  private sums = new Float64Array(0);
  private frames = 0;
  private readonly width: number;

  constructor({ notes, a4 }: Expected) {
    this.templates = new Templates(a4, LONG_WINDOW);
    const kindIds = new Map<string, number>();
    this.kindOf = notes.map(({ voices }) => {
      const key = voices.map((voice) => voice.join('+')).join(' ');
      const known = kindIds.get(key);
      if (known !== undefined) return known;
      kindIds.set(key, this.kinds.length);
      this.kinds.push(voices.map((voice) => this.templates.idOf(voice)));
      return this.kinds.length - 1;
    });
    this.values = new Float64Array(this.templates.all.length);
    this.width = this.kinds.length + 2;
    this.sums = new Float64Array(this.width * 256);
  }

  /** Columns of what is not in the plan, and of what lies between. */
  get added(): number {
    return this.kinds.length;
  }
  get nothing(): number {
    return this.kinds.length + 1;
  }

  /** Takes the next frame in. @param silence how silent it is, 0 to 1 */
  push(spectrum: Spectrum, silence: number): void {
    const { values, kinds, width } = this;
    const templates = this.templates.all;
    let best = 0;
    for (let k = 0; k < templates.length; k++) {
      const sum = cosine(templates[k]!, spectrum);
      values[k] = sum;
      if (sum > best) best = sum;
    }
    if ((this.frames + 2) * width > this.sums.length) {
      const more = new Float64Array(2 * this.sums.length);
      more.set(this.sums);
      this.sums = more;
    }
    const at = this.frames * width;
    const next = at + width;
    const reference = max(best, silence);
    const other = max(silence - SILENT_LESS, best - OTHER_LESS);
    for (let kind = 0; kind < kinds.length; kind++) {
      const voices = kinds[kind]!;
      let score = values[voices[0]!]!;
      for (let v = 1; v < voices.length; v++) score = max(score, values[voices[v]!]! - VOICE_LESS);
      this.sums[next + kind] = this.sums[at + kind]! + max(score, other) - reference;
    }
    this.sums[next + this.added] = this.sums[at + this.added]! + best - ADDED_LESS - reference;
    this.sums[next + this.nothing] =
      this.sums[at + this.nothing]! + max(NOTHING, silence, best - OTHER_BETWEEN_LESS) - reference;
    this.frames += 1;
  }

  /** Sum of the scores in a column before a frame. */
  before(frame: number, column: number): number {
    return this.sums[frame * this.width + column]!;
  }
}
