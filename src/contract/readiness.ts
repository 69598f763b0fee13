import { z } from 'zod';
import { route } from './route';
import { tuneIdSchema } from './tunes';

const demandsSchema = z.object({
  tempo: z.number(),
  beat: z.string(),
  strokesPerSecond: z.number(),
  crossingsPerSecond: z.number(),
  widestAngle: z.number(),
  twoStringShare: z.number(),
  shifts: z.int(),
  barres: z.int(),
  doublings: z.int(),
  ornaments: z.record(z.string(), z.int()),
  widestSpanMm: z.number(),
});

/** What `readiness FILE --json` prints: the tune's demands, the best that the log shows of each skill, and what lies between. */
export const readinessJsonSchema = z.object({
  demands: demandsSchema,
  shown: demandsSchema.describe('the best of each that came out clean'),
  missing: z.array(
    z.object({
      skill: z.string(),
      needs: z.string(),
      shown: z.string(),
      drill: z.string().nullable(),
    }),
  ),
  steppingStones: z.array(z.string()),
  /** Whether they lead there: the book may have no tune that does. */
  isReachable: z.boolean(),
});
export type ReadinessJson = z.output<typeof readinessJsonSchema>;

/** What a tune of the book asks for, what is missing of it, and the tunes of the book that lead there. */
export const tuneReadinessSchema = z.object({
  needs: z.record(z.string(), z.number()),
  missing: z.array(z.object({ name: z.string(), needs: z.number(), shown: z.number() })),
  /** null: the book has no tunes that lead there one skill at a time. */
  stones: z
    .array(z.object({ id: z.uuid(), title: z.string(), adds: z.string().describe('the skill that it adds') }))
    .nullable(),
  /** Clean attempts are there to say it. */
  isKnown: z.boolean(),
});
export type TuneReadiness = z.output<typeof tuneReadinessSchema>;

export const readinessRoutes = {
  findReadiness: route({
    method: 'GET',
    path: '/api/tunes/:id/readiness',
    params: tuneIdSchema,
    answer: tuneReadinessSchema,
    errors: ['not-found'],
  }),
};
