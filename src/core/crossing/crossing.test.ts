import highs from 'highs';
import { bowNotes, setLinks } from '#core/bowing';
import { FULL_SIZE } from '#core/instrument';
import type { Schools } from '#core/schools';
import { type Direction, type Link, unroll } from '#core/tune';
import { part, seeded, tune } from '../testing/tunes';
import { armPath, preparedPath, turning } from './armPath';
import { armPlan } from './crossings';
import { type Interval, neighbourAngle, type Plane, planeAngle, planeInterval, skippedStrings } from './planes';

test('neighbour planes on a 42 mm bridge with 11.5 mm spacing differ by 15.7 degrees', () => {
  expect(neighbourAngle(FULL_SIZE)).toBeCloseTo(15.7, 1);
});

test.each([
  [['G'], -30.5, -16.7],
  [['D'], -14.7, -1.0],
  [['A'], 1.0, 14.7],
  [['E'], 16.7, 30.5],
  [['G', 'D'], -16.7, -14.7],
  [['D', 'A'], -1.0, 1.0],
  [['A', 'E'], 14.7, 16.7],
] as const)('the bow sounds %p from %f to %f degrees', (strings, low, high) => {
  const interval = planeInterval(strings as unknown as Plane, FULL_SIZE);
  expect(interval.low).toBeCloseTo(low, 0);
  expect(Math.abs(interval.low - low)).toBeLessThan(0.06);
  expect(Math.abs(interval.high - high)).toBeLessThan(0.06);
});

test('strings swept over are those strictly between', () => {
  expect(skippedStrings(['E'], ['D'])).toBe(1);
  expect(skippedStrings(['G'], ['E'])).toBe(2);
  expect(skippedStrings(['D'], ['D', 'A'])).toBe(0);
  expect(skippedStrings(['G', 'D'], ['E'])).toBe(1);
});

/** Least turning by dynamic programming over every interval edge: an optimum always lies on edges. */
function bruteTurning(intervals: readonly Interval[]): number {
  const points = [...new Set(intervals.flatMap(({ low, high }) => [low, high]))];
  let cost = new Map<number, number>();
  for (const [i, { low, high }] of intervals.entries()) {
    const next = new Map<number, number>();
    for (const point of points) {
      if (point < low || point > high) continue;
      const best = i === 0 ? 0 : Math.min(...[...cost].map(([from, sum]) => sum + Math.abs(from - point)));
      next.set(point, best);
    }
    cost = next;
  }
  return Math.min(...cost.values());
}

test('the arm path turns as little as the best of all paths over interval edges', () => {
  for (let seed = 1; seed <= 200; seed++) {
    const random = seeded(seed);
    const intervals = Array.from({ length: 2 + Math.floor(random() * 12) }, () => {
      const low = Math.round(random() * 60 - 30);
      return { low, high: low + 2 + Math.round(random() * 14) };
    });
    const path = armPath(intervals);
    for (const [i, { low, high }] of intervals.entries()) {
      expect(path[i]).toBeGreaterThanOrEqual(low);
      expect(path[i]).toBeLessThanOrEqual(high);
    }
    expect([seed, turning(path)]).toEqual([seed, bruteTurning(intervals)]);
  }
});

test('the arm path turns as little as a linear program finds', async () => {
  const solver = await highs();
  for (let seed = 1; seed <= 40; seed++) {
    const random = seeded(seed + 1000);
    const intervals = Array.from({ length: 2 + Math.floor(random() * 30) }, () => {
      const low = Math.round(random() * 600 - 300) / 10;
      return { low, high: low + Math.round(random() * 160) / 10 };
    });
    const steps = intervals.slice(1).map((_, i) => i);
    const program = [
      `Minimize obj: ${steps.map((i) => `t${i}`).join(' + ')}`,
      'Subject To',
      ...steps.flatMap((i) => [`t${i} - a${i + 1} + a${i} >= 0`, `t${i} + a${i + 1} - a${i} >= 0`]),
      'Bounds',
      ...intervals.map(({ low, high }, i) => `${low} <= a${i} <= ${high}`),
      'End',
    ].join('\n');
    const { ObjectiveValue } = solver.solve(program);
    expect([seed, turning(armPath(intervals))]).toEqual([seed, expect.closeTo(ObjectiveValue, 6)]);
  }
});

test('the arm waits as long as it can, stops at the near edge, and starts nearest to what will move it', () => {
  const d = planeInterval(['D'], FULL_SIZE);
  const a = planeInterval(['A'], FULL_SIZE);
  const path = armPath([d, d, a, a]);
  expect(path).toEqual([d.high, d.high, a.low, a.low]);
});

test('an arm that prepares lies at the edge nearest the next string while the last one sounds', () => {
  const [d, a, e] = (['D', 'A', 'E'] as const).map((place) => planeInterval([place], FULL_SIZE));
  expect(preparedPath([d!, d!, a!, a!, e!])).toEqual([d!.high, d!.high, a!.high, a!.high, e!.low]);
  expect(preparedPath([a!, d!, a!])).toEqual([a!.low, d!.high, a!.low]);
});

test('all paths of least turning turn as much, on 300 random ways over strings and pairs', () => {
  for (let seed = 1; seed <= 300; seed++) {
    const random = seeded(seed);
    const planes: Plane[] = [['G'], ['D'], ['A'], ['E'], ['G', 'D'], ['D', 'A'], ['A', 'E']];
    const intervals = Array.from({ length: 2 + Math.floor(random() * 20) }, () =>
      planeInterval(planes[Math.floor(random() * planes.length)]!, FULL_SIZE),
    );
    const [late, early] = [armPath(intervals), preparedPath(intervals)];
    expect(turning(early)).toBeCloseTo(turning(late), 9);
    for (const [i, { low, high }] of intervals.entries()) {
      expect(early[i]!).toBeGreaterThanOrEqual(low);
      expect(early[i]!).toBeLessThanOrEqual(high);
    }
  }
});

describe('classes of crossings', () => {
  function plan(
    line: string,
    planes: Plane[],
    links: [string, Link][] = [],
    start: Direction = 'down',
    school: Schools['arm'] = 'early',
  ) {
    const t = setLinks(tune([part('A', line)]), new Map(links));
    const { notes } = unroll(t);
    return armPlan(notes, bowNotes(notes, start), planes, FULL_SIZE, school);
  }

  test('an oval is natural when the lower-pitched string is drawn down, else reverse', () => {
    const down = plan('D4 A4 D4', [['D'], ['A'], ['D']]);
    expect(down.crossings.map((c) => c?.oval ?? null)).toEqual([null, 'natural', 'natural']);
    const up = plan('D4 A4 D4', [['D'], ['A'], ['D']], [], 'up');
    expect(up.crossings.map((c) => c?.oval ?? null)).toEqual([null, 'reverse', 'reverse']);
  });

  test('a crossing at a rest, a hook or a retake is free, one in a slur has no oval', () => {
    const free = plan(
      'D4 z A4 D4 A4',
      [['D'], ['A'], ['D'], ['A']],
      [
        ['A4', 'retake'],
        ['A5', 'hook'],
      ],
    );
    expect(free.sums).toMatchObject({ free: 3, naturalOvals: 0, reverseOvals: 0 });
    const slurred = plan('D4 A4', [['D'], ['A']], [['A2', 'slur']]);
    expect(slurred.sums).toMatchObject({ inSlur: 1, adjacent: 1, free: 0 });
  });

  test('ovals and free crossings make all crossings that are not in a slur', () => {
    const { sums } = plan('D4 A4 E5 D4 G3 A4', [['D'], ['A'], ['E'], ['D'], ['G'], ['A']], [['A3', 'slur']]);
    expect(sums.naturalOvals + sums.reverseOvals + sums.free).toBe(sums.adjacent + sums.skip - sums.inSlur);
    expect(sums).toMatchObject({ adjacent: 3, skip: 2, inSlur: 1 });
  });

  test('degrees are those between the planes bowed: 15.7 to a neighbour, half to a pair, 31.5 over a string', () => {
    const { crossings } = plan('D4 A4 E5 D4', [['D'], ['D', 'A'], ['E'], ['A']]);
    expect(crossings.map((c) => c && Number(c.degrees.toFixed(1)))).toEqual([null, 7.9, 23.6, 15.7]);
  });

  test('what is left to turn at a crossing is the room between, all since the last turn, or the whole way', () => {
    const turns = (school: Schools['arm']) =>
      plan('D4 A4 E5 A4 D4 E5', [['D'], ['A'], ['E'], ['A'], ['D'], ['E']], [], 'down', school).crossings.map(
        (c) => c && Number(c.turnDegrees.toFixed(1)),
      );
    expect(turns('early')).toEqual([null, 2, 2, 2, 2, 17.7]);
    expect(turns('late')).toEqual([null, 2, 15.7, 2, 15.7, 17.7]);
    expect(turns('middle')).toEqual([null, 15.7, 15.7, 15.7, 15.7, 31.5]);
  });

  test('the naive path goes through the middles and never turns less', () => {
    const { sums } = plan('D4 A4 D4 A4', [['D'], ['A'], ['D'], ['A']]);
    expect(sums.armDegreesNaive).toBeCloseTo(3 * neighbourAngle(FULL_SIZE), 9);
    expect(sums.armDegrees).toBeCloseTo(3 * 2, 9);
    expect(planeAngle(['D', 'A'], FULL_SIZE)).toBe(0);
  });
});
