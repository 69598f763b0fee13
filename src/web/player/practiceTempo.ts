import { z } from 'zod';

/** How fast a tune is heard, in percent of the tempo wanted. It belongs to the ear: the plan knows nothing of it. */
export const PRACTICE = { min: 25, max: 125, step: 5, goal: 100 } as const;

/** Tunes whose practice tempo is remembered. */
const MAX_TUNES = 200;
const KEY = 'morrin.practice';
const percent = z.number().min(PRACTICE.min).max(PRACTICE.max);
const keptSchema = z.array(z.tuple([z.string(), percent])).max(MAX_TUNES);

/** So many steps slower or faster; a percentage between two steps goes to the next one. */
export function practiceStep(now: number, steps: number): number {
  const { step } = PRACTICE;
  const from = steps > 0 ? Math.floor(now / step) : Math.ceil(now / step);
  return Math.min(PRACTICE.max, Math.max(PRACTICE.min, (from + steps) * step));
}

export function readPractice(tuneId: string): number {
  return kept().find(([id]) => id === tuneId)?.[1] ?? PRACTICE.goal;
}

export function writePractice(tuneId: string, value: number): void {
  const others = kept().filter(([id]) => id !== tuneId);
  const next = value === PRACTICE.goal ? others : [...others, [tuneId, value] as const];
  try {
    localStorage.setItem(KEY, JSON.stringify(next.slice(-MAX_TUNES)));
  } catch {
    // Without storage it holds until the page is left.
  }
}

function kept(): z.output<typeof keptSchema> {
  try {
    return keptSchema.parse(JSON.parse(localStorage.getItem(KEY) ?? '[]'));
  } catch {
    return [];
  }
}
