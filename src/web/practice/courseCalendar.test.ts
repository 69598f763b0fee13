/** @jest-environment node */
import ICAL from 'ical.js';
import { courseCalendar } from './courseCalendar';

const EVENTS = [
  {
    title: 'Practise “Pewter Sky”, day 1',
    description: 'New: bars 1–2 of A; then, “and” again, a \\ and a ; too',
    minutes: 20,
  },
  { title: 'Practise “Pewter Sky”, day 2', description: `${'long '.repeat(60)}`, minutes: 75 },
];

test('a course is read by another reader of calendars as it was meant', () => {
  const text = courseCalendar(EVENTS, new Date('2026-03-02T09:30:00'), 18);
  const calendar = new ICAL.Component(ICAL.parse(text));
  const events = calendar.getAllSubcomponents('vevent').map((event) => new ICAL.Event(event));
  expect(events.map(({ summary, description }) => [summary, description.trim()])).toEqual(
    EVENTS.map(({ title, description }) => [title, description.trim()]),
  );
  expect(events.map(({ startDate }) => startDate.toString())).toEqual(['2026-03-02T18:00:00', '2026-03-03T18:00:00']);
  expect(events.map(({ duration }) => duration.toSeconds() / 60)).toEqual([20, 75]);
  expect(new Set(events.map(({ uid }) => uid)).size).toBe(2);
});
