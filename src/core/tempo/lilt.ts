import type { BeatsPerMinute } from '#core/base';

/**
 * The uneven length of notes that are written even. `simple` tells the shares of a quarter, `compound` those of a dotted
 * quarter; each list sums to 1 and has one share for each of so many even notes. null plays that kind of beat even.
 */
export interface Lilt {
  readonly name: string;
  readonly simple: readonly number[] | null;
  readonly compound: readonly number[] | null;
  /** Up to this tempo of the beat it divides the lilt is full; beyond it flattens. */
  readonly fullTo: BeatsPerMinute;
  /** How quickly it flattens: the lilt's share of the even length falls with tempo to this power. */
  readonly flattening: number;
}

export const STRAIGHT: Lilt = { name: 'straight', simple: null, compound: null, fullTo: 400, flattening: 1 };

/**
 * How much of a lilt is left at a tempo of the beat it divides: 1 up to `fullTo`, then (fullTo / bpm)^flattening.
 */
export function liltLeft({ fullTo, flattening }: Lilt, beatBpm: BeatsPerMinute): number {
  return beatBpm <= fullTo ? 1 : (fullTo / beatBpm) ** flattening;
}

/** Why a template cannot be used. */
export type LiltFault =
  | { readonly code: 'shares'; readonly beat: 'simple' | 'compound' }
  | { readonly code: 'curve' }
  /** From `from` to `to` beats a minute the note at `position` (from 1) grows longer as the tempo rises. */
  | {
      readonly code: 'grows';
      readonly beat: 'simple' | 'compound';
      readonly position: number;
      readonly from: BeatsPerMinute;
      readonly to: BeatsPerMinute;
    };

/** What a lilt may be called, since tunes name it. */
export const LILT_NAME = /^[a-z][a-z0-9-]{0,23}$/;

/** Fewest and most notes to a beat that a template may tell of. */
export const LILT_NOTES = { min: 2, max: 6 } as const;
const SUM_TOLERANCE = 1e-9;

/**
 * The first fault of a template, null where it can be used.
 *
 * A note of share s among k lasts (60/b)·(1/k + (s − 1/k)·(f/b)^p) beyond f = `fullTo`. Its derivative is negative
 * where (1 + p)·(1/k − s)·(f/b)^p < 1/k; the left side is largest at b = f. A template for which it does not hold there
 * is refused, with the tempo f at which the note begins to grow and the tempo f·((1 + p)(1 − k·s))^(1/p) at which it
 * shrinks again.
 */
export function liltFault(lilt: Lilt): LiltFault | null {
  const { fullTo, flattening } = lilt;
  if (!(fullTo > 0 && Number.isFinite(fullTo) && flattening > 0 && Number.isFinite(flattening)))
    return { code: 'curve' };
  for (const beat of ['simple', 'compound'] as const) {
    const shares = lilt[beat];
    if (!shares) continue;
    const sum = shares.reduce((total, share) => total + share, 0);
    const isCounted = shares.length >= LILT_NOTES.min && shares.length <= LILT_NOTES.max;
    if (!isCounted || !shares.every((share) => share > 0) || Math.abs(sum - 1) > SUM_TOLERANCE)
      return { code: 'shares', beat };
    for (const [i, share] of shares.entries()) {
      const steepness = (1 + flattening) * (1 - shares.length * share);
      if (steepness >= 1)
        return { code: 'grows', beat, position: i + 1, from: fullTo, to: fullTo * steepness ** (1 / flattening) };
    }
  }
  return null;
}

/**
 * How much later than even a place within a beat is reached under the full lilt, in beats: 0 at both ends, negative
 * where it comes early. `place` from 0 to 1. Between the ends of the shares it runs straight.
 */
export function liltShift(shares: readonly number[], place: number): number {
  const slots = shares.length;
  const slot = Math.min(slots - 1, Math.floor(place * slots + 1e-9));
  let reached = 0;
  for (let i = 0; i < slot; i++) reached += shares[i]!;
  return reached + shares[slot]! * (place * slots - slot) - place;
}
