import type { LogSum } from '#contract/log';
import { daysOf, minutesByAspect, timesWrong, tunesOf } from './sums';

const sum = (more: Partial<LogSum> = {}): LogSum => ({
  day: '2026-03-02',
  tuneId: '00000000-0000-4000-9000-000000000001',
  title: 'A reel',
  what: 'bite',
  drill: null,
  wrong: null,
  attempts: 4,
  clean: 4,
  cleanBpm: 80,
  minutes: 5,
  ...more,
});
const OTHER = '00000000-0000-4000-9000-000000000002';

test('a day adds up what was played of each tune; a drill’s tempo is not the tune’s', () => {
  const [day, before] = daysOf([
    sum(),
    sum({ wrong: 'crossing', attempts: 2, clean: 0, cleanBpm: null, minutes: 2 }),
    sum({ what: 'drill', drill: 'hop', cleanBpm: 200, minutes: 3 }),
    sum({ day: '2026-03-01', tuneId: OTHER, title: 'A jig' }),
  ]);
  expect(day).toEqual({
    day: '2026-03-02',
    minutes: 10,
    tunes: [{ tuneId: sum().tuneId, title: 'A reel', attempts: 10, clean: 8, cleanBpm: 80, minutes: 10 }],
  });
  expect(before!.day).toBe('2026-03-01');
});

test('minutes by what they were spent on, and what went wrong how often, the most first', () => {
  const sums = [
    sum(),
    sum({ what: 'drill', drill: 'hop', minutes: 9 }),
    sum({ wrong: 'bow', attempts: 1 }),
    sum({ wrong: 'crossing', attempts: 3 }),
  ];
  expect(minutesByAspect(sums)).toEqual([
    { of: 'bite', amount: 15 },
    { of: 'drill', amount: 9 },
  ]);
  expect(timesWrong(sums)).toEqual([
    { of: 'crossing', amount: 3 },
    { of: 'bow', amount: 1 },
  ]);
});

test('tunes are those of the log, the one played last first, by the title they had then', () => {
  const sums = [
    sum({ title: 'A reel, renamed' }),
    sum({ day: '2026-03-01', tuneId: OTHER, title: 'A jig' }),
    sum({ day: '2026-03-01' }),
  ];
  expect(tunesOf(sums).map(({ title }) => title)).toEqual(['A reel, renamed', 'A jig']);
});
