import type { Semitones } from '#core/base';

/** How alike two melodies are. */
export interface Likeness {
  /** 1: equal but for key and octave. 0: no more alike than any two. */
  readonly share: number;
  /** Semitones by which the first lies above the second, -5 … 6, octaves left out. */
  readonly semitones: Semitones;
}

/** From here two melodies are most likely settings of one tune. */
export const SAME_TUNE = 0.6;

/** From here they are worth a look. */
export const ALIKE = 0.4;

/** What a place that differs, or that one of them has not, takes off. */
const PENALTY = 0.5;

/** Places that are compared, from the beginning: a hundred bars of running eighths. */
export const MAX_COMPARED = 800;

/** Transpositions that are tried: those at which most pairs of places would agree. */
const MAX_TRIED = 2;

/**
 * How alike two lines are: over all ways to lay one along the other and all likely transpositions the best of
 * (places that agree − ½ · places that differ or stand alone) / mean length, not below 0. Octaves are left out: a
 * setting folded into the first position is the same tune. Needleman and Wunsch's global alignment, O(n·m) time, O(m)
 * memory, n and m at most `MAX_COMPARED`. An empty line is like nothing.
 */
export function melodyLikeness(oneWhole: readonly number[], otherWhole: readonly number[]): Likeness {
  const [one, other] = [oneWhole.slice(0, MAX_COMPARED), otherWhole.slice(0, MAX_COMPARED)];
  if (one.length === 0 || other.length === 0) return { share: 0, semitones: 0 };
  let best: Likeness = { share: 0, semitones: 0 };
  for (const semitones of likelyTranspositions(one, other)) {
    const share = shareAt(one, other, semitones);
    if (share > best.share) best = { share, semitones: semitones > 6 ? semitones - 12 : semitones };
  }
  return best;
}

/** The share with the first heard so many semitones lower. Neither line is empty. */
export function shareAt(one: readonly number[], other: readonly number[], semitones: Semitones): number {
  return Math.max(0, alignmentScore(one, other, semitones)) / ((one.length + other.length) / 2);
}

/** Differences 0 … 11 by how often they come between places near each other, those that tell most first. */
function likelyTranspositions(one: readonly number[], other: readonly number[]): number[] {
  const counts = Array<number>(12).fill(0);
  for (const [i, pitch] of one.entries())
    for (const shift of [-2, -1, 0, 1, 2]) {
      const facing = other[i + shift];
      if (facing !== undefined) counts[(((pitch - facing) % 12) + 12) % 12]! += shift === 0 ? 2 : 1;
    }
  return counts
    .map((count, semitones) => ({ count, semitones }))
    .sort((a, b) => b.count - a.count || a.semitones - b.semitones)
    .slice(0, MAX_TRIED)
    .map(({ semitones }) => semitones);
}

function alignmentScore(one: readonly number[], other: readonly number[], semitones: number): number {
  let before = Float64Array.from({ length: other.length + 1 }, (_, j) => -PENALTY * j);
  let row = new Float64Array(other.length + 1);
  for (const [i, pitch] of one.entries()) {
    row[0] = -PENALTY * (i + 1);
    for (let j = 0; j < other.length; j++) {
      const agrees = (pitch - other[j]! - semitones) % 12 === 0;
      row[j + 1] = Math.max(before[j]! + (agrees ? 1 : -PENALTY), before[j + 1]! - PENALTY, row[j]! - PENALTY);
    }
    [before, row] = [row, before];
  }
  return before[other.length]!;
}
