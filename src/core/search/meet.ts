import type { Direction } from '#core/tune';
import { type ChainBowing, directionBefore } from './chainBest';
import { CHOICES, type SearchModel } from './model';

/** One bowing of the whole tune: a bowing for each chain. */
export interface TuneBowing {
  readonly cost: number;
  readonly chains: readonly ChainBowing[];
}

/** Bowings of some chains by the directions at the meeting points that are still open. */
interface Factor {
  readonly points: readonly number[];
  /** By the directions at `points` read as binary digits, up = 1; sorted, K at most. */
  readonly lists: readonly (readonly Partial_[])[];
}

/** `chains[j]` is null where chain j is not in yet. */
interface Partial_ {
  readonly cost: number;
  readonly chains: readonly (ChainBowing | null)[];
}

/** Points that may be open at once: 2^12 lists are still nothing; no form of a tune comes near. */
const MAX_OPEN = 12;

/**
 * Joins bowings of chains to the K best bowings of the tune in which all passes agree: at each meeting point every chain
 * that ends there ends in one direction, and every chain that begins there is reached from it.
 *
 * Meeting points are closed one by one: the lists of all chains that touch a point are joined, and for each direction
 * of the others the better direction of it kept. Sorted by cost, ties by the first chain that differs: down before up,
 * then the earlier of `CHOICES`.
 * @param best `best[chain][bow][exit]` as `bestOfChain` gives it
 * @returns at most K, sorted; empty where nothing fits
 * @throws RangeError if more than 12 meeting points are open at once
 * Time O(j·2^w·K²) for j chains and w points open at once.
 */
export function joinChains(
  { chains, meetings }: SearchModel,
  best: readonly (readonly (readonly (readonly ChainBowing[])[])[])[],
  count: number,
): TuneBowing[] {
  let factors = chains.map(({ from, to }, j): Factor => {
    const points = from === to ? [from] : [from, to].sort((a, b) => a - b);
    const lists = Array.from({ length: 1 << points.length }, (_, bits) => {
      const directionAt = (point: number): Direction => ((bits >> points.indexOf(point)) & 1 ? 'up' : 'down');
      const exit = directionAt(to) === 'up' ? 1 : 0;
      return best[j]!.flatMap((byExit) => byExit[exit]!)
        .filter((bowing) => directionBefore(bowing) === directionAt(from))
        .map((bowing): Partial_ => ({
          cost: bowing.cost,
          chains: chains.map((_, other) => (other === j ? bowing : null)),
        }))
        .sort(order)
        .slice(0, count);
    });
    return { points, lists };
  });
  for (let point = 0; point < meetings; point++) {
    const touching = factors.filter(({ points }) => points.includes(point));
    const joined = touching.reduce((one, other) => joinFactors(one, other, count));
    factors = [...factors.filter((factor) => !touching.includes(factor)), closePoint(joined, point, count)];
  }
  const [whole] = [factors.reduce((one, other) => joinFactors(one, other, count))];
  return whole!.lists[0]!.map(({ cost, chains: bowings }) => ({ cost, chains: bowings as ChainBowing[] }));
}

function joinFactors(one: Factor, other: Factor, count: number): Factor {
  const points = [...new Set([...one.points, ...other.points])].sort((a, b) => a - b);
  if (points.length > MAX_OPEN)
    throw new RangeError(`form: expected at most ${MAX_OPEN} meeting points open at once, got ${points.length}`);
  const lists = Array.from({ length: 1 << points.length }, (_, bits) => {
    const within = (factor: Factor) =>
      factor.lists[factor.points.reduce((sum, point, i) => sum | (((bits >> points.indexOf(point)) & 1) << i), 0)]!;
    return within(one)
      .flatMap((a) =>
        within(other).map((b): Partial_ => ({
          cost: a.cost + b.cost,
          chains: a.chains.map((bowing, j) => bowing ?? b.chains[j]!),
        })),
      )
      .sort(order)
      .slice(0, count);
  });
  return { points, lists };
}

/** Keeps for each direction of the other points the best of both directions of one. */
function closePoint({ points, lists }: Factor, point: number, count: number): Factor {
  const at = points.indexOf(point);
  const others = points.filter((other) => other !== point);
  const below = (1 << at) - 1;
  return {
    points: others,
    lists: Array.from({ length: 1 << others.length }, (_, bits) => {
      const open = ((bits & ~below) << 1) | (bits & below);
      return [...lists[open]!, ...lists[open | (1 << at)]!].sort(order).slice(0, count);
    }),
  };
}

function order(a: Partial_, b: Partial_): number {
  if (a.cost !== b.cost) return a.cost - b.cost;
  for (const [j, one] of a.chains.entries()) {
    const other = b.chains[j];
    if (!one || !other || one === other) continue;
    if (one.bow !== other.bow) return one.bow === 'down' ? -1 : 1;
    for (const [k, link] of one.links.entries())
      if (link !== other.links[k]) return CHOICES.indexOf(link) - CHOICES.indexOf(other.links[k]!);
  }
  return 0;
}
