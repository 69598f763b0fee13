import { addDays } from 'date-fns';
import { createEvents, type EventAttributes } from 'ics';

export interface CourseEvent {
  readonly title: string;
  readonly description: string;
  readonly minutes: number;
}

/**
 * The days of a course as an iCalendar file, one event a day from a day on, at a time of the player's own day.
 * @param hour of the day, 0 to 23
 */
export function courseCalendar(events: readonly CourseEvent[], from: Date, hour: number): string {
  const attributes = events.map(({ title, description, minutes }, i): EventAttributes => {
    const day = addDays(from, i);
    return {
      uid: `${from.getTime()}-${i}@morrin`,
      title,
      description,
      start: [day.getFullYear(), day.getMonth() + 1, day.getDate(), hour, 0],
      // A time of the day, wherever the player is.
      startInputType: 'local',
      startOutputType: 'local',
      duration: { hours: Math.floor(minutes / 60), minutes: minutes % 60 },
      productId: 'Morrin',
    };
  });
  const { error, value } = createEvents(attributes);
  if (error || !value) throw error ?? new Error('the calendar could not be written');
  return value;
}
