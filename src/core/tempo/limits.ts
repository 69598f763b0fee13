import type { Milliseconds, Seconds } from '#core/base';
import type { Schools } from '#core/schools';

/** A player's limit: a guess until a measuring drill replaces it. */
export interface Limit {
  readonly value: number;
  readonly source: 'guess' | 'measured';
  /** ISO date of the measurement. */
  readonly date?: string;
}

/**
 * What a player needs time for, in milliseconds where the name says so. The dance check weighs strokes and crossings;
 * the other figures are kept for the player and travel with the report.
 */
export const GUESSED_LIMITS = {
  strokeMs: 85,
  tripletStrokeMs: 60,
  crossingMs: 70,
  crossingMsPerDegree: 2,
  slurCrossingFactor: 1.25,
  hopMs: 110,
  shiftMs: 120,
  shiftMsPerMm: 1,
  retakeMs: 120,
  cutMs: 60,
  flickMs: 50,
  shortRollMs: 260,
  longRollMs: 320,
  pulseMs: 180,
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

/** 70 ms + 2 ms a degree at a bow change; 1.25 times that inside a slur (guesses). */
export function crossingNeeds(limits: Limits, degrees: number, inSlur: boolean): Milliseconds {
  const needed = limits.crossingMs.value + limits.crossingMsPerDegree.value * degrees;
  return inSlur ? limits.slurCrossingFactor.value * needed : needed;
}

/** A crossing as the time for it is reckoned. */
export interface TimedCrossing {
  readonly degrees: number;
  readonly skips: number;
  readonly inSlur: boolean;
  /** The bow changes direction here: a hook's stop or a retake is no turn. */
  readonly turns: boolean;
}

/**
 * Time that a crossing has and needs. It has the shorter of the two notes, plus a rest between where the bow stops or
 * turns there. Where the bow is taught to stop for a turn, that comes out of the first note: half of it, plus the rest.
 * Where strings are skipped off the string, the bow is lifted over them, which needs no less than a retake.
 */
export function crossingTime(
  { degrees, skips, inSlur, turns }: TimedCrossing,
  before: Seconds,
  note: Seconds,
  rest: Seconds,
  limits: Limits,
  { turn, skips: skipping }: Pick<Schools, 'turn' | 'skips'>,
): { readonly availableMs: Milliseconds; readonly neededMs: Milliseconds } {
  const shorter = Math.min(before, note);
  const stops = turns && turn === 'stop';
  const available = inSlur ? shorter : (stops ? before / 2 : shorter) + rest;
  const needed = crossingNeeds(limits, degrees, inSlur);
  const isLifted = !inSlur && skips > 0 && skipping === 'off-string';
  return { availableMs: 1000 * available, neededMs: isLifted ? Math.max(needed, limits.retakeMs.value) : needed };
}
