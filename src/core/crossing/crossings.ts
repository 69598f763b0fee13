import type { Degrees } from '#core/base';
import { type BowedNote } from '#core/bowing';
import type { Instrument } from '#core/instrument';
import type { UnrolledNote } from '#core/tune';
import { armPath, turning } from './armPath';
import { type Interval, type Plane, planeAngle, planeInterval, planeName, skippedStrings } from './planes';

/** The bow leaves one plane for another before a note. */
export interface Crossing {
  readonly from: Plane;
  readonly to: Plane;
  /** Strings swept over; 0 is an adjacent crossing. */
  readonly skips: number;
  readonly inSlur: boolean;
  /** Angle between the planes bowed, centre to centre. */
  readonly degrees: Degrees;
  /**
   * `natural`: at a bow change, the lower-pitched side drawn down; `reverse`: drawn up; `free`: at a rest, a hook's
   * stop or a retake. null inside a slur.
   */
  readonly oval: 'natural' | 'reverse' | 'free' | null;
}

export interface CrossingSums {
  readonly adjacent: number;
  readonly skip: number;
  readonly inSlur: number;
  readonly naturalOvals: number;
  readonly reverseOvals: number;
  readonly free: number;
  /** Turning along the path of least turning, and along the path through the middles. */
  readonly armDegrees: Degrees;
  readonly armDegreesNaive: Degrees;
}

/** How the arm carries each note. Notes without a reachable string have null planes and keep the plane before. */
export interface ArmPlan {
  readonly planes: readonly (Plane | null)[];
  readonly crossings: readonly (Crossing | null)[];
  readonly intervals: readonly (Interval | null)[];
  readonly angles: readonly (Degrees | null)[];
  readonly sums: CrossingSums;
}

/**
 * Crossings, allowed intervals and the arm's path for played notes on their planes.
 * @param planes `planes[i]` belongs to `notes[i]`
 * Time O(n).
 */
export function armPlan(
  notes: readonly UnrolledNote[],
  bowed: readonly BowedNote[],
  planes: readonly (Plane | null)[],
  instrument: Instrument,
): ArmPlan {
  const known = new Map<string, { angle: Degrees; interval: Interval }>();
  const figures = (plane: Plane) => {
    const name = planeName(plane);
    let entry = known.get(name);
    if (!entry) {
      entry = { angle: planeAngle(plane, instrument), interval: planeInterval(plane, instrument) };
      known.set(name, entry);
    }
    return entry;
  };

  const crossings: (Crossing | null)[] = [];
  let before: Plane | null = null;
  for (const [i, plane] of planes.entries()) {
    crossings.push(before && plane ? crossingBetween(before, plane, notes[i]!, bowed[i]!, figures) : null);
    before = plane ?? before;
  }

  const reached = planes.flatMap((plane, i) => (plane ? [{ i, ...figures(plane) }] : []));
  const path = armPath(reached.map(({ interval }) => interval));
  const intervals: (Interval | null)[] = planes.map(() => null);
  const angles: (Degrees | null)[] = planes.map(() => null);
  for (const [k, { i, interval }] of reached.entries()) {
    intervals[i] = interval;
    angles[i] = path[k]!;
  }
  const naive = turning(reached.map(({ angle }) => angle));
  return { planes, crossings, intervals, angles, sums: sumCrossings(crossings, turning(path), naive) };
}

function crossingBetween(
  from: Plane,
  to: Plane,
  { restBefore }: UnrolledNote,
  { link, bow }: BowedNote,
  figures: (plane: Plane) => { angle: Degrees },
): Crossing | null {
  const turn = figures(to).angle - figures(from).angle;
  if (turn === 0) return null;
  const inSlur = link === 'slur';
  // Bow direction on the lower plane: the note's own when the crossing goes down, else the opposite stroke before it.
  const lowerIsDown = turn < 0 ? bow === 'down' : bow === 'up';
  const isFree = link !== 'change' || restBefore.n > 0;
  const oval = inSlur ? null : isFree ? 'free' : lowerIsDown ? 'natural' : 'reverse';
  return { from, to, skips: skippedStrings(from, to), inSlur, degrees: Math.abs(turn), oval };
}

function sumCrossings(crossings: readonly (Crossing | null)[], least: Degrees, naive: Degrees): CrossingSums {
  const made = crossings.filter((crossing) => crossing !== null);
  const count = (test: (crossing: Crossing) => boolean) => made.filter(test).length;
  return {
    adjacent: count(({ skips }) => skips === 0),
    skip: count(({ skips }) => skips > 0),
    inSlur: count(({ inSlur }) => inSlur),
    naturalOvals: count(({ oval }) => oval === 'natural'),
    reverseOvals: count(({ oval }) => oval === 'reverse'),
    free: count(({ oval }) => oval === 'free'),
    armDegrees: least,
    armDegreesNaive: naive,
  };
}
