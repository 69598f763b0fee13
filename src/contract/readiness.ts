import { z } from 'zod';

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
  shown: z.record(z.string(), z.number()),
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
