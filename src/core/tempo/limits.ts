import type { Degrees, Milliseconds, Seconds } from '#core/base';
import type { Schools } from '#core/schools';

/** Where a limit is from, the less sure first: thought of, learnt from the log, measured by a drill. */
export const LIMIT_SOURCES = ['guess', 'learnt', 'measured'] as const;

/** A player's limit: a guess until the player takes what the log or a drill says. */
export interface Limit {
  readonly value: number;
  readonly source: (typeof LIMIT_SOURCES)[number];
  /** ISO date of the measurement, or of the day it was learnt. */
  readonly date?: string;
  /** Attempts from which it was learnt. */
  readonly attempts?: number;
}

/**
 * What a player needs time for, in milliseconds where the name says so: guesses. A crossing needs its own time and more for
 * each degree that is left to turn and each string that is rolled over; within a slur the hand goes with the flow, but the
 * bow must lighten over a string between.
 */
export const GUESSED_LIMITS = {
  strokeMs: 85,
  tripletStrokeMs: 60,
  crossingMs: 55,
  crossingMsPerDegree: 1.5,
  skipMs: 20,
  slurCrossingMs: 45,
  slurCrossingMsPerDegree: 1.2,
  slurSkipMs: 80,
  hopMs: 110,
  /** One finger laid across two neighbour strings at one place. */
  barreMs: 60,
  shiftMs: 120,
  shiftMsPerMm: 1,
  retakeMs: 120,
  cutMs: 60,
  flickMs: 50,
  shortRollMs: 260,
  longRollMs: 320,
  pulseMs: 180,
  graceMs: 45,
  slideMs: 80,
  /** Slowest comfortable bow: the player's limit, not physics. */
  slowestBowCmPerSecond: 5,
} as const;

export type LimitKey = keyof typeof GUESSED_LIMITS;
export type Limits = Readonly<Record<LimitKey, Limit>>;

export const LIMIT_KEYS = Object.keys(GUESSED_LIMITS) as LimitKey[];

/** All limits, guesses where nothing else is known. */
export function limitsWith(known: Partial<Record<LimitKey, Limit>> = {}): Limits {
  return Object.fromEntries(
    LIMIT_KEYS.map((key) => [key, known[key] ?? { value: GUESSED_LIMITS[key], source: 'guess' }]),
  ) as Record<LimitKey, Limit>;
}

/** Nobody grazes the edge of a string's room exactly: at least so many degrees are turned. A guess. */
export const MIN_TURN = 8;
/** Crossings close on each other cost more: so much for each earlier one within so long, up to a most. Guesses. */
export const DENSITY = { seconds: 0.6, each: 0.08, max: 0.4 } as const;
export const MAX_RECENT = DENSITY.max / DENSITY.each;

/** A crossing as the time for it is reckoned. */
export interface TimedCrossing {
  /** Left to turn at the crossing itself. */
  readonly turnDegrees: Degrees;
  /** Strings between. */
  readonly skips: number;
  readonly inSlur: boolean;
  /** The bow changes direction here: a hook's stop or a retake is no turn. */
  readonly turns: boolean;
}

/**
 * What a crossing needs by itself: `crossingMs + crossingMsPerDegree·max(8°, turn) + skipMs·k` over k strings between, the
 * same with its own limits in a slur. Where strings are skipped off the string, the bow is lifted over them, which needs no
 * less than a retake.
 */
export function crossingNeeds(
  { turnDegrees, skips, inSlur }: Omit<TimedCrossing, 'turns'>,
  limits: Limits,
  skipping: Schools['skips'],
): Milliseconds {
  const degrees = Math.max(MIN_TURN, turnDegrees);
  if (inSlur)
    return (
      limits.slurCrossingMs.value + limits.slurCrossingMsPerDegree.value * degrees + limits.slurSkipMs.value * skips
    );
  const needed = limits.crossingMs.value + limits.crossingMsPerDegree.value * degrees + limits.skipMs.value * skips;
  return skips > 0 && skipping === 'off-string' ? Math.max(needed, limits.retakeMs.value) : needed;
}

/** How many times as much a crossing needs that follows so many others within 0.6 s. */
export function densityFactor(recent: number): number {
  return 1 + Math.min(DENSITY.max, DENSITY.each * recent);
}

/**
 * Time that a crossing has: half of both notes together, plus a rest between. Where the bow is taught to stop for a turn,
 * that comes out of the first note: half of it, plus the rest.
 */
export function crossingHas(
  { inSlur, turns }: Pick<TimedCrossing, 'inSlur' | 'turns'>,
  before: Seconds,
  note: Seconds,
  rest: Seconds,
  turn: Schools['turn'],
): Milliseconds {
  const stops = turns && !inSlur && turn === 'stop';
  return 1000 * ((stops ? before / 2 : (before + note) / 2) + rest);
}
