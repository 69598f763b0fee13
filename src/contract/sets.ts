import { z } from 'zod';
import { route } from './route';

export const MAX_SETS = 300;
export const MAX_SET_TUNES = 40;
export const MAX_TIMES = 20;
export const MAX_SET_NAME = 80;

const setTuneSchema = z.object({
  tuneId: z.uuid(),
  /** How often the whole tune is played before the next. */
  times: z.int().min(1, 'expected 1 or more').max(MAX_TIMES, `expected at most ${MAX_TIMES} times through`),
});
export type SetTune = z.output<typeof setTuneSchema>;

const setSchema = z.object({
  id: z.uuid(),
  name: z
    .string()
    .trim()
    .min(1, 'a set has a name')
    .max(MAX_SET_NAME, `expected a name of at most ${MAX_SET_NAME} letters`),
  tunes: z.array(setTuneSchema).max(MAX_SET_TUNES, `at most ${MAX_SET_TUNES} tunes make a set`),
});
/** Tunes that are played one after another, in the player's own order. */
export type TuneSet = z.output<typeof setSchema>;

export const setsSchema = z
  .object({ sets: z.array(setSchema).max(MAX_SETS, `at most ${MAX_SETS} sets are kept`) })
  .refine(({ sets }) => new Set(sets.map(({ id }) => id)).size === sets.length, {
    path: ['sets'],
    message: 'expected each set once',
  });
export type Sets = z.output<typeof setsSchema>;

export const NO_SETS: Sets = { sets: [] };

/** How often a tune of a new set is played: most dances take it so. */
export const USUAL_TIMES = 3;

export function newSet(id: string, name: string, tuneIds: readonly string[] = []): TuneSet {
  return { id, name, tunes: tuneIds.slice(0, MAX_SET_TUNES).map((tuneId) => ({ tuneId, times: USUAL_TIMES })) };
}

/** A name that no set has yet: `New set`, `New set 2`. */
export function freeName({ sets }: Sets, name = 'New set'): string {
  const names = new Set(sets.map((set) => set.name));
  let free = name;
  for (let i = 2; names.has(free); i++) free = `${name} ${i}`;
  return free;
}

/** 0: nothing is kept yet. */
export const setsRecordSchema = z.object({ revision: z.int().min(0), sets: setsSchema });
export type SetsRecord = z.output<typeof setsRecordSchema>;

export const savedSetsSchema = z.object({ revision: z.int().min(1) });
export type SavedSets = z.output<typeof savedSetsSchema>;

export const setsRoutes = {
  findSets: route({ method: 'GET', path: '/api/sets', answer: setsRecordSchema }),
  saveSets: route({
    method: 'PUT',
    path: '/api/sets',
    body: z.object({ baseRevision: z.int().min(0), sets: setsSchema }),
    answer: savedSetsSchema,
    errors: ['stale-save'],
  }),
};
