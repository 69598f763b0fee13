import { z } from 'zod';
import { tuneSchema } from '#formats/json';

/** A version of a tune under a name of its own. */
export const tuneVersionSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  createdAt: z.iso.datetime(),
  tune: tuneSchema,
});
export type TuneVersion = z.output<typeof tuneVersionSchema>;

export const tuneVersionsSchema = z.object({ versions: z.array(tuneVersionSchema) });

/** Most versions that a tune may have. */
export const MOST_VERSIONS = 100;

export const nameVersionSchema = z.object({
  name: z.string().trim().min(1, 'a version has a name').max(120, 'at most 120 characters'),
  tune: tuneSchema,
});
