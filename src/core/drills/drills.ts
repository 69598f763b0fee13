import { fraction } from '#core/base';
import { parsePitch } from '#core/pitch';
import { type ReportOptions, reportTune, type TuneReport } from '#core/report';
import { crossingNeeds, type EventKind, type LimitKey, type Limits, MIN_TURN } from '#core/tempo';
import type { NoteEvent, NoteMark, Tune } from '#core/tune';
import { STANDARD_TUNING } from '#core/tuning';

/** A note of a drill: pitch, eighths, and what is asked of it. */
interface DrillNote {
  readonly pitch: string;
  readonly eighths: number;
  readonly link?: NoteEvent['link'];
  readonly mark?: NoteMark;
  readonly grace?: string;
  readonly place?: NoteEvent['place'];
  readonly finger?: number;
  readonly position?: number;
}

/** A few notes that come round and round, in which one thing needs its time and nothing else as much. */
export interface Drill {
  readonly key: LimitKey;
  readonly kind: EventKind;
  /** Of the crossings, those within a slur. */
  readonly inSlur?: true;
  readonly notes: readonly DrillNote[];
}

const times = (count: number, ...notes: DrillNote[]): DrillNote[] => Array.from({ length: count }, () => notes).flat();
const note = (pitch: string, eighths: number, more: Partial<DrillNote> = {}): DrillNote => ({
  pitch,
  eighths,
  ...more,
});

const open = (pitch: string, more: Partial<DrillNote> = {}) =>
  note(pitch, 0.5, pitch === 'E5' ? { place: 'E', finger: 0, ...more } : more);
const byTurns = (low: string, high: string) => times(8, open(low), open(high));
/** Each bow begins on the string on which the last one ended. */
const slurredByTurns = (low: string, high: string) =>
  [
    [low, high],
    [high, low],
  ].flatMap((pair) => Array.from({ length: 8 }, (_, i) => open(pair[i % 2]!, i > 0 ? { link: 'slur' } : {})));

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
  // Open strings by turns: side by side, with one between, with two between; a stroke for every note, then eight to a bow.
  { key: 'crossingMs', kind: 'crossing', notes: byTurns('D4', 'A4') },
  { key: 'crossingMsPerDegree', kind: 'crossing', notes: byTurns('D4', 'E5') },
  { key: 'skipMs', kind: 'crossing', notes: byTurns('G3', 'E5') },
  { key: 'slurCrossingMs', kind: 'crossing', inSlur: true, notes: slurredByTurns('D4', 'A4') },
  { key: 'slurCrossingMsPerDegree', kind: 'crossing', inSlur: true, notes: slurredByTurns('D4', 'E5') },
  { key: 'slurSkipMs', kind: 'crossing', inSlur: true, notes: slurredByTurns('G3', 'E5') },
  { key: 'hopMs', kind: 'hop', notes: times(8, note('F#4', 0.5), note('C5', 0.5)) },
  { key: 'barreMs', kind: 'barre', notes: times(8, note('E4', 0.5), note('B4', 0.5)) },
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
  { key: 'graceMs', kind: 'grace', notes: times(8, note('E4', 0.5, { grace: 'F#4' }), note('D4', 0.5)) },
  { key: 'slideMs', kind: 'slide', notes: times(8, note('F#4', 0.5, { mark: 'slide' }), note('D4', 0.5)) },
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
          ...notes.map(({ pitch, eighths, link, mark, grace, place, finger, position }, i): NoteEvent => ({
            kind: 'note',
            id: `n${i + 1}`,
            pitch: parsePitch(pitch)!,
            duration: fraction(2 * eighths, 16),
            link: i === 0 ? 'start' : (link ?? 'change'),
            ...(mark ? { marks: [mark] } : {}),
            ...(grace ? { graceNotes: [parsePitch(grace)!] } : {}),
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

/** What the drill's tightest event has and would need at a tempo. */
interface Measured {
  /** Less what other crossings close before it take. */
  readonly availableMs: number;
  /** Degrees left to turn, or millimetres of the shift; 0 where there is neither. */
  readonly amount: number;
  /** Strings between. */
  readonly skips: number;
}

/** The events that a drill is about, with the notes they lead to. */
function eventsOf(drill: Drill, report: TuneReport) {
  const { check, bowed } = report.figures;
  return check.events.flatMap((events, index) =>
    events.flatMap((event) =>
      event.kind === drill.kind && (!drill.inSlur || bowed[index]!.link === 'slur') ? [{ event, index }] : [],
    ),
  );
}

function measure(drill: Drill, bpm: number, options: ReportOptions): Measured {
  const report = reportTune(drillTune(drill), { ...options, bpm });
  const found = eventsOf(drill, report);
  if (found.length === 0) throw new RangeError(`drill ${drill.key}: no ${drill.kind} in it`);
  const room = ({ event }: (typeof found)[number]) => event.availableMs / event.neededMs;
  const { event, index } = found.reduce((one, other) => (room(other) < room(one) ? other : one));
  const { arm, moves } = report.figures;
  const { limits, schools } = report.settings;
  if (drill.kind === 'shift') return { availableMs: event.availableMs, amount: moves[index]!.shift!.mm, skips: 0 };
  const crossing = drill.kind === 'crossing' ? arm.crossings[index] : null;
  if (!crossing) return { availableMs: event.availableMs, amount: 0, skips: 0 };
  const { turnDegrees, skips } = crossing;
  const alone = crossingNeeds({ turnDegrees, skips, inSlur: drill.inSlur ?? false }, limits, schools.skips);
  return {
    availableMs: event.availableMs / (event.neededMs / alone),
    amount: Math.max(MIN_TURN, turnDegrees),
    skips,
  };
}

/** Limits below this cannot come of a drill: nobody's hands are so quick. */
const LEAST = 0.01;

/**
 * The limit's value for which the drill is just possible at a tempo: the need of its event, as the dance check has it,
 * solved for the one limit with the others as they are.
 * Told in three digits; of a crossing never more than was shown, since its need rises by steps. Crossing: a + b·degrees + c·strings between; shift: a + b·mm; all others need the limit itself.
 */
export function measuredLimit(drill: Drill, bpm: number, options: ReportOptions & { readonly limits: Limits }): number {
  const { availableMs, amount, skips } = measure(drill, bpm, options);
  const { limits } = options;
  const value = (key: LimitKey) => limits[key].value;
  const solved = (): number => {
    switch (drill.key) {
      case 'crossingMs':
        return availableMs - value('crossingMsPerDegree') * amount - value('skipMs') * skips;
      case 'crossingMsPerDegree':
        return (availableMs - value('crossingMs') - value('skipMs') * skips) / amount;
      case 'skipMs':
        return (availableMs - value('crossingMs') - value('crossingMsPerDegree') * amount) / skips;
      case 'slurCrossingMs':
        return availableMs - value('slurCrossingMsPerDegree') * amount - value('slurSkipMs') * skips;
      case 'slurCrossingMsPerDegree':
        return (availableMs - value('slurCrossingMs') - value('slurSkipMs') * skips) / amount;
      case 'slurSkipMs':
        return (availableMs - value('slurCrossingMs') - value('slurCrossingMsPerDegree') * amount) / skips;
      case 'shiftMs':
        return availableMs - value('shiftMsPerMm') * amount;
      case 'shiftMsPerMm':
        return (availableMs - value('shiftMs')) / amount;
      default:
        return availableMs;
    }
  };
  const shown = solved();
  const digit = 10 ** (Math.floor(Math.log10(Math.max(LEAST, shown))) - 2);
  const told = drill.kind === 'crossing' ? Math.floor(shown / digit + 1e-6) * digit : shown;
  return Math.max(LEAST, Number(told.toPrecision(3)));
}

/** The tempo at which the drill is just possible with the limits as they are. */
export function drillCeiling(drill: Drill, options: ReportOptions): number {
  const found = eventsOf(drill, reportTune(drillTune(drill), options));
  return Math.min(Infinity, ...found.map(({ event }) => event.ceilingBpm));
}

/** Slowest bow from one stroke over the whole hair, in cm a second. */
export function slowestBow(hairCm: number, seconds: number): number {
  return Math.max(LEAST, Math.round((100 * hairCm) / seconds) / 100);
}
