import { z } from 'zod';
import { EVENT_KINDS } from '#core/tempo';
import { newTuneSchema, tuneSchema } from '#formats/json';
import { route } from './route';

/** Largest body of a save, and largest text of an import. */
export const MAX_TUNE_BYTES = 12 * 1024 * 1024;
export const MAX_IMPORT_BYTES = 10 * 1024 * 1024;

/** A row of the book. Figures are counted by the server: on a save at once, for many tunes a while later. */
export const tuneSummarySchema = z.object({
  id: z.uuid(),
  revision: z.int().min(1),
  title: z.string(),
  danceType: z.string().nullable(),
  meter: z.string(),
  key: z.string(),
  tuning: z.string(),
  form: z.string(),
  bars: z.int(),
  /** Whether its figures are those of the rules and settings that hold; what is not counted yet is null. */
  isCounted: z.boolean(),
  /** Why its figures could not be counted, where that was given up. */
  givenUp: z.string().nullable(),
  comesRound: z.boolean().nullable(),
  flippedParts: z.array(z.string()),
  ceilingBpm: z.number().nullable(),
  /** Up to which tempo it holds for the player, of what the log says; null: the log says nothing, or it holds at any. */
  own: z
    .object({
      median: z.number(),
      low: z.number(),
      high: z.number(),
      binds: z.partialRecord(z.enum(EVENT_KINDS), z.number()).describe('what sets it, by how often'),
    })
    .nullable(),
  /** Skills that were not shown yet; null: nothing is logged. */
  missing: z.array(z.string()).nullable(),
  wishBpm: z.number(),
  bandLow: z.number(),
  bandHigh: z.number(),
  beat: z.string(),
  problems: z.int().nullable(),
  cares: z.int().nullable(),
  tags: z.array(z.string()),
  practisedAt: z.iso.datetime().nullable(),
  updatedAt: z.iso.datetime(),
  /** Parts that use the technique asked for; null: none was asked for. */
  usedIn: z.array(z.string()).nullable(),
});
export type TuneSummary = z.output<typeof tuneSummarySchema>;

/** A page of the book, in the order asked for. */
export const tuneListSchema = z.object({
  tunes: z.array(tuneSummarySchema),
  /** Where the next page begins; null: this was the last. */
  next: z.string().nullable(),
  /** Nothing is spelt as asked: these are near it. */
  isNear: z.boolean(),
});
export type TuneList = z.output<typeof tuneListSchema>;

export const tuneRecordSchema = z.object({
  id: z.uuid(),
  revision: z.int().min(1),
  updatedAt: z.iso.datetime(),
  /** Whether the text it was read from is kept. */
  hasSource: z.boolean(),
  tune: tuneSchema,
});
export type TuneRecord = z.output<typeof tuneRecordSchema>;

export const tuneIdSchema = z.object({ id: z.uuid('expected the id of a tune') });

/** Tunes that are added and counted in one request; more come in by an import. */
const MAX_ADDED = 50;

export const createTunesSchema = z.object({
  fileName: z.string().max(300).optional(),
  tunes: z
    .array(z.object({ tune: newTuneSchema, source: z.string().max(MAX_IMPORT_BYTES).optional() }))
    .min(1)
    .max(MAX_ADDED),
});
export type CreateTunes = z.output<typeof createTunesSchema>;

export const createdTunesSchema = z.object({ tunes: z.array(z.object({ id: z.uuid(), title: z.string() })) });

export const saveTuneSchema = z.object({ baseRevision: z.int().min(1), tune: tuneSchema });
export const savedTuneSchema = z.object({ revision: z.int().min(1), updatedAt: z.iso.datetime() });

export const tuneRoutes = {
  createTunes: route({
    method: 'POST',
    path: '/api/tunes',
    body: createTunesSchema,
    answer: createdTunesSchema,
    errors: ['bad-tune'],
    makes: true,
  }),
  findTune: route({
    method: 'GET',
    path: '/api/tunes/:id',
    params: tuneIdSchema,
    answer: tuneRecordSchema,
    errors: ['not-found'],
  }),
  saveTune: route({
    method: 'PUT',
    path: '/api/tunes/:id',
    params: tuneIdSchema,
    body: saveTuneSchema,
    answer: savedTuneSchema,
    errors: ['not-found', 'bad-tune', 'stale-save'],
  }),
  findSource: route({
    method: 'GET',
    path: '/api/tunes/:id/source',
    params: tuneIdSchema,
    answer: 'file',
    errors: ['not-found'],
  }),
};
