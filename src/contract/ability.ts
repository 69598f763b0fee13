import { z } from 'zod';
import { EVENT_KINDS } from '#core/tempo';

const kind = z.enum(EVENT_KINDS);

/** What a log says of a player: by how much better than the limits, as natural logarithms, and the ceilings that follow. */
export const abilityJsonSchema = z.object({
  kinds: z.partialRecord(
    kind,
    z.object({
      mean: z.number(),
      low: z.number().describe('10 %'),
      high: z.number().describe('90 %'),
      attempts: z.int(),
      limitMs: z.number().describe('the limit that is learnt'),
    }),
  ),
  tunes: z.array(
    z.object({
      title: z.string(),
      ceiling: z.object({ median: z.number(), low: z.number(), high: z.number() }).nullable(),
      binds: z.partialRecord(kind, z.number()),
    }),
  ),
});
export type AbilityJson = z.output<typeof abilityJsonSchema>;

export const forecastJsonSchema = z.union([
  z.object({
    days: z
      .object({ p10: z.number(), p50: z.number(), p90: z.number() })
      .nullable()
      .describe('null: it does not come to that'),
    never: z.number(),
    from: z.object({ days: z.int(), minutes: z.number() }),
  }),
  z.object({ tooLittle: z.string() }),
]);
export type ForecastJson = z.output<typeof forecastJsonSchema>;
