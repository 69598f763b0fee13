import { z } from 'zod';
import type { KindAbility, LearntAbility } from '#core/ability';
import { EVENT_KINDS, type EventKind } from '#core/tempo';
import { route } from './route';

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

const kindAbilitySchema: z.ZodType<KindAbility> = z.object({
  mean: z.number(),
  low: z.number(),
  high: z.number(),
  attempts: z.int(),
});
const learntSchema: z.ZodType<LearntAbility> = z.object({
  kinds: z.array(kind),
  mean: z.array(z.number()),
  draws: z.array(z.array(z.number())),
});

/** What the log says of the player, as it was last learnt. */
export const playerAbilitySchema = z.object({
  /** Attempts that say something, and the day of the first. */
  attempts: z.int(),
  since: z.iso.date().nullable(),
  kinds: z.partialRecord(kind, kindAbilitySchema) as z.ZodType<Partial<Record<EventKind, KindAbility>>>,
  learnt: learntSchema,
  /** The best figure of each skill that came out clean. */
  shown: z.record(z.string(), z.number()),
});
export type PlayerAbility = z.output<typeof playerAbilitySchema>;

export const NO_ABILITY: PlayerAbility = {
  attempts: 0,
  since: null,
  kinds: {},
  learnt: { kinds: [], mean: [], draws: [] },
  shown: {},
};

export const abilityRecordSchema = z.object({
  ability: playerAbilitySchema,
  /** Whether it is of the log, the plans and the limits as they are now. */
  isCurrent: z.boolean(),
  /** Tunes whose own ceiling is still to be counted. */
  left: z.int(),
});
export type AbilityRecord = z.output<typeof abilityRecordSchema>;

export const abilityRoutes = {
  findAbility: route({ method: 'GET', path: '/api/ability', answer: abilityRecordSchema }),
};
