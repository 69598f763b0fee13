import type { Seconds } from '#core/base';
import type { ExpectedNote } from './expected';
import { RATE } from './resample';
import { emptySpectrum, HOP, HOP_SECONDS, Looker, QUICK_WINDOW } from './spectra';
import { Templates } from './templates';

// Looked up once: they are called for millions of times.
const { abs, log10, max, round } = Math;

/** Another pitch agrees so much better than the note before it counts; less, where another string sounds in both. */
const OTHER_BETTER = { alone: 0.12, beside: 0.08 } as const;

/** What is heard in a frame of a note. */
export interface CloseFrame {
  readonly time: Seconds;
  /** How well the note agrees. */
  readonly own: number;
  /** The pitch that agrees best, and how well. */
  readonly midi: number;
  readonly best: number;
  readonly level: number;
  /** It is not the note's. */
  readonly isOther: boolean;
}

/** Frames so many dB under the loudest of a note tell nothing. */
const SOFT = 18;

/** Looks at a note once more, through a shorter window, when it is known which note it should be. */
export class Closer {
  private readonly looker = new Looker(QUICK_WINDOW);
  private readonly spectrum = emptySpectrum();
  readonly templates: Templates;

  constructor(
    private readonly samples: Float32Array,
    a4: number,
  ) {
    this.templates = new Templates(a4, QUICK_WINDOW);
  }

  /** What is heard from one time to another, where there is more than silence. */
  framesOf(note: ExpectedNote, from: Seconds, to: Seconds): CloseFrame[] {
    const frames: CloseFrame[] = [];
    const own = note.voices.flat().map((hertz) => this.templates.midiOf(hertz));
    for (let time = from + HOP_SECONDS / 2; time < to; time += HOP_SECONDS) {
      const middle = round(time * RATE);
      this.looker.pitchesAt(this.samples, middle, this.spectrum);
      const agreement = note.voices.reduce(
        (most, voice) => max(most, this.templates.agreement(voice, this.spectrum)),
        0,
      );
      const { midi, score } =
        note.secondHertz === null
          ? this.templates.best(this.spectrum)
          : this.templates.bestBeside(this.spectrum, note.midi, note.secondHertz);
      const isOwn = own.some((one) => abs(one - midi) < 0.6);
      frames.push({
        time,
        own: agreement,
        midi,
        best: score,
        isOther: !isOwn && score - agreement > (note.secondHertz === null ? OTHER_BETTER.alone : OTHER_BETTER.beside),
        level: this.levelAt(middle),
      });
    }
    const loudest = frames.reduce((most, { level }) => max(most, level), -Infinity);
    return frames.map((frame) => (frame.level < loudest - SOFT ? { ...frame, isOther: false } : frame));
  }

  private levelAt(middle: number): number {
    let sum = 1e-12;
    for (let n = middle - HOP; n < middle + HOP; n++) sum += (this.samples[n] ?? 0) ** 2;
    return 10 * log10(sum / (2 * HOP));
  }
}

/** A stretch of one other pitch among frames. */
export interface Stray {
  readonly midi: number;
  readonly from: Seconds;
  readonly to: Seconds;
}

export function straysOf(frames: readonly CloseFrame[]): Stray[] {
  const strays: Stray[] = [];
  for (let i = 0; i < frames.length; i++) {
    const frame = frames[i]!;
    if (!frame.isOther) continue;
    let j = i;
    while (j + 1 < frames.length && frames[j + 1]!.isOther && frames[j + 1]!.midi === frame.midi) j += 1;
    strays.push({ midi: frame.midi, from: frame.time - HOP / RATE / 2, to: frames[j]!.time + HOP / RATE / 2 });
    i = j;
  }
  return strays;
}
