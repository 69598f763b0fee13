import { z } from 'zod';
import { WAYS } from '#core/drills';
import { LADDER_GUESSES, PRACTICE_LAYERS } from '#core/practice';

/** Most clean ones in a row that a ladder waits for: one school asks for six. */
const MOST_CLEAN = 6;
export const CLEAN_IN_A_ROW = Array.from({ length: MOST_CLEAN }, (_, i) => i + 1);
export const STEP_PERCENTS = [3, 4, 5, 6];
export const CAP_MINUTES = [2, 4, 8, 15];

const choicesSchema = z.object({
  layer: z.enum(PRACTICE_LAYERS),
  way: z.enum(WAYS),
  cleanInARow: z.int().min(1).max(MOST_CLEAN),
  stepPercent: z.int().min(3).max(6),
  capMinutes: z.int().min(1).max(60),
});
/** How a run is done: in which layer and way, and how its ladder climbs. */
export type RunChoices = z.infer<typeof choicesSchema>;

const USUAL: RunChoices = { layer: 'tempo', way: 'bowed', ...LADDER_GUESSES };
const KEY = 'morrin.run';

/** As they were chosen last; layer and way are those of the tune at hand, and begin anew. */
export function readRunChoices(): RunChoices {
  try {
    return { ...choicesSchema.parse(JSON.parse(localStorage.getItem(KEY) ?? 'null')), layer: 'tempo', way: 'bowed' };
  } catch {
    return USUAL;
  }
}

export function writeRunChoices(choices: RunChoices): void {
  try {
    localStorage.setItem(KEY, JSON.stringify(choices));
  } catch {
    // Without storage they hold until the page is left.
  }
}
