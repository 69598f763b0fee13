import type { BeatsPerMinute } from '#core/base';
import type { EventKind } from '#core/tempo';
import { type Margins, marginsAt } from './margins';

/** By kind of event how much better than the limit a player is, as a natural logarithm; 0 where nothing is known. */
export type Ability = Readonly<Partial<Record<EventKind, number>>>;

/** How steeply chances fall where room runs out, and how often even the easiest goes wrong. Guesses. */
export const SLOPE = 10;
export const LAPSE = 0.04;

/**
 * The chance that a stretch comes out clean: P = (1 - λ) · Π over kinds σ(s·(m + a)), with margin m, ability a, slope s and
 * lapse rate λ. Time O(k) for k kinds.
 */
export function cleanChance(margins: Margins, ability: Ability): number {
  let chance = 1 - LAPSE;
  for (const [kind, margin] of Object.entries(margins) as [EventKind, number][])
    chance /= 1 + Math.exp(-SLOPE * (margin + (ability[kind] ?? 0)));
  return chance;
}

/** Tempos between which one is looked for, and how closely. */
const [SLOWEST, FASTEST] = [10, 600];
const STEPS = 40;

/**
 * The tempo at which a stretch comes out clean with a chance, of margins taken at `bpm`: by bisection, since the chance falls
 * with the tempo. null: no tempo is slow enough, as for any chance above 1 - λ.
 */
export function cleanTempo(
  margins: Margins,
  bpm: BeatsPerMinute,
  ability: Ability,
  chance: number,
): BeatsPerMinute | null {
  const at = (tempo: number) => cleanChance(marginsAt(margins, bpm, tempo), ability);
  if (at(SLOWEST) < chance) return null;
  if (at(FASTEST) >= chance) return FASTEST;
  let [low, high] = [SLOWEST, FASTEST];
  for (let i = 0; i < STEPS; i++) {
    const middle = Math.sqrt(low * high);
    if (at(middle) >= chance) low = middle;
    else high = middle;
  }
  return low;
}
