import { format, parseISO } from 'date-fns';

/** A day of the calendar where the player is, as records keep it: `2026-11-25`. */
type Day = string;
/** A moment, as the server keeps it: ISO 8601 with its zone. */
type Moment = string;

/** The day that the player's calendar shows. */
export function today(now: Date = new Date()): Day {
  return format(now, 'yyyy-MM-dd');
}

/** When a day begins where the player is, in milliseconds. */
export function dayBegins(day: Day): number {
  return parseISO(day).getTime();
}

/** `25 November 2026`, of a day or of the day of a moment. */
export function dayWords(at: Day | Moment): string {
  return format(parseISO(at), 'd MMMM yyyy');
}

/** `Wednesday 25 November 2026`. */
export function weekdayWords(at: Day | Moment): string {
  return format(parseISO(at), 'EEEE d MMMM yyyy');
}

/** `25 November 2026, 18:05`. */
export function momentWords(at: Moment): string {
  return format(parseISO(at), 'd MMMM yyyy, HH:mm');
}

/** `18:05`. */
export function clockWords(at: Moment): string {
  return format(parseISO(at), 'HH:mm');
}

/** `18:05:09`. */
export function timeWords(at: Moment): string {
  return format(parseISO(at), 'HH:mm:ss');
}
