/**
 * Starts of all suffixes of a list of symbols in the order of those suffixes, by doubling the length compared.
 * Time O(n log² n), memory O(n).
 */
export function suffixArray(symbols: readonly number[]): number[] {
  const count = symbols.length;
  const order = Array.from({ length: count }, (_, i) => i);
  let rank = [...symbols];
  for (let width = 1; ; width *= 2) {
    const second = (i: number) => (i + width < count ? rank[i + width]! : -Infinity);
    const compare = (a: number, b: number) => rank[a]! - rank[b]! || second(a) - second(b) || 0;
    order.sort(compare);
    const next = rank.map(() => 0);
    for (let k = 1; k < count; k++)
      next[order[k]!] = next[order[k - 1]!]! + (compare(order[k - 1]!, order[k]!) === 0 ? 0 : 1);
    rank = next;
    if (count === 0 || rank[order[count - 1]!] === count - 1 || width >= count) return order;
  }
}

/**
 * Length of the common beginning of each suffix and the one before it in order; 0 for the first.
 * Time O(n).
 */
export function commonPrefixes(symbols: readonly number[], order: readonly number[]): number[] {
  const place = order.map(() => 0);
  for (const [k, start] of order.entries()) place[start] = k;
  const common = order.map(() => 0);
  let length = 0;
  for (let start = 0; start < symbols.length; start++) {
    const k = place[start]!;
    if (k === 0) {
      length = 0;
      continue;
    }
    const other = order[k - 1]!;
    while (
      start + length < symbols.length &&
      other + length < symbols.length &&
      symbols[start + length] === symbols[other + length]
    )
      length += 1;
    common[k] = length;
    length = Math.max(0, length - 1);
  }
  return common;
}

/** A stretch of symbols that stands in several places and in no two of them can be made longer. */
export interface Repeat {
  readonly length: number;
  /** Where it stands, in rising order. */
  readonly starts: readonly number[];
}

/**
 * Whether the places of a repeat must overlap so much that it is a run: one bar played hundreds of times repeats in as
 * many lengths as it has notes, in as many places each. What is told of it is the bar, not every multiple of it.
 */
function isRun(length: number, places: number, symbols: number): boolean {
  return length * places > 2 * symbols;
}

/**
 * All maximal repeats of a least length, runs left out: the intervals of suffixes with a common beginning, kept where
 * what stands before differs. Time O(n log n) after the suffix array, and the sum of the places found.
 */
export function maximalRepeats(symbols: readonly number[], leastLength: number): Repeat[] {
  const order = suffixArray(symbols);
  const common = commonPrefixes(symbols, order);
  const found: Repeat[] = [];
  const open: { length: number; from: number }[] = [];
  for (let k = 1; k <= order.length; k++) {
    const length = common[k] ?? 0;
    let from = k - 1;
    while (open.length > 0 && open[open.length - 1]!.length > length) {
      const closed = open.pop()!;
      from = closed.from;
      if (closed.length < leastLength || isRun(closed.length, k - closed.from, symbols.length)) continue;
      const starts = order.slice(closed.from, k).sort((a, b) => a - b);
      const before = new Set(starts.map((start) => symbols[start - 1] ?? -1 - start));
      if (before.size > 1) found.push({ length: closed.length, starts });
    }
    if (length > 0 && (open[open.length - 1]?.length ?? 0) < length) open.push({ length, from });
  }
  return found;
}
