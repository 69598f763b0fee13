import { type Place, PLACES } from '#core/tune';

/** A day of the calendar: `2026-11-25`. */
type Day = string;

/** What was played on a day, in minutes. */
export interface PlayedDay {
  readonly day: Day;
  readonly minutes: number;
}

/** A string in use. */
export interface StringInUse {
  readonly fittedOn: Day | null;
  /** Hours that were on it on `hoursOn`, or altogether where no day is known. */
  readonly hours: number;
  readonly hoursOn: Day | null;
}

/** The gap between hair and stick, as it was measured, and at which tempo it was played with. */
export interface HairGap {
  readonly mm: number;
  readonly bpm: number | null;
}

/** After how much the player wants to be reminded; null: never. Usual figures are guesses: strings and players differ. */
export interface UpkeepIntervals {
  readonly stringHours: number | null;
  readonly stringMonths: number | null;
  readonly rosinHours: number | null;
  readonly rehairHours: number | null;
  readonly rehairMonths: number | null;
  /** How far a gap may lie off what the player uses at such a tempo. */
  readonly gapMm: number | null;
}

export const USUAL_INTERVALS: UpkeepIntervals = {
  stringHours: 200,
  stringMonths: 12,
  rosinHours: 4,
  rehairHours: 200,
  rehairMonths: 12,
  gapMm: 1.5,
};

/** A fiddle and its bow as far as they wear. */
export interface Upkeep {
  readonly strings: readonly StringInUse[];
  readonly rosinedOn: Day | null;
  readonly rehairedOn: Day | null;
  /** The oldest first. */
  readonly hairGaps: readonly HairGap[];
  readonly intervals: UpkeepIntervals;
}

/** What is due, with its figures. */
export type Due =
  | { readonly what: 'string-hours'; readonly place: Place; readonly hours: number; readonly after: number }
  | { readonly what: 'string-age'; readonly place: Place; readonly months: number; readonly after: number }
  | { readonly what: 'rosin' | 'rehair-hours'; readonly hours: number; readonly after: number }
  | { readonly what: 'rehair-age'; readonly months: number; readonly after: number }
  | {
      readonly what: 'gap';
      readonly mm: number;
      readonly usual: readonly [number, number];
      readonly bpm: number | null;
    };

const MONTH_MS = 30.44 * 86_400_000;
/** Tempos so near, as a share, are played with the same gap. A guess. */
const SAME_TEMPO = 0.15;

/** Hours played from a day on; the day itself counts where it is the first of use, not where something was done on it. */
export function hoursSince(played: readonly PlayedDay[], since: Day, withTheDay: boolean): number {
  return (
    played.reduce((sum, { day, minutes }) => sum + (day > since || (withTheDay && day === since) ? minutes : 0), 0) / 60
  );
}

/** Hours on a string: those that were on it, and what was logged since. */
export function stringHours({ fittedOn, hours, hoursOn }: StringInUse, played: readonly PlayedDay[]): number {
  if (hoursOn !== null) return hours + hoursSince(played, hoursOn, false);
  // A string without hours of its own has those since it was fitted.
  return hours === 0 && fittedOn !== null ? hoursSince(played, fittedOn, true) : hours;
}

/** What is due by what was played and the player's own intervals: strings, hair and rosin, in this order. Time O(n). */
export function upkeepDue(
  { strings, rosinedOn, rehairedOn, hairGaps, intervals }: Upkeep,
  played: readonly PlayedDay[],
  now: number,
): Due[] {
  const due: Due[] = [];
  const monthsSince = (day: Day) => (now - Date.parse(day)) / MONTH_MS;
  for (const [i, string] of strings.entries()) {
    const place = PLACES[i]!;
    const hours = stringHours(string, played);
    const months = string.fittedOn === null ? 0 : monthsSince(string.fittedOn);
    if (intervals.stringHours !== null && hours >= intervals.stringHours)
      due.push({ what: 'string-hours', place, hours, after: intervals.stringHours });
    else if (intervals.stringMonths !== null && months >= intervals.stringMonths)
      due.push({ what: 'string-age', place, months, after: intervals.stringMonths });
  }
  if (rehairedOn !== null) {
    const hours = hoursSince(played, rehairedOn, false);
    const months = monthsSince(rehairedOn);
    if (intervals.rehairHours !== null && hours >= intervals.rehairHours)
      due.push({ what: 'rehair-hours', hours, after: intervals.rehairHours });
    else if (intervals.rehairMonths !== null && months >= intervals.rehairMonths)
      due.push({ what: 'rehair-age', months, after: intervals.rehairMonths });
  }
  const gap = intervals.gapMm === null ? null : gapOff(hairGaps, intervals.gapMm);
  if (gap) due.push(gap);
  if (rosinedOn !== null && intervals.rosinHours !== null) {
    const hours = hoursSince(played, rosinedOn, false);
    if (hours >= intervals.rosinHours) due.push({ what: 'rosin', hours, after: intervals.rosinHours });
  }
  return due;
}

/** Whether the last gap lies off those that were measured at such a tempo before; without tempos, off all of them. */
function gapOff(gaps: readonly HairGap[], off: number): Due | null {
  const last = gaps[gaps.length - 1];
  if (!last) return null;
  const alike = gaps
    .slice(0, -1)
    .filter(({ bpm }) => last.bpm === null || (bpm !== null && Math.abs(bpm / last.bpm - 1) <= SAME_TEMPO));
  if (alike.length === 0) return null;
  const usual = [Math.min(...alike.map(({ mm }) => mm)), Math.max(...alike.map(({ mm }) => mm))] as const;
  const isOff = last.mm <= usual[0] - off || last.mm >= usual[1] + off;
  return isOff ? { what: 'gap', mm: last.mm, usual, bpm: last.bpm } : null;
}
