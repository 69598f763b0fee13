import type { BeatsPerMinute, Milliseconds, Seconds } from '#core/base';
import type { BowedNote } from '#core/bowing';
import type { Crossing } from '#core/crossing';
import type { HandMove } from '#core/fingering';
import type { Schools } from '#core/schools';
import type { NoteMark } from '#core/tune';
import { type LimitKey, type Limits, crossingTime } from './limits';

/** What takes time of its own: of the bow, of the hand, and of ornaments. */
export const EVENT_KINDS = [
  'stroke',
  'crossing',
  'hop',
  'shift',
  'retake',
  'bowed-triplet',
  'cut',
  'flick',
  'short-roll',
  'long-roll',
  'pulse',
] as const;
export type EventKind = (typeof EVENT_KINDS)[number];

/** Something the player must get done in a given time. */
export interface TimedEvent {
  readonly kind: EventKind;
  readonly availableMs: Milliseconds;
  readonly neededMs: Milliseconds;
}

/** A timed event at a played note, with the tempo at which its headroom is 1. */
export interface PlacedEvent extends TimedEvent {
  readonly index: number;
  readonly ceilingBpm: BeatsPerMinute;
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
const HIGHEST_TEMPO: BeatsPerMinute = 400;
const TIGHTEST_COUNT = 10;

export interface DanceCheckInput {
  readonly bowed: readonly BowedNote[];
  readonly crossings: readonly (Crossing | null)[];
  /** Hops and shifts that lead to each note, and its marks. */
  readonly moves: readonly (HandMove | null)[];
  readonly marks: readonly (readonly NoteMark[] | undefined)[];
  /** Seconds of two running notes, the time of a bowed triplet, and of a dotted quarter, from which a roll is long. */
  readonly tripletSeconds: Seconds;
  readonly longRollSeconds: Seconds;
  /** Sounding seconds of each note, and of the silence before it, at `bpm`. */
  readonly durations: readonly Seconds[];
  readonly rests: readonly Seconds[];
  readonly bpm: BeatsPerMinute;
  readonly limits: Limits;
  readonly schools: Pick<Schools, 'turn' | 'skips'>;
  readonly hairCm: number;
}

type Visit = (index: number, kind: TimedEvent['kind'], availableMs: Milliseconds, neededMs: Milliseconds) => void;

/**
 * Visits the timed events in playing order; at one note the stroke goes first, then the crossing, the hand, the retake and ornaments.
 *
 * Stroke: its duration against `strokeMs`. Crossing: as `crossingTime` has it. Hop: the shorter of the two notes and a rest
 * between against `hopMs`. Shift: the note before and a rest against `shiftMs` and its millimetres. Retake: half the note
 * before and a rest. Ornaments: the note that carries them; a bowed triplet a third of two running notes for each stroke.
 * Whether a crossing lies in a slur is asked of the bowing, so that crossings counted before an edit of links still serve
 * after it.
 */
function visitEvents(input: DanceCheckInput, visit: Visit): void {
  const { bowed, crossings, durations, rests, limits, schools, moves, marks } = input;
  for (let i = 0; i < bowed.length; i++) {
    const { inStroke, link } = bowed[i]!;
    if (inStroke === 1) {
      let seconds = durations[i]!;
      for (let j = i + 1; j < bowed.length && bowed[j]!.inStroke > 1; j++) seconds += durations[j]!;
      visit(i, 'stroke', 1000 * seconds, limits.strokeMs.value);
    }
    const crossing = crossings[i];
    if (crossing && i > 0) {
      const { availableMs, neededMs } = crossingTime(
        { degrees: crossing.degrees, skips: crossing.skips, inSlur: link === 'slur', turns: link === 'change' },
        durations[i - 1]!,
        durations[i]!,
        rests[i]!,
        limits,
        schools,
      );
      visit(i, 'crossing', availableMs, neededMs);
    }
    const move = moves[i];
    if (move && i > 0) visitMove(move, i, input, visit);
    if (link === 'retake' && i > 0)
      visit(i, 'retake', 1000 * (durations[i - 1]! / 2 + rests[i]!), limits.retakeMs.value);
    const ornaments = marks[i];
    if (ornaments) visitOrnaments(ornaments, i, input, visit);
  }
}

function visitMove({ hop, shift }: HandMove, i: number, { durations, rests, limits }: DanceCheckInput, visit: Visit) {
  const before = durations[i - 1]!;
  if (hop) visit(i, 'hop', 1000 * (Math.min(before, durations[i]!) + rests[i]!), limits.hopMs.value);
  if (shift)
    visit(i, 'shift', 1000 * (before + rests[i]!), limits.shiftMs.value + limits.shiftMsPerMm.value * shift.mm);
}

/** Ornaments that need time, with the limit they are held against; a roll is long or short by its note. */
const TIMED_ORNAMENTS: Partial<Record<NoteMark, { readonly kind: EventKind; readonly limit: LimitKey }>> = {
  cut: { kind: 'cut', limit: 'cutMs' },
  flick: { kind: 'flick', limit: 'flickMs' },
  pulse: { kind: 'pulse', limit: 'pulseMs' },
};

function visitOrnaments(marks: readonly NoteMark[], i: number, input: DanceCheckInput, visit: Visit) {
  const { durations, limits, tripletSeconds, longRollSeconds } = input;
  const seconds = durations[i]!;
  for (const mark of marks) {
    const timed = TIMED_ORNAMENTS[mark];
    if (timed) visit(i, timed.kind, 1000 * seconds, limits[timed.limit].value);
    else if (mark === 'roll') {
      const isLong = seconds >= longRollSeconds * (1 - 1e-9);
      visit(
        i,
        isLong ? 'long-roll' : 'short-roll',
        1000 * seconds,
        limits[isLong ? 'longRollMs' : 'shortRollMs'].value,
      );
    } else if (mark === 'bowed-triplet')
      visit(i, 'bowed-triplet', (1000 * Math.min(seconds, tripletSeconds)) / 3, limits.tripletStrokeMs.value);
  }
}

/**
 * Events with their available and needed times at a tempo, and the tempos that follow.
 *
 * With even timing every available time is proportional to 1/tempo, so an event's own ceiling is
 * tempo · available/needed and the tune's is the least of them. A tune's floor is tempo · d · v / hair for its longest
 * stroke d at the slowest comfortable speed v. Ties go to the earlier event.
 * Time O(n).
 */
export function danceCheck(input: DanceCheckInput): DanceCheck {
  const { bowed, bpm, limits, hairCm } = input;
  const events: TimedEvent[][] = bowed.map(() => []);
  const headroom: (number | null)[] = bowed.map(() => null);
  const tightest: PlacedEvent[] = [];
  let longest: { availableMs: Milliseconds; index: number } | null = null;
  visitEvents(input, (index, kind, availableMs, neededMs) => {
    events[index]!.push({ kind, availableMs, neededMs });
    headroom[index] = Math.min(headroom[index] ?? Infinity, availableMs / neededMs);
    keepTightest(tightest, { kind, availableMs, neededMs, index, ceilingBpm: (bpm * availableMs) / neededMs });
    if (kind === 'stroke' && availableMs > (longest?.availableMs ?? 0)) longest = { availableMs, index };
  });
  return {
    events,
    headroom,
    ceiling: tightest[0] && tightest[0].ceilingBpm <= HIGHEST_TEMPO ? tightest[0] : null,
    floor: longest && floorOf(longest, bpm, limits, hairCm),
    tightest,
  };
}

/** The ceiling alone, null when nothing limits the tempo below 400: for trying many bowings of one tune. Time O(n). */
export function danceCeiling(input: DanceCheckInput): BeatsPerMinute | null {
  let least = Infinity;
  visitEvents(input, (_index, _kind, availableMs, neededMs) => {
    least = Math.min(least, availableMs / neededMs);
  });
  return least * input.bpm <= HIGHEST_TEMPO ? least * input.bpm : null;
}

/** The smallest available/needed among the events of some notes; infinite where they have none. */
export function headroomAt(input: DanceCheckInput, indices: readonly number[]): number {
  let least = Infinity;
  visitEvents(input, (index, _kind, availableMs, neededMs) => {
    if (indices.includes(index)) least = Math.min(least, availableMs / neededMs);
  });
  return least;
}

function floorOf(
  { availableMs, index }: { readonly availableMs: Milliseconds; readonly index: number },
  bpm: BeatsPerMinute,
  limits: Limits,
  hairCm: number,
): DanceCheck['floor'] {
  return { bpm: (bpm * (availableMs / 1000) * limits.slowestBowCmPerSecond.value) / hairCm, index };
}

/** Equal ceilings differ in their last digits by the way they were reached: told apart only beyond a millionth. */
const rankOf = ({ ceilingBpm }: PlacedEvent) => Math.round(ceilingBpm * 1e6);

/** Puts an event into its place among the tightest, after its equals; what falls off the end is dropped. */
function keepTightest(tightest: PlacedEvent[], event: PlacedEvent): void {
  const rank = rankOf(event);
  const last = tightest[tightest.length - 1];
  if (tightest.length === TIGHTEST_COUNT && last && rankOf(last) <= rank) return;
  let at = tightest.length;
  while (at > 0 && rankOf(tightest[at - 1]!) > rank) at -= 1;
  tightest.splice(at, 0, event);
  tightest.length = Math.min(tightest.length, TIGHTEST_COUNT);
}
