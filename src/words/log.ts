import type { AttemptKind, Wrong } from '#contract/log';

/** What minutes were spent on. */
export const WHAT_WORDS: Readonly<Record<AttemptKind, string>> = {
  bite: 'bites',
  cell: 'steps taken apart',
  join: 'joins',
  drill: 'drills',
  'run-through': 'the whole tune',
  'warm-up': 'warming up',
};

/** What went wrong, as it is counted. */
export const WRONG_WORDS: Readonly<Record<Wrong, string>> = {
  bow: 'the bow',
  crossing: 'a crossing',
  finger: 'a finger',
  notes: 'wrong notes',
  rhythm: 'the rhythm',
  tone: 'the tone',
  memory: 'memory',
};

/** `34 minutes`, `2 h 5 min`, `under a minute`. */
export function minutesWords(minutes: number): string {
  const whole = Math.round(minutes);
  if (whole < 1) return 'under a minute';
  if (whole < 90) return whole === 1 ? '1 minute' : `${whole} minutes`;
  const rest = whole % 60;
  return `${Math.floor(whole / 60)} h${rest > 0 ? ` ${rest} min` : ''}`;
}
