import { hoursSince, type PlayedDay, stringHours, type Upkeep, upkeepDue, USUAL_INTERVALS } from './upkeep';

const NOW = Date.parse('2026-11-25T12:00:00Z');
const none = { fittedOn: null, hours: 0, hoursOn: null };
const upkeep = (more: Partial<Upkeep> = {}): Upkeep => ({
  strings: [none, none, none, none],
  rosinedOn: null,
  rehairedOn: null,
  hairGaps: [],
  intervals: USUAL_INTERVALS,
  ...more,
});
/** An hour a day through November. */
const played: PlayedDay[] = Array.from({ length: 24 }, (_, i) => ({
  day: `2026-11-${String(i + 1).padStart(2, '0')}`,
  minutes: 60,
}));

test('hours are those logged since, the day itself only where it is the first of use', () => {
  expect(hoursSince(played, '2026-11-20', false)).toBe(4);
  expect(hoursSince(played, '2026-11-20', true)).toBe(5);
  expect(stringHours({ fittedOn: '2026-11-20', hours: 0, hoursOn: null }, played)).toBe(5);
  // Hours told on a day have those played since added; hours of no day stay as they were told.
  expect(stringHours({ fittedOn: null, hours: 150, hoursOn: '2026-11-14' }, played)).toBe(160);
  expect(stringHours({ fittedOn: '2025-01-01', hours: 150, hoursOn: null }, played)).toBe(150);
});

test('nothing that is not known is due, and nothing whose reminder is turned off', () => {
  expect(upkeepDue(upkeep(), played, NOW)).toEqual([]);
  const off = Object.fromEntries(Object.keys(USUAL_INTERVALS).map((name) => [name, null])) as never;
  const worn = upkeep({
    strings: [{ fittedOn: '2020-01-01', hours: 900, hoursOn: null }],
    rosinedOn: '2026-11-01',
    rehairedOn: '2020-01-01',
    hairGaps: [
      { mm: 9, bpm: null },
      { mm: 5, bpm: null },
    ],
  });
  expect(upkeepDue({ ...worn, intervals: off }, played, NOW)).toEqual([]);
  expect(upkeepDue(worn, played, NOW).map(({ what }) => what)).toEqual(['string-hours', 'rehair-age', 'gap', 'rosin']);
});

test('a string is spoken of by its hours, else by its months, at the player’s own figures', () => {
  const strings = [
    { fittedOn: '2025-10-01', hours: 10, hoursOn: null },
    { fittedOn: null, hours: 195, hoursOn: '2026-11-10' },
  ];
  expect(upkeepDue(upkeep({ strings }), played, NOW)).toEqual([
    { what: 'string-age', place: 'G', months: expect.closeTo(13.8, 1), after: 12 },
    { what: 'string-hours', place: 'D', hours: 209, after: 200 },
  ]);
  const patient = { ...USUAL_INTERVALS, stringHours: 300, stringMonths: 24 };
  expect(upkeepDue(upkeep({ strings, intervals: patient }), played, NOW)).toEqual([]);
});

test('rosin and hair go by the hours logged since', () => {
  const due = upkeepDue(upkeep({ rosinedOn: '2026-11-20', rehairedOn: '2026-11-01' }), played, NOW);
  expect(due).toEqual([{ what: 'rosin', hours: 4, after: 4 }]);
  const soon = { ...USUAL_INTERVALS, rehairHours: 20 };
  expect(upkeepDue(upkeep({ rehairedOn: '2026-11-01', intervals: soon }), played, NOW)[0]).toMatchObject({
    what: 'rehair-hours',
    hours: 23,
  });
});

test('a hair gap is held against those used at such a tempo, not against those of slower or quicker tunes', () => {
  const gaps = [
    { mm: 6, bpm: 60 },
    { mm: 8, bpm: 110 },
    { mm: 8.5, bpm: 115 },
  ];
  const dueWith = (mm: number, bpm: number | null) =>
    upkeepDue(upkeep({ hairGaps: [...gaps, { mm, bpm }] }), [], NOW)[0];
  expect(dueWith(6.2, 112)).toEqual({ what: 'gap', mm: 6.2, usual: [8, 8.5], bpm: 112 });
  expect(dueWith(6.2, 62)).toBeUndefined();
  // Of another tempo nothing is known.
  expect(dueWith(6.2, 200)).toBeUndefined();
  expect(dueWith(4, null)).toMatchObject({ usual: [6, 8.5] });
});
