import type { Milliseconds } from '#core/base';
import { type EventKind, type LimitKey, type Limits } from '#core/tempo';

/** The limit that an event of a kind is held against first; what degrees, strings or millimetres add grows with it. */
const LIMIT_OF: Readonly<Record<EventKind, LimitKey>> = {
  stroke: 'strokeMs',
  crossing: 'crossingMs',
  hop: 'hopMs',
  barre: 'barreMs',
  shift: 'shiftMs',
  retake: 'retakeMs',
  'bowed-triplet': 'tripletStrokeMs',
  cut: 'cutMs',
  flick: 'flickMs',
  'short-roll': 'shortRollMs',
  'long-roll': 'longRollMs',
  pulse: 'pulseMs',
  grace: 'graceMs',
  slide: 'slideMs',
  turn: 'shortRollMs',
};

/** A limit as a player turns out to have it: who is better by exp(a) needs 1/exp(a) of the time. */
export function learntLimit(kind: EventKind, better: number, limits: Limits): Milliseconds {
  return limits[LIMIT_OF[kind]].value / Math.exp(better);
}
