import { z } from 'zod';
import { DRILL_KINDS, WAYS } from '#core/drills';
import { BITE_ORDERS, PRACTICE_LAYERS } from '#core/practice';
import { PLACES } from '#core/tune';
import { spanSchema } from './practice';
import { route } from './route';

/** Whether a zone has such a name; offsets, which are read the other way round elsewhere, are none. */
function isTimeZone(name: string): boolean {
  if (!/^[A-Za-z]/.test(name)) return false;
  try {
    return Boolean(new Intl.DateTimeFormat('en', { timeZone: name }));
  } catch {
    return false;
  }
}

/** What an attempt was part of. */
export const ATTEMPT_KINDS = ['bite', 'cell', 'join', 'drill', 'run-through', 'warm-up'] as const;
export type AttemptKind = (typeof ATTEMPT_KINDS)[number];

/** What went wrong, as a player says it. */
export const WRONGS = ['bow', 'crossing', 'finger', 'notes', 'rhythm', 'tone', 'memory'] as const;
export type Wrong = (typeof WRONGS)[number];

export const MAX_ATTEMPTS_AT_ONCE = 500;
/** Largest log that is taken in at once, and of how many attempts. */
export const MAX_LOG_BYTES = 64 * 1024 * 1024;
export const MAX_LOG_ATTEMPTS = 200_000;
export const MAX_NOTE = 600;

/** Where it hurt: a finger, on a string or on any; neither where it is not one finger. */
const painSchema = z.object(
  { finger: z.int().min(1).max(4).nullable(), place: z.enum(PLACES).nullable() },
  'expected a finger from 1 to 4 and a string, such as 3 A, or yes',
);
export type Pain = z.output<typeof painSchema>;

export const attemptSchema = z.object({
  /** Made where it was played: sent again it is the same attempt. */
  id: z.uuid(),
  at: z.iso.datetime(),
  tuneId: z.uuid(),
  title: z.string().max(300),
  /** Of the plan as it was. */
  revision: z.int().min(1),
  span: spanSchema,
  what: z.enum(ATTEMPT_KINDS),
  drill: z.enum(DRILL_KINDS).nullable(),
  layer: z.enum(PRACTICE_LAYERS),
  way: z.enum(WAYS),
  /** In the tune's dance beat, or the beat of the drill. */
  bpm: z.number().positive('expected a tempo above 0').max(1000),
  wishBpm: z.number().positive('expected a tempo above 0').max(1000),
  clean: z.boolean(),
  wrong: z.enum(WRONGS).nullable(),
  minutes: z.number().min(0).max(600, 'expected at most 600 minutes'),
  note: z.string().max(MAX_NOTE),
  /** It ended because something hurt: it says nothing of what the player can do. */
  pain: painSchema.nullable().default(null),
  /** The attempt that it stands for. */
  corrects: z.uuid().nullable(),
  /** It takes that one back altogether. */
  isWithdrawn: z.boolean(),
});
export type Attempt = z.output<typeof attemptSchema>;

const zoneSchema = z.string().max(60).refine(isTimeZone, 'expected the name of a time zone, for example UTC');

export const logQuerySchema = z.object({
  tune: z.uuid().optional(),
  /** Words of the tune's title, the note and what went wrong. */
  words: z.string().trim().max(200).optional(),
  /** Of one day, in a zone. */
  day: z.iso.date().optional(),
  zone: zoneSchema.optional(),
  /** `next` of the page before. */
  after: z.string().max(100).optional(),
  limit: z.coerce.number().int().min(1).max(500).optional(),
});
export type LogQuery = z.output<typeof logQuerySchema>;

export const attemptListSchema = z.object({ attempts: z.array(attemptSchema), next: z.string().nullable() });

/** A stretch of a tune on one day. */
const spanDaySchema = z.object({
  tuneId: z.uuid(),
  title: z.string(),
  span: spanSchema,
  day: z.iso.date(),
  attempts: z.int(),
  clean: z.int(),
  /** The last one of the day. */
  endedClean: z.boolean(),
  /** Quickest that was clean with the bow, and what was wanted. */
  cleanBpm: z.number().nullable(),
  wishBpm: z.number(),
  minutes: z.number(),
});
export type SpanDay = z.output<typeof spanDaySchema>;

export const historyQuerySchema = z.object({
  tune: z.uuid().optional(),
  /** From this day on; days are those of the zone. */
  since: z.iso.date(),
  zone: zoneSchema,
});
export const historySchema = z.object({ days: z.array(spanDaySchema) });

/** What was played of a tune on a day, in one way: everything that is logged, drills too. */
const logSumSchema = z.object({
  day: z.iso.date(),
  tuneId: z.uuid(),
  title: z.string(),
  what: z.enum(ATTEMPT_KINDS),
  drill: z.enum(DRILL_KINDS).nullable(),
  wrong: z.enum(WRONGS).nullable(),
  attempts: z.int(),
  clean: z.int(),
  /** Quickest that was clean with the bow. */
  cleanBpm: z.number().nullable(),
  minutes: z.number(),
});
export type LogSum = z.output<typeof logSumSchema>;

export const logSumsQuerySchema = historyQuerySchema.extend({ words: logQuerySchema.shape.words });
export type LogSumsQuery = z.output<typeof logSumsQuerySchema>;

const landmarkSchema = spanSchema.extend({
  id: z.uuid(),
  name: z.string().trim().min(1, 'a landmark has a name').max(40),
});
export const tunePracticeSchema = z.object({
  notesABite: z.int().min(1).max(64),
  order: z.enum(BITE_ORDERS),
  /** Own cuts, by the notes before which they stand; null: the best. */
  cuts: z.array(z.string().max(40)).max(400).nullable(),
  /** Stretches that hurt: they rest until the player takes them up again. */
  resting: z
    .array(spanSchema.extend({ since: z.iso.date() }))
    .max(400)
    .default([]),
  landmarks: z.array(landmarkSchema).max(60, 'at most 60 landmarks'),
});
/** How a player wants to practise a tune. */
export type TunePractice = z.output<typeof tunePracticeSchema>;
export type Landmark = TunePractice['landmarks'][number];

export const USUAL_PRACTICE: TunePractice = { notesABite: 8, order: 'start', cuts: null, resting: [], landmarks: [] };

/** 0: nothing is kept yet. */
export const tunePracticeRecordSchema = z.object({ revision: z.int().min(0), practice: tunePracticeSchema });
export type TunePracticeRecord = z.output<typeof tunePracticeRecordSchema>;

const tuneParams = z.object({ id: z.uuid('expected the id of a tune') });

export const logRoutes = {
  /** Those that are there already are left as they are; what is answered need not be sent again. */
  keepAttempts: route({
    method: 'POST',
    path: '/api/log/attempts',
    body: z.object({ attempts: z.array(attemptSchema).min(1).max(MAX_ATTEMPTS_AT_ONCE) }),
    answer: z.object({ kept: z.array(z.uuid()) }),
  }),
  /** As they are now, corrections in place of what they correct, the newest first. */
  listAttempts: route({ method: 'GET', path: '/api/log/attempts', query: logQuerySchema, answer: attemptListSchema }),
  findHistory: route({ method: 'GET', path: '/api/log/history', query: historyQuerySchema, answer: historySchema }),
  /** Day by day, the newest first. */
  findSums: route({
    method: 'GET',
    path: '/api/log/sums',
    query: logSumsQuerySchema,
    answer: z.object({ sums: z.array(logSumSchema) }),
  }),
  /** Minutes of each day, the oldest first. */
  findMinutes: route({
    method: 'GET',
    path: '/api/log/minutes',
    query: historyQuerySchema.omit({ tune: true }),
    answer: z.object({ days: z.array(z.object({ day: z.iso.date(), minutes: z.number() })) }),
  }),
  exportLog: route({
    method: 'GET',
    path: '/api/log/export',
    query: z.object({ format: z.enum(['csv', 'json']) }),
    answer: 'file',
    isSlow: true,
  }),
  importLog: route({
    method: 'POST',
    path: '/api/log/import',
    body: 'bytes',
    answer: z.object({
      attempts: z.int().describe('those that were new'),
      known: z.int(),
      leftOut: z.array(z.object({ at: z.string(), message: z.string() })),
    }),
    isSlow: true,
  }),
  findTunePractice: route({
    method: 'GET',
    path: '/api/tunes/:id/practice',
    params: tuneParams,
    answer: tunePracticeRecordSchema,
  }),
  saveTunePractice: route({
    method: 'PUT',
    path: '/api/tunes/:id/practice',
    params: tuneParams,
    body: z.object({ baseRevision: z.int().min(0), practice: tunePracticeSchema }),
    answer: z.object({ revision: z.int().min(1) }),
    errors: ['not-found', 'stale-save'],
  }),
};
