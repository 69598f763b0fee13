import { type Card, createEmptyCard, fsrs, type Grade, Rating } from 'ts-fsrs';
import type { SpanDay } from '#contract/log';

/** Days are what counts: nothing comes back within one. */
const SCHEDULER = fsrs({ enable_short_term: false });

/** How a day went: missed to the end, clean after misses, clean, clean at the tempo wanted. */
export function gradeOf({ attempts, clean, endedClean, cleanBpm, wishBpm }: SpanDay): Grade {
  if (!endedClean || clean === 0) return Rating.Again;
  if (clean < attempts) return Rating.Hard;
  return cleanBpm !== null && cleanBpm >= wishBpm ? Rating.Easy : Rating.Good;
}

const noon = (day: string) => new Date(`${day}T12:00:00`);

/** A stretch as spaced repetition has it after its days, the oldest first; null: it was never practised. */
export function cardOf(days: readonly SpanDay[]): Card | null {
  const [first] = days;
  if (!first) return null;
  return days.reduce<Card>(
    (card, day) => SCHEDULER.next(card, noon(day.day), gradeOf(day)).card,
    createEmptyCard(noon(first.day)),
  );
}

/** Whether its day has come, and the chance that it is still known. */
export function reviewOf(
  days: readonly SpanDay[],
  now: Date,
): { readonly isDue: boolean; readonly recall: number } | null {
  const card = cardOf(days);
  if (!card) return null;
  const endOfToday = new Date(now);
  endOfToday.setHours(23, 59, 59, 999);
  return { isDue: card.due <= endOfToday, recall: SCHEDULER.get_retrievability(card, now, false) };
}
