import type { Seconds } from '#core/base';
import type { BowStroke, PitchMove, SoundPlan } from './soundPlan';

/** Longest ramps of the bow's speed at both ends of a stroke, and their shares of a short one. */
const RAMP_UP = { max: 0.028, share: 0.2 } as const;
const RAMP_DOWN = { max: 0.022, share: 0.16 } as const;
/** The bow stands still and moves on within this time about a stop in a stroke. */
export const STOP_RAMP: Seconds = 0.008;
/** Time in which a string comes under the bow or leaves it. */
export const CONTACT_SECONDS: Seconds = 0.005;
/** No two changes of the bow are alike: ramps are so much longer or shorter, the same for the same stroke each time. */
const RAMP_SPREAD = 0.25;
/** A gap between two strokes no longer than this stays as long as it is when the second begins earlier. */
const SMALL_GAP: Seconds = 0.08;
/** Two times of a plan that are meant to be one. */
const ONE_TIME = 1e-6;

/** A stroke as the bow goes: how long it takes to get up to speed, and to come to rest. */
export interface RampedStroke extends BowStroke {
  readonly up: Seconds;
  readonly down: Seconds;
}

/** How long the bow takes to get up to speed in a stroke, and to come to rest. */
function rampsOf({ from, to }: Pick<BowStroke, 'from' | 'to'>): {
  readonly up: Seconds;
  readonly down: Seconds;
} {
  const length = to - from;
  const vary = 1 + RAMP_SPREAD * Math.sin(997 * from);
  return {
    up: vary * Math.min(RAMP_UP.max, RAMP_UP.share * length),
    down: Math.min(RAMP_DOWN.max, RAMP_DOWN.share * length),
  };
}

/** How slowly a string's motion follows the bow: 1.5 ms + 1.6/f + 3 ms/(0.5 + F). */
export function lagSeconds(hertz: number, force: number): Seconds {
  return 0.0015 + 1.6 / hertz + 0.003 / (0.5 + force);
}

/**
 * Time from when the bow starts until the string has half its level: where (t − τ(1 − e^(−t⁄τ)))⁄T, or past the ramp
 * 1 − (τ⁄T)(e^(T⁄τ) − 1)e^(−t⁄τ), is a half, for a ramp of T and a lag of τ. By halving; exact to a microsecond.
 */
export function riseSeconds(ramp: Seconds, lag: Seconds): Seconds {
  const levelAt = (t: Seconds) =>
    t < ramp
      ? (t - lag * (1 - Math.exp(-t / lag))) / ramp
      : 1 - (lag / ramp) * (Math.exp(ramp / lag) - 1) * Math.exp(-t / lag);
  let [low, high] = [0, ramp + 2 * lag];
  while (high - low > 1e-6) {
    const middle = (low + high) / 2;
    if (levelAt(middle) < 0.5) low = middle;
    else high = middle;
  }
  return low;
}

/**
 * The plan with everything begun so much earlier that it is heard when it is meant to be: a stroke, and a string taken into
 * one, has half its level at the time planned, with the click. What lies on a stroke's beginning moves with it; a stroke that
 * runs into the next ends when that begins, and a small gap between two stays as long as it is. Time O(n log n).
 */
export function startedEarly(plan: SoundPlan): SoundPlan & { readonly strokes: readonly RampedStroke[] } {
  const { strokes } = plan;
  const sounding = plan.pitches.map((list) => list.map(({ at, hertz }) => ({ from: at, hertz })));
  const hertzOn = (place: number, time: Seconds) =>
    sounding[place]![lastNotAfter(sounding[place]!, time + ONE_TIME)]?.hertz ?? plan.openHertz[place]!;
  const melody = plan.contacts
    .flatMap((list, place) => list.map(({ from, role }) => ({ from, place, role })))
    .filter(({ role }) => role === 'melody')
    .sort((a, b) => a.from - b.from);
  const hertzAt = (time: Seconds) => {
    const contact = melody[lastNotAfter(melody, time + ONE_TIME)];
    return contact ? hertzOn(contact.place, time) : plan.openHertz[1];
  };
  const leads = strokes.map((stroke) =>
    riseSeconds(rampsOf(stroke).up, lagSeconds(hertzAt(stroke.from), stroke.force)),
  );
  /** By how much what comes on a string at a time is before it: as the bow there, or as the string needs to speak. */
  const leadAt = (place: number, time: Seconds): Seconds => {
    const i = lastNotAfter(strokes, time + ONE_TIME);
    const stroke = strokes[i];
    if (!stroke) return 0;
    if (Math.abs(stroke.from - time) < ONE_TIME) return leads[i]!;
    const isStopped = stroke.stops.some(({ to }) => Math.abs(to - time) < ONE_TIME);
    return riseSeconds(isStopped ? STOP_RAMP : CONTACT_SECONDS, lagSeconds(hertzOn(place, time), stroke.force));
  };
  /** Whether the bow comes to a string, or turns on it, at a time. */
  const isTaken = (place: number, time: Seconds) => {
    const stroke = strokes[lastNotAfter(strokes, time + ONE_TIME)];
    const isBegun = stroke !== undefined && Math.abs(stroke.from - time) < ONE_TIME;
    const isStopped = stroke?.stops.some(({ to }) => Math.abs(to - time) < ONE_TIME) ?? false;
    return isBegun || isStopped || beginsOn(plan.contacts[place]!, time);
  };
  const early = (place: number, time: Seconds) => (isTaken(place, time) ? time - leadAt(place, time) : time);
  return {
    ...plan,
    strokes: strokes.map((stroke, i) => {
      const next = strokes[i + 1];
      const lead = next && next.from - stroke.to < SMALL_GAP ? leads[i + 1]! : 0;
      return {
        ...stroke,
        ...rampsOf(stroke),
        from: stroke.from - leads[i]!,
        to: stroke.to - lead,
        stops: stroke.stops.map(({ from, to }) => {
          const moved = riseSeconds(STOP_RAMP, lagSeconds(hertzAt(to), stroke.force));
          return { from: from - moved, to: to - moved };
        }),
      };
    }),
    contacts: plan.contacts.map((list, place) =>
      list.map((contact) => ({ ...contact, from: early(place, contact.from), to: contact.to - leftEarly(contact.to) })),
    ),
    pitches: plan.pitches.map((list, place) => inOrder(list.map((move) => ({ ...move, at: early(place, move.at) })))),
    touches: plan.touches.map((list, place) =>
      list.map((touch) => {
        const from = early(place, touch.from);
        return { ...touch, from, to: touch.to - (touch.from - from) };
      }),
    ),
  };

  /** A string is left as the bow turns, or as the next one is taken. */
  function leftEarly(time: Seconds): Seconds {
    const i = lastNotAfter(strokes, time + ONE_TIME);
    if (strokes[i] && Math.abs(strokes[i].from - time) < ONE_TIME) return leads[i]!;
    const other = plan.contacts.findIndex((list) => beginsOn(list, time));
    return other < 0 ? 0 : leadAt(other, time);
  }
}

/** Moves stay in their order: one that would pass the move before it comes right after it. */
function inOrder(moves: readonly PitchMove[]): PitchMove[] {
  let before = -Infinity;
  return moves.map((move) => {
    before = Math.max(before, move.at);
    return before === move.at ? move : { ...move, at: before };
  });
}

/** Whether something of a list in order begins at a time. */
function beginsOn(list: readonly { readonly from: Seconds }[], time: Seconds): boolean {
  const last = list[lastNotAfter(list, time + ONE_TIME)];
  return last !== undefined && Math.abs(last.from - time) < ONE_TIME;
}

/** The last of a list in order that has begun by a time; -1: none. */
function lastNotAfter(list: readonly { readonly from: Seconds }[], time: Seconds): number {
  let [low, high] = [0, list.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (list[middle]!.from <= time) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}
