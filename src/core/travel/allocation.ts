import type { Centimetres, CentimetresPerSecond, Seconds } from '#core/base';
import type { BowedNote } from '#core/bowing';
import type { Instrument } from '#core/instrument';
import { type Reach, strokeRatio } from './reach';
import { nominalLength } from './travel';

/** Weight of straying from the sweet spot against stretching a stroke, per (10 cm)²; a guess. */
export const SWEET_SPOT_WEIGHT = 0.05;
/** The least share of its nominal length to which a stroke is cut. */
export const MIN_SHARE = 0.4;

/** A stroke as the hair sees it. */
export interface StrokeWish {
  /** Length it would have on endless hair. */
  readonly nominalCm: Centimetres;
  /** 1 toward the tip, -1 toward the frog. */
  readonly sign: 1 | -1;
  /** The bow is set anew: the stroke begins where it likes. */
  readonly isFree: boolean;
}

/** Where a stroke begins and ends, in centimetres from the frog. */
export interface AllocatedStroke {
  readonly fromCm: Centimetres;
  readonly toCm: Centimetres;
}

/** The strokes of a bowing with their nominal lengths. `durations[i]` belongs to `bowed[i]`. */
export function strokeWishes(
  bowed: readonly BowedNote[],
  durations: readonly Seconds[],
  speed: CentimetresPerSecond,
  reach: Reach | null = null,
): StrokeWish[] {
  const wishes: StrokeWish[] = [];
  for (let first = 0; first < bowed.length;) {
    let end = first;
    let duration = 0;
    do duration += durations[end++]!;
    while (end < bowed.length && bowed[end]!.inStroke > 1);
    const { link, bow } = bowed[first]!;
    wishes.push({
      nominalCm: nominalLength(duration, speed) * strokeRatio(reach, durations, first, end),
      sign: bow === 'down' ? 1 : -1,
      isFree: link === 'start' || link === 'retake',
    });
    first = end;
  }
  return wishes;
}

/**
 * Shares the hair among strokes: minimises `Σ((len - nom)/nom)² + 0.05·Σ((p - p*)/10 cm)²` over the points p at which
 * strokes begin and end, with p* the sweet spot, subject to `0 ≤ p ≤ hair` and `len ≥ 0.4·nom`, or all the
 * hair where that is less. A stroke begins where
 * the one before ended, unless it is free. Strokes of length 0 stay where they are.
 *
 * A primal active set: the strictly convex objective is minimised exactly on the constraints held, by one tridiagonal
 * system over the points that still move; the step stops at the first constraint it meets, which is then held, and one
 * whose multiplier has the wrong sign is let go. It ends at the one optimum, within rounding.
 * Time O(m) a step for m strokes of a chain, as a rule with a step or two for each constraint held at the end; chains longer
 * than any tune's are gone through in windows, so that time grows with the strokes and not with their square.
 */
export function allocateTravel(wishes: readonly StrokeWish[], instrument: Instrument): AllocatedStroke[] {
  const allocated: AllocatedStroke[] = [];
  for (let from = 0; from < wishes.length;) {
    let to = from + 1;
    while (to < wishes.length && !wishes[to]!.isFree) to += 1;
    const points = allocateWindows(wishes.slice(from, to), instrument);
    for (let i = 1; i < points.length; i++) allocated.push({ fromCm: points[i - 1]!, toCm: points[i]! });
    from = to;
  }
  return allocated;
}

/**
 * Travel with the hair shared out: where each note begins and ends, within its stroke by time.
 * `durations[i]` belongs to `bowed[i]`. Time O(n).
 */
export function sharedTravel(
  bowed: readonly BowedNote[],
  durations: readonly Seconds[],
  strokes: readonly AllocatedStroke[],
  reach: Reach | null = null,
): { readonly bowStartCm: Centimetres; readonly bowEndCm: Centimetres }[] {
  const share = (i: number) => durations[i]! * (reach?.shape[i] ?? 1);
  const lasting = strokes.map(() => 0);
  for (const [i, { stroke }] of bowed.entries()) lasting[stroke - 1]! += share(i);
  let at = 0;
  return bowed.map(({ stroke, inStroke }, i) => {
    const { fromCm, toCm } = strokes[stroke - 1]!;
    if (inStroke === 1) at = fromCm;
    const bowStartCm = at;
    at += lasting[stroke - 1]! > 0 ? ((toCm - fromCm) * share(i)) / lasting[stroke - 1]! : 0;
    return { bowStartCm, bowEndCm: at };
  });
}

/** The objective that `allocateTravel` minimises, for strokes as they were allocated. */
export function allocationCost(
  wishes: readonly StrokeWish[],
  strokes: readonly AllocatedStroke[],
  { sweetSpotCm }: Instrument,
): number {
  const stray = (point: number) => SWEET_SPOT_WEIGHT * ((point - sweetSpotCm) / 10) ** 2;
  return wishes.reduce((sum, { nominalCm, sign, isFree }, i) => {
    const { fromCm, toCm } = strokes[i]!;
    const stretch = nominalCm > 0 ? ((sign * (toCm - fromCm) - nominalCm) / nominalCm) ** 2 : 0;
    return sum + stretch + stray(toCm) + (isFree || i === 0 ? stray(fromCm) : 0);
  }, 0);
}

/** Below this a multiplier or a step counts as none. */
const TINY = 1e-10;
/** Steps for each stroke after which the search would be going round in circles. */
const MAX_STEPS_A_STROKE = 40;

interface Held {
  /** Point i lies at the frog (-1), at the tip (1) or between them (0). */
  readonly bound: (-1 | 0 | 1)[];
  /** Stroke j, from point j - 1 to j, is as short as it may be. */
  readonly short: boolean[];
  /** The first point stays where it is. */
  readonly isPinned: boolean;
}

/** Strokes of one chain that are shared out at once: no tune has as many without a lift of the bow. */
const MAX_AT_ONCE = 1000;
/** Strokes of a window that are kept, and those after them that it looks ahead to. */
const WINDOW = 120;
const AHEAD = 120;

/**
 * Points of a chain of any length. A stroke hardly feels one that is far off: in a chain that is longer than any tune's each
 * window begins where the one before it ended, and looks beyond its own end. The points are then the optimum’s to a
 * hundredth of a millimetre for strokes as they are played.
 */
function allocateWindows(wishes: readonly StrokeWish[], instrument: Instrument): number[] {
  if (wishes.length <= MAX_AT_ONCE) return allocateChain(wishes, instrument, null);
  const points: number[] = [];
  for (let from = 0; from < wishes.length; from += WINDOW) {
    const window = wishes.slice(from, from + WINDOW + AHEAD);
    const own = allocateChain(window, instrument, points.pop() ?? null);
    points.push(...own.slice(0, Math.min(WINDOW, wishes.length - from) + 1));
  }
  return points;
}

/** Points of a chain of strokes, one more than there are strokes; the first one given where `start` is not null. */
function allocateChain(wishes: readonly StrokeWish[], instrument: Instrument, start: number | null): number[] {
  // A stroke that is cut as far as may be and is still longer than the hair takes all of it.
  const least = wishes.map(({ nominalCm }) => Math.min(MIN_SHARE * nominalCm, instrument.hairCm));
  // As a rule nothing need be held at all.
  const free = freeMinimum(wishes, instrument, start);
  if (isFeasible(free, wishes, least, instrument)) return free;
  const points = feasiblePoints(wishes, least, instrument, start);
  const held: Held = {
    bound: points.map(() => 0 as const),
    short: points.map(() => false),
    isPinned: start !== null,
  };
  for (let step = 0; step < MAX_STEPS_A_STROKE * points.length; step++) {
    const aim = minimumOn(held, points, wishes, least, instrument);
    const blocked = firstBlock(points, aim, held, { wishes, least, hairCm: instrument.hairCm });
    for (let i = 0; i < points.length; i++) points[i] = points[i]! + blocked.share * (aim[i]! - points[i]!);
    if (blocked.hold) blocked.hold();
    else if (!letGo(held, points, wishes, instrument)) break;
  }
  return points;
}

/** The minimum with nothing held: `minimumOn` without groups, some ten times as quick. */
function freeMinimum(wishes: readonly StrokeWish[], { sweetSpotCm }: Instrument, start: number | null): number[] {
  const count = wishes.length + 1;
  const diagonal = new Float64Array(count).fill(STRAY_WEIGHT);
  const points = new Array<number>(count).fill(STRAY_WEIGHT * sweetSpotCm);
  const weights = new Float64Array(count);
  for (let j = 0; j < wishes.length; j++) {
    const wish = wishes[j]!;
    const weight = stretchWeight(wish);
    weights[j] = weight;
    diagonal[j]! += weight;
    diagonal[j + 1]! += weight;
    points[j]! -= weight * wish.sign * wish.nominalCm;
    points[j + 1]! += weight * wish.sign * wish.nominalCm;
  }
  let first = 0;
  if (start !== null) {
    // A point that is given is no unknown: only the next one feels it.
    points[0] = start;
    points[1]! += weights[0]! * start;
    first = 1;
  }
  for (let i = first + 1; i < count; i++) {
    const factor = weights[i - 1]! / diagonal[i - 1]!;
    diagonal[i]! -= factor * weights[i - 1]!;
    points[i]! += factor * points[i - 1]!;
  }
  points[count - 1]! /= diagonal[count - 1]!;
  for (let i = count - 2; i >= first; i--) points[i] = (points[i]! + weights[i]! * points[i + 1]!) / diagonal[i]!;
  return points;
}

/** Strokes as short as may be, longer only where the next would not fit. */
function feasiblePoints(
  wishes: readonly StrokeWish[],
  least: readonly number[],
  instrument: Instrument,
  start: number | null,
): number[] {
  const { hairCm, sweetSpotCm } = instrument;
  const inReach = (point: number, next: number) => {
    const wish = wishes[next];
    if (!wish) return Math.min(hairCm, Math.max(0, point));
    return wish.sign > 0
      ? Math.min(hairCm - least[next]!, Math.max(0, point))
      : Math.max(least[next]!, Math.min(hairCm, point));
  };
  const points = [start ?? inReach(sweetSpotCm, 0)];
  for (const [j, { sign }] of wishes.entries()) points.push(inReach(points[j]! + sign * least[j]!, j + 1));
  return points;
}

function isFeasible(
  points: readonly number[],
  wishes: readonly StrokeWish[],
  least: readonly number[],
  { hairCm }: Instrument,
): boolean {
  for (const point of points) if (!(point >= 0 && point <= hairCm)) return false;
  for (let j = 0; j < wishes.length; j++) if (wishes[j]!.sign * (points[j + 1]! - points[j]!) < least[j]!) return false;
  return true;
}

/** Points that move as one because the strokes between them are held short: `first` to `last`. */
function groupsOf({ short }: Held): { first: number; last: number }[] {
  const groups: { first: number; last: number }[] = [];
  for (let i = 0; i < short.length; i++)
    if (i > 0 && short[i]) groups[groups.length - 1]!.last = i;
    else groups.push({ first: i, last: i });
  return groups;
}

const stretchWeight = ({ nominalCm }: StrokeWish) => (nominalCm > 0 ? 1 / (nominalCm * nominalCm) : 0);
const STRAY_WEIGHT = SWEET_SPOT_WEIGHT / 100;

/** The minimum with the held constraints as equations: groups of points are the unknowns, the system is tridiagonal. */
function minimumOn(
  held: Held,
  points: readonly number[],
  wishes: readonly StrokeWish[],
  least: readonly number[],
  { sweetSpotCm }: Instrument,
): number[] {
  const groups = groupsOf(held);
  const offsets = points.map(() => 0);
  for (const { first, last } of groups)
    for (let i = first + 1; i <= last; i++) offsets[i] = offsets[i - 1]! + wishes[i - 1]!.sign * least[i - 1]!;
  const [lower, diagonal, upper, right] = [0, 1, 2, 3].map(() => groups.map(() => 0)) as [
    number[],
    number[],
    number[],
    number[],
  ];
  for (const [g, { first, last }] of groups.entries()) {
    const fixed = fixedIn(held, first, last);
    if (fixed >= 0) {
      diagonal[g] = 1;
      right[g] = points[fixed]! - offsets[fixed]!;
      continue;
    }
    for (let i = first; i <= last; i++) {
      diagonal[g]! += STRAY_WEIGHT;
      right[g]! += STRAY_WEIGHT * (sweetSpotCm - offsets[i]!);
    }
    // A stroke into the group ends at its first point, one out of it begins at its last.
    if (first > 0) {
      const wish = wishes[first - 1]!;
      const weight = stretchWeight(wish);
      const before = groups[g - 1]!.last;
      diagonal[g]! += weight;
      lower[g] = -weight;
      right[g]! += weight * (wish.sign * wish.nominalCm + offsets[before]! - offsets[first]!);
    }
    if (last < points.length - 1) {
      const wish = wishes[last]!;
      const weight = stretchWeight(wish);
      const after = groups[g + 1]!.first;
      diagonal[g]! += weight;
      upper[g] = -weight;
      right[g]! += weight * (-wish.sign * wish.nominalCm + offsets[after]! - offsets[last]!);
    }
  }
  const solved = solveTridiagonal(lower, diagonal, upper, right);
  const aim = [...points];
  for (const [g, { first, last }] of groups.entries())
    for (let i = first; i <= last; i++) aim[i] = solved[g]! + offsets[i]!;
  return aim;
}

function fixedIn({ bound, isPinned }: Held, first: number, last: number): number {
  if (isPinned && first === 0) return 0;
  for (let i = first; i <= last; i++) if (bound[i] !== 0) return i;
  return -1;
}

/** Elimination without pivoting: the system is diagonally dominant. */
function solveTridiagonal(lower: number[], diagonal: number[], upper: number[], right: number[]): number[] {
  const count = diagonal.length;
  for (let i = 1; i < count; i++) {
    const factor = lower[i]! / diagonal[i - 1]!;
    diagonal[i]! -= factor * upper[i - 1]!;
    right[i]! -= factor * right[i - 1]!;
  }
  const solved = right;
  solved[count - 1]! /= diagonal[count - 1]!;
  for (let i = count - 2; i >= 0; i--) solved[i] = (right[i]! - upper[i]! * solved[i + 1]!) / diagonal[i]!;
  return solved;
}

/** What bounds the points: each stroke's least length, and the hair. */
interface Bounds {
  readonly wishes: readonly StrokeWish[];
  readonly least: readonly number[];
  readonly hairCm: number;
}

/** How far the way to the aim is free, as a share of it, and what it then meets. */
function firstBlock(
  points: readonly number[],
  aim: readonly number[],
  held: Held,
  { wishes, least, hairCm }: Bounds,
): { share: number; hold: (() => void) | null } {
  let share = 1;
  let hold: (() => void) | null = null;
  const meet = (room: number, speed: number, mark: () => void) => {
    if (speed <= TINY || Math.max(0, room) / speed >= share) return;
    share = Math.max(0, room) / speed;
    hold = mark;
  };
  for (let i = 0; i < points.length; i++) {
    const move = aim[i]! - points[i]!;
    if (held.bound[i] === 0) {
      meet(points[i]!, -move, () => (held.bound[i] = -1));
      meet(hairCm - points[i]!, move, () => (held.bound[i] = 1));
    }
    if (i > 0 && !held.short[i]) {
      const { sign } = wishes[i - 1]!;
      const length = sign * (points[i]! - points[i - 1]!);
      meet(length - least[i - 1]!, -sign * (move - (aim[i - 1]! - points[i - 1]!)), () => (held.short[i] = true));
    }
  }
  return { share, hold };
}

/** Lets the held constraint go whose multiplier is most against it; false where all are right: the optimum. */
function letGo(
  held: Held,
  points: readonly number[],
  wishes: readonly StrokeWish[],
  { sweetSpotCm }: Instrument,
): boolean {
  const stretch = wishes.map((wish, j) => {
    const length = wish.sign * (points[j + 1]! - points[j]!);
    return 2 * stretchWeight(wish) * (length - wish.nominalCm) * wish.sign;
  });
  const slope = points.map(
    (point, i) => 2 * STRAY_WEIGHT * (point - sweetSpotCm) + (stretch[i - 1] ?? 0) - (stretch[i] ?? 0),
  );
  let worst = -TINY;
  let release: (() => void) | null = null;
  const consider = (multiplier: number, free: () => void) => {
    if (multiplier >= worst) return;
    worst = multiplier;
    release = free;
  };
  for (const { first, last } of groupsOf(held)) {
    const fixed = fixedIn(held, first, last);
    const end = fixed < 0 ? last : fixed;
    // Slopes are carried along the short strokes: from the left up to the fixed point, from the right down to it.
    let carried = 0;
    for (let i = first; i < end; i++) {
      carried += slope[i]!;
      consider(-carried * wishes[i]!.sign, () => (held.short[i + 1] = false));
    }
    let carriedBack = 0;
    for (let i = last; i > end; i--) {
      carriedBack += slope[i]!;
      consider(carriedBack * wishes[i - 1]!.sign, () => (held.short[i] = false));
    }
    if (fixed > 0 || (fixed === 0 && !held.isPinned)) {
      const total = carried + carriedBack + slope[fixed]!;
      consider(held.bound[fixed] === -1 ? total : -total, () => (held.bound[fixed] = 0));
    }
  }
  if (release === null) return false;
  (release as () => void)();
  return true;
}
