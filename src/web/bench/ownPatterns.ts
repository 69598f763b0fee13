import { z } from 'zod';
import type { Pattern } from '#core/bowing';
import type { Meter } from '#core/tune';

const KEY = 'morrin.patterns';
/** Most strokes of a pattern and most units of a stroke. */
const MAX_SLOTS = 24;
const MAX_UNITS = 16;
const MAX_KEPT = 40;

const slotsSchema = z.array(z.int().min(1).max(MAX_UNITS)).min(1).max(MAX_SLOTS);
const keptSchema = z
  .array(z.object({ slots: slotsSchema, meter: z.object({ num: z.int().min(1), den: z.int().min(1) }) }))
  .max(MAX_KEPT);

/** Reads strokes typed in grid units, `2 1 1`; null where they are none. */
export function readSlots(text: string): number[] | null {
  const words = text.trim().split(/[\s,]+/);
  return words.every((word) => /^\d{1,2}$/.test(word)) ? (slotsSchema.safeParse(words.map(Number)).data ?? null) : null;
}

export function ownPattern(slots: readonly number[], { num, den }: Meter): Pattern {
  return { name: `own ${slots.join(' ')}`, slots, meter: { num, den }, runsOn: false, lead: 0 };
}

/** The player's own patterns, kept in this browser; what cannot be read is as good as none. */
export function readOwnPatterns(): readonly Pattern[] {
  try {
    const kept = keptSchema.safeParse(JSON.parse(localStorage.getItem(KEY) ?? '[]')).data ?? [];
    return kept.map(({ slots, meter }) => ownPattern(slots, meter as Meter));
  } catch {
    return [];
  }
}

export function keepOwnPatterns(patterns: readonly Pattern[]): void {
  try {
    const kept = patterns.slice(0, MAX_KEPT).map(({ slots, meter }) => ({ slots, meter }));
    localStorage.setItem(KEY, JSON.stringify(kept));
  } catch {
    // Without storage they hold for this visit.
  }
}
