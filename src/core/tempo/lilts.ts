import type { DanceType } from '#core/tune';
import { type Lilt, STRAIGHT } from './lilt';

/**
 * The lilts that come along, guesses all: shares of full strength up to a comfortable tempo of the beat they divide (the
 * quarter, or the dotted quarter in compound meters), flattening beyond it as players do who have no time left for it.
 */
export const LILTS: readonly Lilt[] = [
  STRAIGHT,
  { name: 'easy', simple: [0.54, 0.46], compound: [0.37, 0.3, 0.33], fullTo: 110, flattening: 1 },
  { name: 'rolling', simple: [0.28, 0.22, 0.27, 0.23], compound: [0.4, 0.27, 0.33], fullTo: 110, flattening: 0.8 },
  { name: 'lifted', simple: [0.46, 0.54], compound: [0.35, 0.26, 0.39], fullTo: 110, flattening: 1 },
  { name: 'dotted', simple: [0.62, 0.38], compound: [0.44, 0.23, 0.33], fullTo: 120, flattening: 0.8 },
  { name: 'snapped', simple: [0.4, 0.6], compound: [0.28, 0.39, 0.33], fullTo: 120, flattening: 0.8 },
];

/**
 * Long to short of a written dotted pair as the dances play it, guesses: a hornpipe's or a schottische's is softer than it
 * is written, a strathspey's and all others' as it is.
 */
export type DottedRatios = Readonly<Partial<Record<DanceType, number>>>;
const DEFAULT_RATIOS: DottedRatios = { hornpipe: 1.8, schottische: 1.8 };
const WRITTEN_DOTTED_RATIO = 3;
/** Even notes, and doubly dotted ones with some to spare. */
export const DOTTED_RATIO_RANGE = [1, 7] as const;

/** @param own the player's ratios, in the place of the usual ones */
export function dottedRatio(danceType: DanceType | null, own: DottedRatios = {}): number {
  return (danceType && (own[danceType] ?? DEFAULT_RATIOS[danceType])) ?? WRITTEN_DOTTED_RATIO;
}

/** A lilt by its name, of those that come along or of a player's own; null for no such name. */
export function findLilt(name: string, own: readonly Lilt[] = []): Lilt | null {
  return [...LILTS, ...own].find((lilt) => lilt.name === name) ?? null;
}
