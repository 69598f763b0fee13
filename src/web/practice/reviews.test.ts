import { addDays, format } from 'date-fns';
import { Rating } from 'ts-fsrs';
import type { SpanDay } from '#contract/log';
import { cardOf, gradeOf, reviewOf } from './reviews';

const day = (more: Partial<SpanDay> = {}): SpanDay => ({
  tuneId: '00000000-0000-4000-8000-000000000099',
  title: 'A reel',
  span: { part: 'A', from: 'n1', to: 'n8' },
  day: '2026-03-02',
  attempts: 4,
  clean: 4,
  endedClean: true,
  cleanBpm: 90,
  wishBpm: 109,
  minutes: 2,
  ...more,
});

test.each([
  ['missed to the end', { clean: 2, endedClean: false }, Rating.Again],
  ['clean after misses', { clean: 2 }, Rating.Hard],
  ['clean', {}, Rating.Good],
  ['clean at the tempo wanted', { cleanBpm: 110 }, Rating.Easy],
])('a day that was %s', (_how, more, grade) => {
  expect(gradeOf(day(more))).toBe(grade);
});

test('what went well comes back later than what was missed', () => {
  const due = (more: Partial<SpanDay>) => cardOf([day(more)])!.due.getTime();
  const days = [{ endedClean: false }, { clean: 2 }, {}, { cleanBpm: 110 }].map(due);
  expect(days).toEqual([...days].sort((a, b) => a - b));
  expect(days[3]).toBeGreaterThan(days[0]!);
});

test('each clean day puts the next one farther off', () => {
  let at = new Date('2026-03-02T12:00:00');
  let days: SpanDay[] = [];
  let gap = 0;
  for (let i = 0; i < 4; i++) {
    days = [...days, day({ day: format(at, 'yyyy-MM-dd') })];
    const { due } = cardOf(days)!;
    const next = Math.round((due.getTime() - at.getTime()) / 86_400_000);
    expect(next).toBeGreaterThan(gap);
    gap = next;
    at = addDays(at, next);
  }
});

test('on the day nothing is due, after long it is, and less is recalled', () => {
  const days = [day()];
  const today = reviewOf(days, new Date('2026-03-02T20:00:00'))!;
  const later = reviewOf(days, new Date('2026-06-01T20:00:00'))!;
  expect([today.isDue, later.isDue]).toEqual([false, true]);
  expect(later.recall).toBeLessThan(today.recall);
  expect(reviewOf([], new Date())).toBeNull();
});
