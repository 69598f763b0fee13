import { DRILL_KINDS, type DrillKind } from '#core/drills';
import { seeded } from '../testing/tunes';
import { courseOf, inOrder, MAX_ASPECTS, PREREQUISITES } from './course';

const random = seeded(11);
const kinds = (): DrillKind[] => DRILL_KINDS.filter(() => random() < 0.4);

test('what is learnt before a skill comes before it, and there is no circle', () => {
  for (let i = 0; i < 50; i++) {
    const own = kinds();
    const order = inOrder(own);
    expect([...order].sort()).toEqual([...own].sort());
    for (const [at, kind] of order.entries())
      for (const before of PREREQUISITES[kind] ?? [])
        if (own.includes(before)) expect(order.indexOf(before)).toBeLessThan(at);
  }
});

test('no day has more than two aspects, two new bites, or more minutes than there are', () => {
  for (let i = 0; i < 60; i++) {
    const drills = kinds().map((kind) => ({ kind, minutes: 2 + Math.floor(random() * 12) }));
    const bites = Array.from({ length: Math.floor(random() * 12) }, (_, k) => `b${k + 1}`);
    const minutesADay = 8 + Math.floor(random() * 50);
    const { days, leftDrills, leftBites } = courseOf({
      drills,
      bites,
      days: 1 + Math.floor(random() * 14),
      minutesADay,
    });
    for (const { aspects, fresh, again, minutes } of days) {
      expect(aspects.length).toBeLessThanOrEqual(MAX_ASPECTS);
      expect(fresh.length).toBeLessThanOrEqual(2);
      expect(minutes).toBeLessThanOrEqual(minutesADay);
      expect(aspects.reduce((sum, aspect) => sum + aspect.minutes, 0) + 5 * fresh.length + 3 * again.length).toBe(
        minutes,
      );
    }
    // Everything is either in the course or left.
    const given = new Map<DrillKind, number>();
    for (const { kind, minutes } of days.flatMap(({ aspects }) => aspects))
      given.set(kind, (given.get(kind) ?? 0) + minutes);
    for (const { kind, minutes } of drills)
      expect((given.get(kind) ?? 0) === minutes || leftDrills.includes(kind)).toBe(true);
    expect([...days.flatMap(({ fresh }) => fresh), ...leftBites]).toEqual(bites);
  }
});

test('a drill that is not through goes on the next day, before what comes after it', () => {
  const { days } = courseOf({
    drills: [
      { kind: 'turn-in-silence', minutes: 14 },
      { kind: 'pair-plane', minutes: 6 },
    ],
    bites: ['b1', 'b2', 'b3'],
    days: 5,
    minutesADay: 20,
  });
  expect(days[0]!.aspects).toEqual([{ kind: 'turn-in-silence', minutes: 8, goesOn: true }]);
  expect(days[1]!.aspects[0]).toEqual({ kind: 'turn-in-silence', minutes: 6, goesOn: false });
  expect(days[1]!.aspects[1]).toMatchObject({ kind: 'pair-plane', minutes: 2, goesOn: true });
  expect(days[1]!.again[0]).toBe('b2');
});
