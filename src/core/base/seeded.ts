// Looked up once: they are called for millions of times.
const { cos, imul, log, sin, sqrt } = Math;

/** Pseudo-random numbers 0 … 1 from a seed (mulberry32): the same seed, the same numbers. */
export function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = imul(t ^ (t >>> 15), t | 1);
    t ^= t + imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Numbers of the standard normal distribution, of even ones (Box and Muller, "A note on the generation of random normal deviates", 1958). */
export function normalOf(random: () => number): () => number {
  let spare: number | null = null;
  return () => {
    if (spare !== null) {
      const kept = spare;
      spare = null;
      return kept;
    }
    const radius = sqrt(-2 * log(1 - random()));
    const angle = 2 * Math.PI * random();
    spare = radius * sin(angle);
    return radius * cos(angle);
  };
}

/** The values below which shares of the whole weight lie, the shares rising; NaN where there is no weight. Time O(n log n). */
export function weightedQuantiles(
  values: readonly number[],
  weights: readonly number[],
  shares: readonly number[],
): number[] {
  const order = values.map((_, i) => i).sort((a, b) => values[a]! - values[b]!);
  const all = weights.reduce((sum, weight) => sum + weight, 0);
  let [at, sum] = [-1, 0];
  return shares.map((share) => {
    while (at + 1 < order.length && (at < 0 || sum < share * all)) sum += weights[order[++at]!]!;
    return at < 0 ? NaN : values[order[at]!]!;
  });
}
