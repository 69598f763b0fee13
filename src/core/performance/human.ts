import type { Seconds } from '#core/base';

/** Hands are not machines: so many decibels and seconds more or less, and no more than a share of a short note. Guesses. */
const SPREAD = { decibels: 0.8, seconds: 0.004, share: 0.08 } as const;

/** How much louder or softer than meant a stroke comes, by its first note; the same each time. */
export const unevenDecibels = (index: number): number => SPREAD.decibels * spread(index, 0x9e3779b1);

/** How early or late a note comes; never so much that it would come before the one before it. */
export function unevenSeconds(durations: readonly Seconds[], index: number): Seconds {
  const shortest = Math.min(durations[index]!, durations[index - 1] ?? Infinity);
  return Math.min(SPREAD.seconds, SPREAD.share * shortest) * spread(index, 0x85ebca6b);
}

/** A number from -1 to 1 that looks like chance and is the same each time. */
function spread(index: number, seed: number): number {
  let mixed = Math.imul(index + 1, seed);
  mixed ^= mixed >>> 15;
  mixed = Math.imul(mixed, 0x2c1b3c6d);
  mixed ^= mixed >>> 12;
  return ((mixed >>> 8) % 2001) / 1000 - 1;
}
