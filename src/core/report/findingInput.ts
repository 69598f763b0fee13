import type { Seconds } from '#core/base';
import type { Fingering } from '#core/fingering';
import type { Direction, Meter, Tune, Unrolled } from '#core/tune';
import type { LinkEdit } from './edits';
import type { Figures, ReportSettings, SharedStroke, Trial } from './figures';

/** Where a finding stands: its first note as played. */
export interface Spot {
  readonly part: string;
  readonly pass: number;
  readonly bar: number;
  readonly beat: number;
  readonly meter: Meter;
  /** Under which ending bracket; null under none. */
  readonly ending: number | null;
}

/** What findings are looked for in, and how their mends are tried. */
export interface FindingInput {
  readonly tune: Tune;
  readonly unrolled: Unrolled;
  readonly fingers: ReadonlyMap<string, Fingering>;
  readonly figures: Figures;
  readonly settings: ReportSettings;
  /** Sounding seconds of each played note. */
  readonly durations: readonly Seconds[];
  /** What link edits, and another start direction where one is given, would lead to. */
  readonly attempt: (edits: readonly LinkEdit[], start?: Direction) => Trial;
  /** Figures and strokes of another version of the tune: for what is more than links. */
  readonly recompute: (tune: Tune) => {
    readonly figures: Figures;
    readonly sharedStrokes: () => readonly SharedStroke[];
  };
  /** Strokes with the hair shared out; counted when they are first asked for. */
  readonly shared: () => readonly SharedStroke[];
}

export function spotOf({ unrolled }: FindingInput, index: number): Spot {
  const { part, pass, bar, beat, meter, ending } = unrolled.notes[index]!;
  return { part, pass, bar, beat, meter, ending };
}
