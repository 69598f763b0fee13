import type { BeatsPerMinute, Milliseconds, Seconds } from '#core/base';
import type { BowedNote } from '#core/bowing';
import type { Crossing } from '#core/crossing';
import type { HandMove } from '#core/fingering';
import type { Schools } from '#core/schools';
import type { NoteMark } from '#core/tune';
import { wholeNoteSeconds } from './beat';
import { type CrossingGaps, recentCrossings, wholeSecondsOf } from './density';
import type { EventKind } from './eventKinds';
import { crossingHas, crossingNeeds, densityFactor, type LimitKey, type Limits, MAX_RECENT } from './limits';
import { type NoteTimes, timeNotes, type Timing } from './noteTimes';

/** Something the player must get done in a given time. */
export interface TimedEvent {
  readonly kind: EventKind;
  readonly availableMs: Milliseconds;
  readonly neededMs: Milliseconds;
  /** The tempo at which its headroom is 1. */
  readonly ceilingBpm: BeatsPerMinute;
}

/** A timed event at a played note. */
export interface PlacedEvent extends TimedEvent {
  readonly index: number;
}

export interface DanceCheck {
  /** `events[i]` belong to note i. */
  readonly events: readonly (readonly TimedEvent[])[];
  /** The smallest available/needed of a note's events; null without events. */
  readonly headroom: readonly (number | null)[];
  /** The tightest event of all; null when nothing limits the tempo below 400. */
  readonly ceiling: PlacedEvent | null;
  /** The highest tempo at which some stroke, drawn as slowly as is comfortable, is longer than the hair. */
  readonly floor: { readonly bpm: BeatsPerMinute; readonly index: number } | null;
  readonly tightest: readonly PlacedEvent[];
}

/** Tempos above this are nobody's concern: nothing that binds only there is called a ceiling. */
export const HIGHEST_TEMPO: BeatsPerMinute = 400;
const TIGHTEST_COUNT = 10;

/** What links and tempo leave alone. */
export interface DanceCheckInput {
  readonly bowed: readonly BowedNote[];
  readonly crossings: readonly (Crossing | null)[];
  /** Hops and shifts that lead to each note, and its marks. */
  readonly moves: readonly (HandMove | null)[];
  readonly marks: readonly (readonly NoteMark[] | undefined)[];
  /** How many grace notes stand before each note. */
  readonly graces: ArrayLike<number>;
  readonly gaps: CrossingGaps;
  readonly times: NoteTimes;
  /** The notes at `bpm`. */
  readonly timing: Pick<Timing, 'durations' | 'rests'>;
  readonly bpm: BeatsPerMinute;
  readonly limits: Limits;
  readonly schools: Pick<Schools, 'turn' | 'skips'>;
  readonly hairCm: number;
}

/** Seconds of notes at one tempo. */
interface Moment {
  readonly durations: ArrayLike<Seconds>;
  readonly rests: ArrayLike<Seconds>;
  readonly wholeSeconds: Seconds;
}

type Visit = (index: number, kind: TimedEvent['kind'], availableMs: Milliseconds, neededMs: Milliseconds) => void;

/**
 * Visits the timed events of a note: the stroke first, then the crossing, the hand, the retake and ornaments.
 *
 * Stroke: its duration against `strokeMs`. Crossing: `crossingHas` against `crossingNeeds`, more after other crossings close
 * before it. Hop: the shorter of the two notes and a rest between against `hopMs`; a barre laid once, the same against
 * `barreMs`. Shift: the note before and a rest against `shiftMs` and its millimetres. Retake: half the note before and a
 * rest. Ornaments, graces and slides: the note that carries them; a bowed triplet a third of two running notes for each
 * stroke.
 * Whether a crossing lies in a slur is asked of the bowing, so that crossings counted before an edit of links still serve
 * after it.
 */
function visitNote(i: number, input: DanceCheckInput, moment: Moment, visit: Visit): void {
  const { bowed, crossings, limits, schools, moves, marks } = input;
  const { durations, rests } = moment;
  const { inStroke, link } = bowed[i]!;
  if (inStroke === 1) {
    let seconds = durations[i]!;
    for (let j = i + 1; j < bowed.length && bowed[j]!.inStroke > 1; j++) seconds += durations[j]!;
    visit(i, 'stroke', 1000 * seconds, limits.strokeMs.value);
  }
  const crossing = crossings[i];
  if (crossing && i > 0) {
    const inSlur = link === 'slur';
    const { turnDegrees, skips } = crossing;
    const has = crossingHas(
      { inSlur, turns: link === 'change' },
      durations[i - 1]!,
      durations[i]!,
      rests[i]!,
      schools.turn,
    );
    const recent = recentCrossings(input.gaps, i, moment.wholeSeconds);
    const needed = crossingNeeds({ turnDegrees, skips, inSlur }, limits, schools.skips);
    visit(i, 'crossing', has, needed * densityFactor(recent));
  }
  const move = moves[i];
  if (move && i > 0) visitMove(move, i, limits, moment, visit);
  if (link === 'retake' && i > 0) visit(i, 'retake', 1000 * (durations[i - 1]! / 2 + rests[i]!), limits.retakeMs.value);
  const graces = input.graces[i]!;
  if (graces > 0) visit(i, 'grace', 1000 * durations[i]!, graces * limits.graceMs.value);
  const ornaments = marks[i];
  if (ornaments) visitOrnaments(ornaments, i, input, moment, visit);
}

function visitMove({ hop, shift }: HandMove, i: number, limits: Limits, { durations, rests }: Moment, visit: Visit) {
  const before = durations[i - 1]!;
  if (hop) {
    const has = 1000 * (Math.min(before, durations[i]!) + rests[i]!);
    visit(i, hop.couldBarre ? 'barre' : 'hop', has, limits[hop.couldBarre ? 'barreMs' : 'hopMs'].value);
  }
  if (shift)
    visit(i, 'shift', 1000 * (before + rests[i]!), limits.shiftMs.value + limits.shiftMsPerMm.value * shift.mm);
}

/** Ornaments that need time, with the limit they are held against; a roll is long or short by its note, a turn has as many sounds as a short one. */
const TIMED_ORNAMENTS: Partial<Record<NoteMark, { readonly kind: EventKind; readonly limit: LimitKey }>> = {
  cut: { kind: 'cut', limit: 'cutMs' },
  flick: { kind: 'flick', limit: 'flickMs' },
  pulse: { kind: 'pulse', limit: 'pulseMs' },
  slide: { kind: 'slide', limit: 'slideMs' },
  turn: { kind: 'turn', limit: 'shortRollMs' },
};

/** Grace notes that a mark stands for, at least. */
const MARKED_GRACES: Partial<Record<NoteMark, number>> = { mordent: 2, trill: 2 };

/** Two running eighths, the time of a bowed triplet, and the dotted quarter from which a roll is long, in whole notes. */
export const TRIPLET_TIME = 1 / 4;
export const LONG_ROLL_TIME = 3 / 8;

function visitOrnaments(
  marks: readonly NoteMark[],
  i: number,
  { limits, times }: DanceCheckInput,
  { durations, wholeSeconds }: Moment,
  visit: Visit,
): void {
  const seconds = durations[i]!;
  for (const mark of marks) {
    const timed = TIMED_ORNAMENTS[mark];
    if (timed) visit(i, timed.kind, 1000 * seconds, limits[timed.limit].value);
    else if (MARKED_GRACES[mark]) visit(i, 'grace', 1000 * seconds, MARKED_GRACES[mark] * limits.graceMs.value);
    else if (mark === 'roll') {
      const isLong = times.written.durations[i]! >= LONG_ROLL_TIME * (1 - 1e-9);
      visit(
        i,
        isLong ? 'long-roll' : 'short-roll',
        1000 * seconds,
        limits[isLong ? 'longRollMs' : 'shortRollMs'].value,
      );
    } else if (mark === 'bowed-triplet')
      visit(
        i,
        'bowed-triplet',
        (1000 * Math.min(seconds, TRIPLET_TIME * wholeSeconds)) / 3,
        limits.tripletStrokeMs.value,
      );
  }
}

/** The moment that a check is asked about. */
function momentOf({ timing, bpm, times }: DanceCheckInput): Moment {
  return { durations: timing.durations, rests: timing.rests, wholeSeconds: wholeNoteSeconds(bpm, times.beat) };
}

/**
 * Events with their available and needed times at a tempo, and the tempos that follow.
 *
 * An event's own ceiling is the tempo at which its available time is what it needs; the tune's is the least of them.
 * With even timing every available time is proportional to 1/tempo, so it is tempo · available/needed. With a lilt
 * available times still fall strictly with tempo, so there is one such tempo, which `ceilingSolver` finds. A crossing's need
 * rises by steps, where with the tempo one more crossing comes to lie close before it: its ceiling is on the step where it
 * has what it needs, or at the foot of the next. A tune's
 * floor is the highest tempo at which a stroke, drawn at the slowest comfortable speed, is as long as the hair; even:
 * tempo · d · v / hair for its longest stroke d. Ties go to the earlier event.
 * Time O(n), under a lilt about a dozen times that.
 */
export function danceCheck(input: DanceCheckInput): DanceCheck {
  const { bowed } = input;
  const events: TimedEvent[][] = bowed.map(() => []);
  const headroom: (number | null)[] = bowed.map(() => null);
  const tightest: PlacedEvent[] = [];
  const solve = ceilingSolver(input);
  const slowestMs = longestStrokeMs(input);
  let floor: DanceCheck['floor'] = null;
  const visit: Visit = (index, kind, availableMs, neededMs) => {
    const own = events[index]!;
    const ceilingBpm = solve(index, own.length, kind, availableMs, neededMs);
    const event = { kind, availableMs, neededMs, ceilingBpm };
    own.push(event);
    headroom[index] = Math.min(headroom[index] ?? Infinity, availableMs / neededMs);
    keepTightest(tightest, event, index);
    if (kind === 'stroke') {
      const bpm = solve(index, own.length - 1, kind, availableMs, slowestMs);
      if (bpm > (floor?.bpm ?? 0)) floor = { bpm, index };
    }
  };
  const moment = momentOf(input);
  for (let i = 0; i < bowed.length; i++) visitNote(i, input, moment, visit);
  return {
    events,
    headroom,
    ceiling: tightest[0] && tightest[0].ceilingBpm <= HIGHEST_TEMPO ? tightest[0] : null,
    floor,
    tightest,
  };
}

/** Time in which the hair is used up at the slowest comfortable speed. */
function longestStrokeMs({ limits, hairCm }: DanceCheckInput): Milliseconds {
  return (1000 * hairCm) / limits.slowestBowCmPerSecond.value;
}

/** A check that was made, and of which bowing. */
export interface CheckedBowing {
  readonly bowed: readonly BowedNote[];
  readonly check: DanceCheck;
}

/**
 * The ceiling of another bowing of the same tune, null when nothing limits the tempo below 400: only the events of notes that
 * are reached otherwise, or whose stroke grew or shrank, are counted anew. Time O(n), most of it looking for them.
 */
export function ceilingOfOther(input: DanceCheckInput, before: CheckedBowing): BeatsPerMinute | null {
  const { bowed } = input;
  const { events } = before.check;
  const differs = (i: number) => {
    const [now, was] = [bowed[i]!, before.bowed[i]!];
    return now.link !== was.link || now.inStroke !== was.inStroke;
  };
  const changed: number[] = [];
  let least = Infinity;
  for (let i = 0; i < bowed.length; i++) {
    let isChanged = differs(i);
    // A stroke's own time hangs on all of it, and on where the next one begins.
    if (!isChanged && bowed[i]!.inStroke === 1)
      for (let j = i + 1; j < bowed.length && !isChanged; j++) {
        isChanged = differs(j);
        if (bowed[j]!.inStroke === 1) break;
      }
    if (isChanged) changed.push(i);
    else for (const { ceilingBpm } of events[i]!) if (ceilingBpm < least) least = ceilingBpm;
  }
  least = Math.min(least, ceilingAt(input, changed));
  return least <= HIGHEST_TEMPO ? least : null;
}

/** The least ceiling among the events of some notes; infinite where they have none. */
export function ceilingAt(input: DanceCheckInput, indices: readonly number[]): BeatsPerMinute {
  const solve = ceilingSolver(input);
  let least = Infinity;
  let ordinal = 0;
  const visit: Visit = (index, kind, availableMs, neededMs) => {
    const own = solve(index, ordinal++, kind, availableMs, neededMs);
    if (own < least) least = own;
  };
  const moment = momentOf(input);
  const visitOne = (index: number) => {
    ordinal = 0;
    if (index < input.bowed.length) visitNote(index, input, moment, visit);
  };
  indices.forEach(visitOne);
  return least;
}

/** Finds the tempo at which event `ordinal` of note `index`, which has `availableMs` now, has just `neededMs`. */
type CeilingSolver = (
  index: number,
  ordinal: number,
  kind: EventKind,
  availableMs: Milliseconds,
  neededMs: Milliseconds,
) => BeatsPerMinute;

const CEILING_TOLERANCE = 1e-12;
const MAX_STEPS = 80;
/** How far a bracket is widened at a time: a quarter of an octave of tempo. */
const BRACKET = Math.LN2 / 4;

/**
 * Even timing has its closed form, tempo · available/needed. Under a lilt the root of log(available/needed), which falls
 * strictly with the logarithm of tempo, is bracketed from that guess and found by false position with the kept end
 * halved; the event is counted anew at each tempo tried, from its own notes only. About ten steps to twelve digits.
 */
function ceilingSolver(input: DanceCheckInput): CeilingSolver {
  const { bpm, times } = input;
  const plain: PlainSolver = times.lean
    ? liltedSolver(input)
    : (_i, _n, availableMs, neededMs) => (bpm * availableMs) / neededMs;
  const wholeNow = wholeNoteSeconds(bpm, times.beat);
  return (index, ordinal, kind, availableMs, neededMs) => {
    if (kind !== 'crossing') return plain(index, ordinal, availableMs, neededMs);
    const { gaps } = input;
    const alone = neededMs / densityFactor(recentCrossings(gaps, index, wholeNow));
    let from = 0;
    for (let recent = 0; ; recent++) {
      // Beyond this tempo one more crossing lies close before.
      const to = recent < MAX_RECENT ? (bpm * wholeNow) / wholeSecondsOf(gaps, index, recent + 1) : Infinity;
      if (to <= from) continue;
      const own = plain(index, ordinal, availableMs, alone * densityFactor(recent));
      if (own <= to) return Math.max(own, from);
      from = to;
    }
  };
}

type PlainSolver = (
  index: number,
  ordinal: number,
  availableMs: Milliseconds,
  neededMs: Milliseconds,
) => BeatsPerMinute;

function liltedSolver(input: DanceCheckInput): PlainSolver {
  const { bpm, times, bowed } = input;
  const durations = new Float64Array(bowed.length);
  const rests = new Float64Array(bowed.length);
  const availableAt = (index: number, ordinal: number, tempo: BeatsPerMinute): Milliseconds => {
    let end = index + 1;
    while (end < bowed.length && bowed[end]!.inStroke > 1) end += 1;
    timeNotes(times, tempo, Math.max(0, index - 1), end, { durations, rests });
    let [seen, found] = [0, 0];
    const moment = { durations, rests, wholeSeconds: wholeNoteSeconds(tempo, times.beat) };
    visitNote(index, input, moment, (_index, _kind, availableMs) => {
      if (seen++ === ordinal) found = availableMs;
    });
    return found;
  };
  return (index, ordinal, availableMs, neededMs) => {
    if (neededMs <= 0) return Infinity;
    const excess = (logTempo: number) => Math.log(availableAt(index, ordinal, Math.exp(logTempo)) / neededMs);
    const guess = Math.log((bpm * availableMs) / neededMs);
    let [low, high] = [guess, guess];
    let atLow = excess(guess);
    let atHigh = atLow;
    while (atLow < 0) atLow = excess((low -= BRACKET));
    while (atHigh > 0) atHigh = excess((high += BRACKET));
    let kept: 'low' | 'high' | null = null;
    for (let step = 0; step < MAX_STEPS && high - low > CEILING_TOLERANCE; step++) {
      const middle = (low * atHigh - high * atLow) / (atHigh - atLow);
      const at = excess(middle);
      if (Math.abs(at) < CEILING_TOLERANCE) return Math.exp(middle);
      if (at > 0) {
        [low, atLow] = [middle, at];
        if (kept === 'high') atHigh /= 2;
        kept = 'high';
      } else {
        [high, atHigh] = [middle, at];
        if (kept === 'low') atLow /= 2;
        kept = 'low';
      }
    }
    return Math.exp((low + high) / 2);
  };
}

/** Equal ceilings differ in their last digits by the way they were reached: told apart only beyond a millionth. */
const rankOf = ({ ceilingBpm }: TimedEvent) => Math.round(ceilingBpm * 1e6);

/** Puts an event into its place among the tightest, after its equals; what falls off the end is dropped. */
function keepTightest(tightest: PlacedEvent[], event: TimedEvent, index: number): void {
  const rank = rankOf(event);
  const last = tightest[tightest.length - 1];
  if (tightest.length === TIGHTEST_COUNT && last && rankOf(last) <= rank) return;
  let at = tightest.length;
  while (at > 0 && rankOf(tightest[at - 1]!) > rank) at -= 1;
  tightest.splice(at, 0, { ...event, index });
  tightest.length = Math.min(tightest.length, TIGHTEST_COUNT);
}
