import type { Degrees } from '#core/base';
import type { Interval } from './planes';

/**
 * The arm's path of least turning: angles through allowed intervals that minimise Σ|angle(i+1) - angle(i)|.
 *
 * In one dimension the lazy path is exact: moving ahead of need never saves more than it costs, so the angle stays
 * until an interval excludes it and then stops at the near edge. The start is the point of all leading intervals that
 * share one, nearest to the first interval that does not (the middle of them where no interval ever excludes it).
 * @param intervals in playing order
 * @returns `path[i]` lies in `intervals[i]`
 * Time O(n).
 */
export function armPath(intervals: readonly Interval[]): Degrees[] {
  const path: Degrees[] = [];
  let angle = startAngle(intervals);
  for (const { low, high } of intervals) {
    angle = Math.min(Math.max(angle, low), high);
    path.push(angle);
  }
  return path;
}

/**
 * Of all paths of least turning the one that is always ahead: each angle is the one nearest to where the bow must go next.
 * Turning is the same in both directions of time, so it is the lazy path of the tune played backwards.
 * Time O(n).
 */
export function preparedPath(intervals: readonly Interval[]): Degrees[] {
  return armPath([...intervals].reverse()).reverse();
}

function startAngle(intervals: readonly Interval[]): Degrees {
  let low = -Infinity;
  let high = Infinity;
  for (const interval of intervals) {
    if (interval.low > high) return high;
    if (interval.high < low) return low;
    low = Math.max(low, interval.low);
    high = Math.min(high, interval.high);
  }
  return intervals.length > 0 ? (low + high) / 2 : 0;
}

/** Sum of all turning along a path. */
export function turning(path: readonly Degrees[]): Degrees {
  return path.reduce((sum, angle, i) => (i === 0 ? 0 : sum + Math.abs(angle - path[i - 1]!)), 0);
}
