import type { Performance } from '#core/performance';
import type { Balance, SoundPlan } from '#core/sound';

/** A plan as it is sent to be played: where it loops, and where in the tune its seconds lie. */
export interface Programme {
  readonly id: number;
  readonly plan: SoundPlan;
  /** Goes back from `to` to `from`; null: ends. */
  readonly loop: { readonly from: number; readonly to: number } | null;
  /** Seconds of the plan and whole notes of the tune, rising together. */
  readonly knots: { readonly seconds: readonly number[]; readonly places: readonly number[] };
}

export function programmeOf(performance: Performance, id: number, loops: boolean): Programme {
  const { plan, begins, ends, from, to, onsets, places } = performance;
  const seconds = [begins];
  const known = [from];
  for (const [i, onset] of onsets.entries()) {
    if (onset <= seconds[seconds.length - 1]! + 1e-9 || places[i]! <= known[known.length - 1]! + 1e-12) continue;
    seconds.push(onset);
    known.push(places[i]!);
  }
  if (ends > seconds[seconds.length - 1]!) {
    seconds.push(ends);
    known.push(Math.max(to, known[known.length - 1]!));
  }
  return {
    id,
    plan,
    loop: loops && plan.seconds - begins > 0.05 ? { from: begins, to: plan.seconds } : null,
    knots: { seconds, places: known },
  };
}

/** The other's value at a value of one of two rising lists, in straight lines; beyond the ends it stays at them. */
export function along(from: readonly number[], to: readonly number[], at: number): number {
  if (at <= from[0]!) return to[0]!;
  let [low, high] = [0, from.length - 1];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (from[middle]! <= at) low = middle;
    else high = middle - 1;
  }
  const next = low + 1;
  if (next >= from.length) return to[low]!;
  return to[low]! + ((to[next]! - to[low]!) * (at - from[low]!)) / (from[next]! - from[low]!);
}

/**
 * Where a programme goes on that takes another's place: at the same place of the tune. While it is being counted in, as
 * long before its beginning; in the gap for an answer, as far into the gap.
 */
export function sameplace(before: Programme, after: Programme, time: number): number {
  const [first] = before.knots.seconds;
  const last = before.knots.seconds[before.knots.seconds.length - 1]!;
  if (time < first!) return Math.max(0, after.knots.seconds[0]! - (first! - time));
  if (time > last) {
    const end = after.knots.seconds[after.knots.seconds.length - 1]!;
    return Math.min(after.plan.seconds, end + (time - last));
  }
  const place = along(before.knots.seconds, before.knots.places, time);
  return along(after.knots.places, after.knots.seconds, place);
}

/** What the page tells the fiddle. */
export type ToFiddle =
  /** `at` null: goes on where the one before is. */
  | { readonly kind: 'play'; readonly programme: Programme; readonly at: number | null }
  /** Takes over when the loop comes round, or the plan ends. */
  | { readonly kind: 'next'; readonly programme: Programme }
  | { readonly kind: 'balance'; readonly balance: Balance }
  | { readonly kind: 'stop' };

/** What the fiddle tells the page. */
export interface FromFiddle {
  /** The engine's own clock at this moment, in seconds. */
  readonly clock: number;
  readonly programme: number;
  readonly time: number;
  readonly isPlaying: boolean;
  /** How often the loop came round. */
  readonly rounds: number;
  /** How often sound was not ready in time. */
  readonly underruns: number;
}
