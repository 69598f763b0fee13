import type { BeatsPerMinute, Centimetres, Fraction, Seconds } from '#core/base';
import {
  type BowedNote,
  bowingLedger,
  bowNotes,
  type Ledger,
  type RoundVerdict,
  roundVerdict,
  type Start,
  startOf,
} from '#core/bowing';
import { type ArmPlan, armPlan, pairPlane, type Plane, planeOf } from '#core/crossing';
import type { Fingering, FingerRule, Hand, HandMove } from '#core/fingering';
import type { Instrument } from '#core/instrument';
import type { Schools } from '#core/schools';
import {
  type Bands,
  ceilingAt,
  ceilingOfOther,
  type CheckedBowing,
  crossingGaps,
  type DanceCheck,
  danceCheck,
  type DanceCheckInput,
  dottedRatio,
  type DottedRatios,
  type Lilt,
  type Limits,
  noteTimes,
  type Timing,
  timing,
} from '#core/tempo';
import {
  type AllocatedStroke,
  allocateTravel,
  bowSpeed,
  type NoteTravel,
  rawTravel,
  type Reach,
  reachOf,
  strokeWishes,
} from '#core/travel';
import { type Direction, type NoteMark, PLACES, type Tune, type Unrolled, type UnrolledNote } from '#core/tune';

/** What the figures are taken with. */
export interface ReportSettings {
  readonly bpm: BeatsPerMinute;
  readonly beat: Fraction;
  readonly start: Direction | null;
  readonly fingerRule: FingerRule;
  readonly limits: Limits;
  readonly instrument: Instrument;
  readonly schools: Schools;
  readonly hand: Hand;
  readonly bands: Bands;
  readonly dottedRatios: DottedRatios;
  readonly lilts: readonly Lilt[];
  readonly lilt: Lilt;
}

/** Everything counted about an unrolled tune; `x[i]` belongs to `unrolled.notes[i]`. */
export interface Figures {
  readonly start: Start;
  readonly bowed: readonly BowedNote[];
  readonly ledger: Ledger;
  readonly arm: ArmPlan;
  /** Hops and shifts of the hand that lead to each note. */
  readonly moves: readonly (HandMove | null)[];
  readonly marks: readonly (readonly NoteMark[] | undefined)[];
  /** How many grace notes stand before each note. */
  readonly graces: readonly number[];
  readonly travel: readonly NoteTravel[];
  /** What pulses, accents and wished lengths add; null where nothing does. */
  readonly reach: Reach | null;
  readonly check: DanceCheck;
}

export function timesOf(
  { danceType }: Tune,
  unrolled: Unrolled,
  { bpm, beat, lilt, dottedRatios }: Pick<ReportSettings, 'bpm' | 'beat' | 'lilt' | 'dottedRatios'>,
): Timing {
  return timing(noteTimes(unrolled, beat, lilt, dottedRatio(danceType, dottedRatios)), bpm);
}

/**
 * The plane of each played note: its string, or the pair of a double stop or of a drone. A chord of three or four strings is rolled
 * onto its top two.
 */
export function notePlanes(notes: readonly UnrolledNote[], fingers: ReadonlyMap<string, Fingering>): (Plane | null)[] {
  return notes.map(({ note }) => {
    const fingering = fingers.get(note.id);
    if (!fingering?.reachable) return null;
    const { place, stops } = fingering;
    if (stops[0]) return pairPlane(place, stops[0].place);
    const beside = note.drone && PLACES[PLACES.indexOf(place) + (note.drone === 'upper' ? 1 : -1)];
    return beside ? pairPlane(place, beside) : planeOf(place, false);
  });
}

/** What is known before the bowing is. */
interface WithoutLinks {
  readonly planes: readonly (Plane | null)[];
  readonly moves: readonly (HandMove | null)[];
  readonly times: Timing;
}

/** Counts everything that follows from the links; strings, fingers, moves of the hand and times are given, since no link changes them. */
export function figuresOf(
  tune: Tune,
  unrolled: Unrolled,
  { planes, moves, times }: WithoutLinks,
  settings: ReportSettings,
): Figures {
  const { instrument } = settings;
  const start = startOf(tune, unrolled, settings.start);
  const bowed = bowNotes(unrolled.notes, start.direction);
  const reach = reachOf(unrolled.notes, settings.schools.pulse);
  const arm = armPlan(unrolled.notes, bowed, planes, instrument, settings.schools.arm);
  const marks = unrolled.notes.map(({ note }) => note.marks);
  const graces = unrolled.notes.map(({ note }) => note.graceNotes?.length ?? 0);
  return {
    start,
    bowed,
    ledger: bowingLedger(unrolled, bowed),
    arm,
    moves,
    marks,
    graces,
    travel: rawTravel(bowed, times.durations, bowSpeed(tune.danceType), instrument, reach),
    reach,
    check: danceCheck(checkInput(bowed, { arm, moves, marks, graces }, times, settings)),
  };
}

/** What no link changes. */
type HandAndArm = Pick<Figures, 'arm' | 'moves' | 'marks' | 'graces'>;

function checkInput(
  bowed: readonly BowedNote[],
  { arm: { crossings }, moves, marks, graces }: HandAndArm,
  times: Timing,
  { bpm, limits, instrument, schools }: ReportSettings,
): DanceCheckInput {
  return {
    bowed,
    crossings,
    moves,
    marks,
    graces,
    gaps: crossingGaps(crossings, times.atAnyTempo.played.onsets),
    times: times.atAnyTempo,
    timing: times,
    bpm,
    limits,
    schools,
    hairCm: instrument.hairCm,
  };
}

/** What a mend is judged by. */
export interface Trial {
  readonly bowed: readonly BowedNote[];
  readonly round: RoundVerdict;
  readonly ceilingBpm: () => BeatsPerMinute | null;
  /** The least ceiling among the events of some notes; infinite where they have none. */
  readonly ceilingAt: (indices: readonly number[]) => BeatsPerMinute;
  /** Strokes with the hair shared out. */
  readonly shared: () => readonly SharedStroke[];
}

export interface TrialOptions {
  readonly times: Timing;
  readonly settings: ReportSettings;
  /** Index of the first note that an edit is about. */
  readonly from?: number;
}

/**
 * The figures a mend is judged by, for the same notes with other links. Crossings and the arm's path are those of the
 * bowing before: planes do not hang on links, and the check asks the bowing which crossings lie in a slur.
 * Equal to what `figuresOf` gives; time O(n), a small part of it.
 */
export function tryLinks(
  tune: Tune,
  edited: Unrolled,
  unchanged: HandAndArm & CheckedBowing & Pick<Figures, 'start'>,
  { times, settings, from = 0 }: TrialOptions,
): Trial {
  const { direction } = startOf(tune, edited, settings.start);
  // Up to the first edited note nothing is bowed anew.
  const isAsBefore = direction === unchanged.start.direction;
  const bowed = bowNotes(edited.notes, direction, isAsBefore ? unchanged.bowed.slice(0, from) : []);
  const input = checkInput(bowed, unchanged, times, settings);
  return {
    bowed,
    round: roundVerdict(edited, bowed),
    ceilingBpm: () => ceilingOfOther(input, unchanged),
    ceilingAt: (indices) => ceilingAt(input, indices),
    shared: () => sharedStrokes(tune, bowed, times, settings, reachOf(edited.notes, settings.schools.pulse)),
  };
}

/** A stroke as it lies on the shared hair. */
export interface SharedStroke extends AllocatedStroke {
  /** Index of its first note. */
  readonly first: number;
  readonly notes: number;
  readonly seconds: Seconds;
  /** Length it would have on endless hair. */
  readonly nominalCm: Centimetres;
  /** The bow was set anew for it. */
  readonly isFree: boolean;
}

/** The least share of its length to which a stroke can be drawn and still be itself. A guess. */
export const MIN_LENGTH = 0.6;

/** What a stroke takes at least: six tenths of its length, and what the slowest bow takes in its time. */
export function minHair(
  { nominalCm, seconds }: Pick<SharedStroke, 'nominalCm' | 'seconds'>,
  { limits }: Pick<ReportSettings, 'limits'>,
): Centimetres {
  return Math.max(MIN_LENGTH * nominalCm, limits.slowestBowCmPerSecond.value * seconds);
}

/** Strokes with the hair shared out among them. Time as for `allocateTravel`. */
export function sharedStrokes(
  tune: Tune,
  bowed: readonly BowedNote[],
  { durations }: Timing,
  { instrument }: Pick<ReportSettings, 'instrument'>,
  reach: Reach | null,
): SharedStroke[] {
  const wishes = strokeWishes(bowed, durations, bowSpeed(tune.danceType), reach);
  const allocated = allocateTravel(wishes, instrument);
  const strokes: SharedStroke[] = [];
  for (let i = 0, first = 0; i < allocated.length; i++) {
    const from = first;
    let seconds = durations[first++]!;
    while (first < bowed.length && bowed[first]!.inStroke > 1) seconds += durations[first++]!;
    const { fromCm, toCm } = allocated[i]!;
    const { nominalCm, isFree } = wishes[i]!;
    strokes.push({ fromCm, toCm, first: from, notes: first - from, seconds, nominalCm, isFree });
  }
  return strokes;
}
