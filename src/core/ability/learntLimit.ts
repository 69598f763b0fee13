import type { Milliseconds } from '#core/base';
import { type EventKind, type LimitKey, type Limits } from '#core/tempo';
import { PRIOR_SD } from './learnAbility';

/** The limits that an event of a kind is held against: the first by itself, the others for what degrees, strings or millimetres add. */
export const LIMITS_OF: Readonly<Record<EventKind, readonly [LimitKey, ...LimitKey[]]>> = {
  stroke: ['strokeMs'],
  crossing: ['crossingMs', 'crossingMsPerDegree', 'skipMs', 'slurCrossingMs', 'slurCrossingMsPerDegree', 'slurSkipMs'],
  hop: ['hopMs'],
  barre: ['barreMs'],
  shift: ['shiftMs', 'shiftMsPerMm'],
  retake: ['retakeMs'],
  'bowed-triplet': ['tripletStrokeMs'],
  cut: ['cutMs'],
  flick: ['flickMs'],
  'short-roll': ['shortRollMs'],
  'long-roll': ['longRollMs'],
  pulse: ['pulseMs'],
  grace: ['graceMs'],
  slide: ['slideMs'],
  turn: ['shortRollMs'],
};

/** A limit as a player turns out to have it: who is better by exp(a) needs 1/exp(a) of the time. */
export function learntLimit(kind: EventKind, better: number, limits: Limits): Milliseconds {
  return limits[LIMITS_OF[kind][0]].value / Math.exp(better);
}

/** All limits of a kind as a player turns out to have them: together they make what an event needs, so all shrink alike. */
export function learntLimits(kind: EventKind, better: number, limits: Limits): Partial<Record<LimitKey, number>> {
  return Object.fromEntries(LIMITS_OF[kind].map((key) => [key, limits[key].value / Math.exp(better)]));
}

/**
 * How sure each kind's limit is before the log is looked at. A learnt limit rests on the attempts that are looked at again, so
 * it is no surer than a guess.
 */
export const priorOf =
  (limits: Limits) =>
  (kind: EventKind): number =>
    limits[LIMITS_OF[kind][0]].source === 'measured' ? PRIOR_SD.measured : PRIOR_SD.guess;
