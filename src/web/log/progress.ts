import { differenceInCalendarDays, parseISO } from 'date-fns';
import type { SpanDay } from '#contract/log';
import type { PracticeSpan } from '#contract/practice';
import type { BestOfDay } from '#core/forecast';

/** A stretch of a tune over its days of practice. */
export interface SpanProgress {
  readonly span: PracticeSpan;
  /** The oldest first. */
  readonly days: readonly SpanDay[];
  readonly minutes: number;
  /** Minutes spent until the end of each day on which something came out clean, with the quickest of it. */
  readonly best: readonly BestOfDay[];
}

/** Stretches of a tune, those with most minutes first. */
export function spansOf(days: readonly SpanDay[]): SpanProgress[] {
  const bySpan = new Map<string, SpanDay[]>();
  for (const day of days) {
    const { part, from, to } = day.span;
    const key = `${part} ${from} ${to}`;
    bySpan.set(key, [...(bySpan.get(key) ?? []), day]);
  }
  return [...bySpan.values()]
    .map((own): SpanProgress => {
      const sorted = [...own].sort((a, b) => a.day.localeCompare(b.day));
      let minutes = 0;
      const best: BestOfDay[] = [];
      for (const { minutes: spent, cleanBpm } of sorted) {
        minutes += spent;
        if (cleanBpm !== null) best.push({ minutes, bpm: cleanBpm });
      }
      return { span: sorted[0]!.span, days: sorted, minutes, best };
    })
    .sort((a, b) => b.minutes - a.minutes);
}

/** Days that are looked at to see how much is practised a day. */
const RECENT_DAYS = 21;

/** Minutes on a stretch on a day of practice, of late; in whole ones, at least one. */
export function minutesADay({ days }: Pick<SpanProgress, 'days'>, now: Date): number {
  const recent = days.filter(({ day }) => differenceInCalendarDays(now, parseISO(day)) <= RECENT_DAYS);
  const looked = recent.length > 0 ? recent : days;
  if (looked.length === 0) return 1;
  return Math.max(1, Math.round(looked.reduce((sum, { minutes }) => sum + minutes, 0) / looked.length));
}
