import type { Semitones } from '#core/base';

/** How well two notes stand beside each other, by their interval within the octave. */
export const INTERVAL_CLASSES = ['perfect', 'sweet', 'sharp'] as const;
export type IntervalClass = (typeof INTERVAL_CLASSES)[number];

/** Unison, fifth: perfect. Thirds, fourth, sixths: sweet. Seconds, tritone, sevenths: sharp. */
const CLASS_OF: readonly IntervalClass[] = [
  'perfect',
  'sharp',
  'sharp',
  'sweet',
  'sweet',
  'sweet',
  'sharp',
  'perfect',
  'sweet',
  'sweet',
  'sharp',
  'sharp',
];

/** Pure frequency ratios of the intervals within the octave. Those of the sharp ones are choices among several. */
const PURE: readonly (readonly [number, number])[] = [
  [1, 1],
  [16, 15],
  [9, 8],
  [6, 5],
  [5, 4],
  [4, 3],
  [45, 32],
  [3, 2],
  [8, 5],
  [5, 3],
  [9, 5],
  [15, 8],
];

export function intervalClass(semitones: Semitones): IntervalClass {
  return CLASS_OF[Math.abs(semitones) % 12]!;
}

/** Ratio of the upper to the lower frequency of the pure interval, octaves in it. */
export function pureRatio(semitones: Semitones): { readonly upper: number; readonly lower: number } {
  const size = Math.abs(semitones);
  const [upper, lower] = PURE[size % 12]!;
  return { upper: upper * 2 ** Math.floor(size / 12), lower };
}

/** Size of the pure interval in cents, 1200·log2(upper/lower). */
export function pureCents(semitones: Semitones): number {
  const { upper, lower } = pureRatio(semitones);
  return 1200 * Math.log2(upper / lower);
}
