import type { DrillRow, HeardNote, MistakeKind, TakeCheck, TakeFigures, TakeFinding } from '#core/take';

/** A note of a take as a page shows it. */
export interface TakenNote {
  readonly index: number;
  readonly loop: number;
  readonly heard: boolean;
  readonly onset: number;
  readonly end: number;
  /** Against the player's own time; NaN where it is not known. */
  readonly offMs: number;
  readonly cents: number;
  readonly uncertainty: number;
  readonly level: number;
  /** Share of the note, and cents from what was meant. */
  readonly curve: readonly (readonly [share: number, cents: number])[];
}

/** What was heard of a take. */
export interface TakeResult {
  readonly notes: readonly TakenNote[];
  readonly figures: TakeFigures;
  readonly findings: readonly TakeFinding[];
  readonly rows: readonly DrillRow[];
  readonly clean: boolean;
  readonly seconds: number;
  /** Share of the samples cut off at full scale. */
  readonly clipped: number;
}

/** Points of a pitch line kept for a note. */
const MOST_POINTS = 24;

const takenNote = ({
  note,
  heard,
  onset,
  end,
  offMs,
  cents,
  centsUncertainty,
  level,
  pitch,
  otherCents,
}: HeardNote): TakenNote => {
  const curve = otherCents === null && pitch?.isShared === false ? pitch.curve : [];
  const every = Math.ceil(curve.length / MOST_POINTS);
  return {
    index: note.index,
    loop: note.loop,
    heard,
    onset,
    end,
    offMs,
    cents,
    uncertainty: centsUncertainty,
    level,
    curve: curve
      .filter((_, i) => i % every === 0)
      .map((point) => [(point.time - onset) / Math.max(0.01, end - onset), point.cents] as const),
  };
};

export function takeResult(
  { heard, figures, findings, rows, clean }: TakeCheck,
  seconds: number,
  clipped: number,
): TakeResult {
  return { notes: heard.notes.map(takenNote), figures, findings, rows, clean, seconds, clipped };
}

/** What matters most first, where several things went wrong in a loop: order before tune, tune before tone. */
const WEIGHT: Partial<Record<MistakeKind, number>> = {
  'started-again': 6,
  'wrong-pass': 6,
  'left-out': 5,
  'wrong-note': 5,
  'added-note': 4,
  rushing: 3,
  dragging: 3,
  'late-entry': 3,
  'hold-cut-short': 2.5,
  'silence-cut-short': 2.5,
  'late-finger': 2,
  'uneven-triplet': 2,
};

/** The one thing that mattered: by its weight, and by how far it lies beyond its threshold. */
export function mattersMost(findings: readonly TakeFinding[]): TakeFinding | null {
  const worth = ({ code, figure, threshold }: TakeFinding) =>
    (WEIGHT[code] ?? 1.5) * Math.min(3, Math.max(1, figure / Math.max(1e-6, threshold)));
  return findings.reduce<TakeFinding | null>(
    (most, one) => (most === null || worth(one) > worth(most) ? one : most),
    null,
  );
}
