import type { SpanDay } from '#contract/log';
import { minutesADay, spansOf } from './progress';

const day = (date: string, more: Partial<SpanDay> = {}): SpanDay => ({
  tuneId: '00000000-0000-4000-9000-000000000000',
  title: 'A reel',
  span: { part: 'A', from: 'n1', to: 'n8' },
  day: date,
  attempts: 3,
  clean: 2,
  endedClean: true,
  cleanBpm: 80,
  wishBpm: 109,
  minutes: 4,
  ...more,
});

test('minutes add up from day to day, also of days on which nothing came out clean', () => {
  const [own] = spansOf([
    day('2026-03-03', { cleanBpm: null }),
    day('2026-03-01', { cleanBpm: 70 }),
    day('2026-03-05', { cleanBpm: 84 }),
  ]);
  expect(own!.best).toEqual([
    { minutes: 4, bpm: 70 },
    { minutes: 12, bpm: 84 },
  ]);
  expect(own!.minutes).toBe(12);
});

test('stretches are told apart by their notes, the one with most minutes first', () => {
  const other = { part: 'B', from: 'n9', to: 'n16' };
  const spans = spansOf([day('2026-03-01'), day('2026-03-01', { span: other, minutes: 9 })]);
  expect(spans.map(({ span }) => span.part)).toEqual(['B', 'A']);
});

test('minutes a day are those of late, where there are any, and at least one', () => {
  const now = new Date('2026-04-10T12:00:00');
  const days = [
    day('2026-01-01', { minutes: 40 }),
    day('2026-04-08', { minutes: 6 }),
    day('2026-04-09', { minutes: 8 }),
  ];
  expect(minutesADay({ days }, now)).toBe(7);
  expect(minutesADay({ days: days.slice(0, 1) }, now)).toBe(40);
  expect(minutesADay({ days: [] }, now)).toBe(1);
});
