/** Intervals of a shingle: about two beats of running notes. */
const SHINGLE = 6;

/** Shingles kept of a line. */
export const PRINT_SIZE = 24;

/** Shared shingles from which two lines are worth comparing note by note. */
export const MIN_SHARED = 3;

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
  const intervals = new Uint8Array(Math.max(0, pitches.length - 1));
  for (let i = 0; i < intervals.length; i++) intervals[i] = (((pitches[i + 1]! - pitches[i]!) % 12) + 12) % 12;
  const hashes = new Int32Array(intervals.length);
  let count = 0;
  for (let start = 0; start + SHINGLE <= intervals.length; start++) {
    let hash = FNV_BASIS;
    let moves = 0;
    for (let i = start; i < start + SHINGLE; i++) {
      const interval = intervals[i]!;
      if (interval !== 0) moves += 1;
      hash = Math.imul(hash ^ interval, FNV_PRIME);
    }
    if (moves >= 2) hashes[count++] = hash >>> 1;
  }
  const print: number[] = [];
  for (const hash of hashes.subarray(0, count).sort()) {
    if (print.length === PRINT_SIZE) break;
    // Runs that come again count once.
    if (hash !== print[print.length - 1]) print.push(hash);
  }
  return print;
}

/** Hashes that two prints share. */
export function sharedOf(one: readonly number[], other: readonly number[]): number {
  const known = new Set(one);
  return other.filter((hash) => known.has(hash)).length;
}
