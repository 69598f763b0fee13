/** Intervals of a shingle: about two beats of running notes. */
const SHINGLE = 6;

/** Shingles kept of a line. */
export const PRINT_SIZE = 24;

/** Shared shingles from which two lines are worth comparing note by note. */
export const LEAST_SHARED = 3;

/** FNV-1a, 32 bits. */
const FNV_BASIS = 0x811c9dc5;
const FNV_PRIME = 0x01000193;

/**
 * The print of a melody: the smallest hashes of all runs of six successive intervals in it (a bottom-k sketch: Broder,
 * "On the resemblance and containment of documents", 1997). Two lines that share a share of their runs share about that
 * share of their prints, whatever their lengths. Intervals are taken without their octave, so a print does not know the
 * key. Runs with fewer than two moves (long notes) tell nothing and are left out. Values fit a signed 32-bit integer.
 * Time O(n log n).
 */
export function melodyPrint(pitches: readonly number[]): number[] {
  const found = new Set<number>();
  const last = pitches.length - SHINGLE;
  for (let start = 0; start < last; start++) {
    let hash = FNV_BASIS;
    let moves = 0;
    for (let i = start; i < start + SHINGLE; i++) {
      const interval = (((pitches[i + 1]! - pitches[i]!) % 12) + 12) % 12;
      if (interval !== 0) moves += 1;
      hash = Math.imul(hash ^ interval, FNV_PRIME);
    }
    if (moves >= 2) found.add(hash >>> 1);
  }
  return [...Int32Array.from(found).sort().subarray(0, PRINT_SIZE)];
}

/** Hashes that two prints share. */
export function sharedOf(one: readonly number[], other: readonly number[]): number {
  const known = new Set(one);
  return other.filter((hash) => known.has(hash)).length;
}
