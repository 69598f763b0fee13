import { fraction } from '#core/base';
import { parsePitch } from '#core/pitch';
import { type ReportOptions, reportTune } from '#core/report';
import type { EventKind, LimitKey, Limits } from '#core/tempo';
import type { NoteEvent, NoteMark, Tune } from '#core/tune';
import { STANDARD_TUNING } from '#core/tuning';

/** A note of a drill: pitch, eighths, and what is asked of it. */
interface DrillNote {
  readonly pitch: string;
  readonly eighths: number;
  readonly link?: NoteEvent['link'];
  readonly mark?: NoteMark;
  readonly place?: NoteEvent['place'];
  readonly finger?: number;
  readonly position?: number;
}

/** A few notes that come round and round, in which one thing needs its time and nothing else as much. */
export interface Drill {
  readonly key: LimitKey;
  readonly kind: EventKind;
  readonly notes: readonly DrillNote[];
}

const times = (count: number, ...notes: DrillNote[]): DrillNote[] => Array.from({ length: count }, () => notes).flat();
const note = (pitch: string, eighths: number, more: Partial<DrillNote> = {}): DrillNote => ({
  pitch,
  eighths,
  ...more,
});

/**
 * A drill for each limit that time is measured against; the slowest bow has another way. Those that share a need are
 * measured one after the other: what a crossing needs at all before what each degree adds to it.
 */
export const DRILLS: readonly Drill[] = [
  // A ladder on one string.
  {
    key: 'strokeMs',
    kind: 'stroke',
    notes: times(
      2,
      ...['A4', 'B4', 'C#5', 'D5', 'E5', 'D5', 'C#5', 'B4'].map((pitch) =>
        note(pitch, 0.5, pitch === 'E5' ? { place: 'A', finger: 4 } : {}),
      ),
    ),
  },
  {
    key: 'tripletStrokeMs',
    kind: 'bowed-triplet',
    notes: times(2, note('A4', 2, { mark: 'bowed-triplet' }), note('B4', 2)),
  },
  // Two open strings, side by side; then with one between.
  { key: 'crossingMs', kind: 'crossing', notes: times(8, note('D4', 0.5), note('A4', 0.5)) },
  {
    key: 'crossingMsPerDegree',
    kind: 'crossing',
    notes: times(8, note('D4', 0.5), note('E5', 0.5, { place: 'E', finger: 0 })),
  },
  { key: 'slurCrossingFactor', kind: 'crossing', notes: times(8, note('D4', 0.5), note('A4', 0.5, { link: 'slur' })) },
  { key: 'hopMs', kind: 'hop', notes: times(8, note('E4', 0.5), note('B4', 0.5)) },
  {
    key: 'shiftMs',
    kind: 'shift',
    notes: times(
      2,
      note('F#5', 2, { place: 'E', finger: 1, position: 1 }),
      note('A5', 2, { place: 'E', finger: 1, position: 3 }),
    ),
  },
  {
    key: 'shiftMsPerMm',
    kind: 'shift',
    notes: times(
      2,
      note('F#5', 2, { place: 'E', finger: 1, position: 1 }),
      note('C#6', 2, { place: 'E', finger: 1, position: 5 }),
    ),
  },
  { key: 'retakeMs', kind: 'retake', notes: times(4, note('D4', 2, { link: 'retake' })) },
  { key: 'cutMs', kind: 'cut', notes: times(8, note('E4', 0.5, { mark: 'cut' }), note('F#4', 0.5)) },
  { key: 'flickMs', kind: 'flick', notes: times(8, note('E4', 0.5, { mark: 'flick' }), note('F#4', 0.5)) },
  { key: 'shortRollMs', kind: 'short-roll', notes: times(2, note('E4', 2, { mark: 'roll' }), note('F#4', 2)) },
  { key: 'longRollMs', kind: 'long-roll', notes: times(2, note('E4', 3, { mark: 'roll' }), note('F#4', 1)) },
  { key: 'pulseMs', kind: 'pulse', notes: times(2, note('D4', 2, { mark: 'pulse' }), note('A4', 2)) },
];

export function drillFor(key: LimitKey): Drill | null {
  return DRILLS.find((drill) => drill.key === key) ?? null;
}

/** The drill as a tune of one bar, in quarters. */
export function drillTune({ notes }: Drill): Tune {
  return {
    schemaVersion: 1,
    title: 'Drill',
    danceType: null,
    meter: { num: 4, den: 4 },
    key: { letter: 'D', alter: 0, mode: 'major' },
    tuning: STANDARD_TUNING,
    tempoBpm: null,
    start: 'down',
    parts: [
      {
        name: 'A',
        events: [
          { kind: 'bar', id: 'b1' },
          ...notes.map(({ pitch, eighths, link, mark, place, finger, position }, i): NoteEvent => ({
            kind: 'note',
            id: `n${i + 1}`,
            pitch: parsePitch(pitch)!,
            duration: fraction(2 * eighths, 16),
            link: i === 0 ? 'start' : (link ?? 'change'),
            ...(mark ? { marks: [mark] } : {}),
            ...(place ? { place } : {}),
            ...(finger === undefined ? {} : { finger }),
            ...(position === undefined ? {} : { position }),
          })),
        ],
      },
    ],
    form: ['A', 'A'],
  };
}

/** What the drill's event has and would need at a tempo. */
interface Measured {
  readonly availableMs: number;
  /** Degrees between the planes, or millimetres of the shift; 0 where there is neither. */
  readonly amount: number;
}

function measure(drill: Drill, bpm: number, options: ReportOptions): Measured {
  const { figures } = reportTune(drillTune(drill), { ...options, bpm });
  for (const [index, events] of figures.check.events.entries()) {
    const event = events.find(({ kind }) => kind === drill.kind);
    if (!event) continue;
    const amount =
      drill.kind === 'shift' ? figures.moves[index]!.shift!.mm : (figures.arm.crossings[index]?.degrees ?? 0);
    return { availableMs: event.availableMs, amount };
  }
  throw new RangeError(`drill ${drill.key}: no ${drill.kind} in it`);
}

/** Limits below this cannot come of a drill: nobody's hands are so quick. */
const LEAST = 0.01;

/**
 * The limit's value for which the drill is just possible at a tempo: the need of its event, as the dance check has it,
 * solved for the one limit with the others as they are.
 * Told in three digits. Crossing: a + b·degrees; inside a slur f·(a + b·degrees); shift: a + b·mm; all others need the limit itself.
 */
export function measuredLimit(drill: Drill, bpm: number, options: ReportOptions & { readonly limits: Limits }): number {
  const { availableMs, amount } = measure(drill, bpm, options);
  const { limits } = options;
  const value = (key: LimitKey) => limits[key].value;
  const solved = (): number => {
    switch (drill.key) {
      case 'crossingMs':
        return availableMs - value('crossingMsPerDegree') * amount;
      case 'crossingMsPerDegree':
        return (availableMs - value('crossingMs')) / amount;
      case 'slurCrossingFactor':
        return availableMs / (value('crossingMs') + value('crossingMsPerDegree') * amount);
      case 'shiftMs':
        return availableMs - value('shiftMsPerMm') * amount;
      case 'shiftMsPerMm':
        return (availableMs - value('shiftMs')) / amount;
      default:
        return availableMs;
    }
  };
  return Math.max(LEAST, Number(solved().toPrecision(3)));
}

/** The tempo at which the drill is just possible with the limits as they are. */
export function drillCeiling(drill: Drill, options: ReportOptions): number {
  const { figures } = reportTune(drillTune(drill), options);
  let least = Infinity;
  for (const events of figures.check.events)
    for (const { kind, ceilingBpm } of events) if (kind === drill.kind) least = Math.min(least, ceilingBpm);
  return least;
}

/** Slowest bow from one stroke over the whole hair, in cm a second. */
export function slowestBow(hairCm: number, seconds: number): number {
  return Math.max(LEAST, Math.round((100 * hairCm) / seconds) / 100);
}
