import { z } from 'zod';
import { DRILL_KINDS, WAYS } from '#core/drills';
import { ITEM_KINDS } from '#core/practice';
import { EVENT_KINDS } from '#core/tempo';
import { tuneSchema } from '#formats/json';

/** A stretch of a part, by the written notes it begins and ends with. */
export const spanSchema = z.object({
  part: z.string().max(40),
  from: z.string().max(40),
  to: z.string().max(40),
});
export type PracticeSpan = z.output<typeof spanSchema>;

const direction = z.enum(['down', 'up']);

/** What `practice FILE --json` prints. */
export const practiceSchema = z.object({
  title: z.string(),
  bites: z.array(
    spanSchema.extend({
      id: z.string(),
      ending: z.int().nullable(),
      notes: z.int(),
      newNotes: z.int(),
      strokes: z.int(),
      turns: z.int(),
      seconds: z.number(),
      loop: z.enum(['returns', 'flips']),
      entry: z.record(z.string(), direction),
      ceilingBpm: z.number().nullable(),
      plays: z.int(),
      share: z.number(),
    }),
  ),
  cuts: z.array(
    z.object({
      before: z.string(),
      cost: z.number(),
      taken: z.boolean(),
      terms: z.object({ place: z.number(), crossing: z.number(), flips: z.number() }),
    }),
  ),
  isNew: z.record(z.string(), z.boolean()),
  objective: z.number(),
  order: z.array(z.string()),
  coverage: z.array(z.object({ bite: z.string(), newNotes: z.int(), total: z.number() })),
  gap: z.object({
    area: z.number().describe('share of the tune that is known on average while it is learnt in this order'),
    best: z.number().describe('the most that any order reaches, or a bound on it'),
    isExact: z.boolean(),
  }),
  joins: z.array(
    z.object({
      from: z.string(),
      to: z.string(),
      crossing: z.boolean(),
      shift: z.boolean(),
      turn: z.boolean(),
      ceilingBpm: z.number().nullable(),
    }),
  ),
  ladder: z.object({ fromBpm: z.number(), steps: z.array(z.number()), toBpm: z.number() }),
  drills: z.array(
    z.object({
      kind: z.enum(DRILL_KINDS),
      because: z.object({
        by: z.string(),
        event: z.enum(EVENT_KINDS).optional(),
        note: z.string().optional(),
        figure: z.number().optional(),
        name: z.string().optional(),
        words: z.string(),
      }),
      stages: z.array(
        z.object({
          label: z.string(),
          way: z.enum(WAYS),
          bpm: z.number(),
          pass: z.object({ clean: z.int() }),
          minutes: z.number(),
          plan: tuneSchema,
        }),
      ),
    }),
  ),
  session: z.object({
    minutes: z.int(),
    items: z.array(
      z.object({
        what: z.enum([...ITEM_KINDS, 'ladder']),
        span: spanSchema.nullable(),
        minutes: z.int(),
        value: z.number(),
        why: z.string(),
        bodyCheckBefore: z.boolean(),
      }),
    ),
    left: z.array(z.object({ what: z.string(), span: spanSchema.nullable(), value: z.number(), why: z.string() })),
  }),
});
export type PracticeJson = z.output<typeof practiceSchema>;

const text = (max: number) => z.string().max(max);

/** A log as it is read from a file: attempts at stretches of tunes, or for a forecast the best of each day. */
export const logFileSchema = z.object({
  version: z.literal(1),
  attempts: z
    .array(
      z.object({
        at: z.iso.datetime({ offset: true }),
        tune: text(300),
        span: spanSchema,
        bpm: z.number().positive().max(1000),
        clean: z.boolean(),
        minutes: z.number().min(0).max(600).optional(),
        pain: z.object({}).nullish(),
        margins: z.partialRecord(z.enum(EVENT_KINDS), z.number()).optional(),
      }),
    )
    .default([]),
  /** Minutes spent until then, and the tempo that came out clean. */
  best: z.array(z.object({ minutes: z.number().min(0), bpm: z.number().positive().max(1000) })).optional(),
});
export type LogFile = z.output<typeof logFileSchema>;
