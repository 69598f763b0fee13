import type { Degrees } from '#core/base';
import { type BowedNote } from '#core/bowing';
import type { Instrument } from '#core/instrument';
import type { Schools } from '#core/schools';
import type { UnrolledNote } from '#core/tune';
import { armPath, preparedPath, turning } from './armPath';
import { type Interval, type Plane, planeAngle, planeInterval, skippedStrings } from './planes';

/** The bow leaves one plane for another before a note. */
export interface Crossing {
  readonly from: Plane;
  readonly to: Plane;
  /** Strings swept over; 0 is an adjacent crossing. */
  readonly skips: number;
  readonly inSlur: boolean;
  /** Angle between the planes bowed, centre to centre. */
  readonly degrees: Degrees;
  /** Left to turn at the crossing itself, as the arm is taught to go. */
  readonly turnDegrees: Degrees;
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
 *
 * Of the paths of least turning the school takes one. Early: while a string sounds the bow already lies where it is nearest
 * to the next one, so that only the room between their intervals is left to turn. Late: it stays until it must turn. About a
 * still elbow it goes through the middles, and turns the whole way.
 * @param planes `planes[i]` belongs to `notes[i]`
 * Time O(n).
 */
export function armPlan(
  notes: readonly UnrolledNote[],
  bowed: readonly BowedNote[],
  planes: readonly (Plane | null)[],
  instrument: Instrument,
  school: Schools['arm'],
): ArmPlan {
  // Few planes stand for many notes: each is reckoned once.
  const known = new Map<Plane, { angle: Degrees; interval: Interval }>();
  const figures = (plane: Plane) => {
    let entry = known.get(plane);
    if (!entry) {
      entry = { angle: planeAngle(plane, instrument), interval: planeInterval(plane, instrument) };
      known.set(plane, entry);
    }
    return entry;
  };

  const intervals: (Interval | null)[] = [];
  const reached: Interval[] = [];
  const centres: Degrees[] = [];
  for (const plane of planes) {
    const reckoned = plane && figures(plane);
    intervals.push(reckoned && reckoned.interval);
    if (!reckoned) continue;
    reached.push(reckoned.interval);
    centres.push(reckoned.angle);
  }
  const least = school === 'late' ? armPath(reached) : preparedPath(reached);
  const path = school === 'middle' ? centres : least;

  const crossings: (Crossing | null)[] = [];
  let before: Plane | null = null;
  let step = 0;
  for (let i = 0; i < planes.length; i++) {
    const plane = planes[i]!;
    if (!plane) {
      crossings.push(null);
      continue;
    }
    let turn = 0;
    if (before && before !== plane)
      turn =
        school === 'early' ? roomBetween(reached[step - 1]!, reached[step]!) : Math.abs(path[step]! - path[step - 1]!);
    crossings.push(
      before && before !== plane
        ? crossingBetween(
            { from: before, to: plane, turn: figures(plane).angle - figures(before).angle, turnDegrees: turn },
            notes[i]!,
            bowed[i]!,
          )
        : null,
    );
    before = plane;
    step += 1;
  }

  step = 0;
  const angles = intervals.map((interval) => (interval ? path[step++]! : null));
  const sums = sumCrossings(crossings, turning(least), turning(centres));
  return { planes, crossings, intervals, angles, sums };
}

interface PlaneChange {
  readonly from: Plane;
  readonly to: Plane;
  /** From the middle of one plane to that of the other, up being positive; and what the arm really turns. */
  readonly turn: Degrees;
  readonly turnDegrees: Degrees;
}

function crossingBetween(
  { from, to, turn, turnDegrees }: PlaneChange,
  { restBefore }: UnrolledNote,
  { link, bow }: BowedNote,
): Crossing | null {
  if (turn === 0) return null;
  const inSlur = link === 'slur';
  // Bow direction on the lower plane: the note's own when the crossing goes down, else the opposite stroke before it.
  const lowerIsDown = turn < 0 ? bow === 'down' : bow === 'up';
  const isFree = link !== 'change' || restBefore.n > 0;
  const oval = inSlur ? null : isFree ? 'free' : lowerIsDown ? 'natural' : 'reverse';
  return { from, to, skips: skippedStrings(from, to), inSlur, degrees: Math.abs(turn), turnDegrees, oval };
}

/** Degrees between two intervals; 0 where they touch. */
function roomBetween(one: Interval, other: Interval): Degrees {
  return Math.max(0, other.low - one.high, one.low - other.high);
}

function sumCrossings(crossings: readonly (Crossing | null)[], least: Degrees, naive: Degrees): CrossingSums {
  const sums = { adjacent: 0, skip: 0, inSlur: 0, naturalOvals: 0, reverseOvals: 0, free: 0 };
  for (const crossing of crossings) {
    if (!crossing) continue;
    if (crossing.skips === 0) sums.adjacent += 1;
    else sums.skip += 1;
    if (crossing.inSlur) sums.inSlur += 1;
    if (crossing.oval === 'natural') sums.naturalOvals += 1;
    if (crossing.oval === 'reverse') sums.reverseOvals += 1;
    if (crossing.oval === 'free') sums.free += 1;
  }
  return { ...sums, armDegrees: least, armDegreesNaive: naive };
}

/** Turning that counts for a player: the arm takes the least, a wrist about a still elbow goes through the middles. */
export function turningOf({ armDegrees, armDegreesNaive }: CrossingSums, arm: Schools['arm']): Degrees {
  return arm === 'middle' ? armDegreesNaive : armDegrees;
}
