import { z } from 'zod';
import { DANCE_TYPES } from '#core/tune';
import { bookSizeSchema } from './bookSize';
import { route } from './route';
import { tuneListSchema } from './tunes';

/** By what the book can be sorted; `best` is for a search. */
export const BOOK_SORTS = [
  'best',
  'title',
  'type',
  'key',
  'tuning',
  'bars',
  'round',
  'tempo',
  'findings',
  'ready',
  'practised',
  'changed',
] as const;
export type BookSort = (typeof BOOK_SORTS)[number];

/** The dance type of tunes for which none is given. */
export const NO_TYPE = 'none';

/** Not practised for so many days. */
export const PRACTISED = { never: null, 'not-7': 7, 'not-30': 30, 'not-90': 90 } as const;

export const MAX_TAG_LETTERS = 40;
const tagSchema = z
  .string()
  .trim()
  .min(1, 'a tag has a name')
  .max(MAX_TAG_LETTERS, `at most ${MAX_TAG_LETTERS} letters`)
  .regex(/^[^,]*$/, 'a tag has no comma');

/** Which tunes are asked for; all conditions hold together. */
export const bookFilterSchema = z.object({
  /** Words of titles, composer, tags and notes. */
  words: z.string().trim().max(200).optional(),
  /** First notes as letters or calls. */
  notes: z.string().trim().max(200).optional(),
  type: z.enum([...DANCE_TYPES, NO_TYPE]).optional(),
  key: z.string().max(40).optional(),
  tuning: z.string().max(40).optional(),
  tag: tagSchema.optional(),
  /** What it asks of its player: a drill's kind, or a bowing as `pattern:pairs`. */
  technique: z
    .string()
    .max(60)
    .regex(/^[a-z:-]+$/, 'expected a technique as the book has it')
    .optional(),
  round: z.enum(['yes', 'no']).optional(),
  tempo: z.enum(['stands', 'short']).optional(),
  findings: z.enum(['problems', 'cares', 'none']).optional(),
  /** How many skills of it were not shown yet; `unknown`: nothing is logged. */
  ready: z.enum(['yes', 'one', 'more', 'unknown']).optional(),
  practised: z.enum(['never', 'not-7', 'not-30', 'not-90']).optional(),
  /** Tunes that were taken out of the book and can be brought back. */
  removed: z.literal('yes').optional(),
});
export type BookFilter = z.output<typeof bookFilterSchema>;

export const DEFAULT_PAGE = 60;
export const MAX_ON_PAGE = 200;

export const bookQuerySchema = bookFilterSchema.extend({
  sort: z.enum(BOOK_SORTS).optional(),
  down: z.literal('yes').optional(),
  /** `next` of the page before. */
  after: z.string().max(2000).optional(),
  limit: z.coerce.number().int().min(1).max(MAX_ON_PAGE).optional(),
});
export type BookQuery = z.output<typeof bookQuerySchema>;

export const bookCountSchema = z.object({
  tunes: z.int(),
  notRound: z.int(),
  short: z.int(),
});
export type BookCount = z.output<typeof bookCountSchema>;

const facetSchema = z.array(z.object({ value: z.string(), count: z.int() }));
/** What there is to filter by. */
export const bookFacetsSchema = z.object({
  types: facetSchema,
  keys: facetSchema,
  tunings: facetSchema,
  tags: facetSchema,
  techniques: facetSchema,
  tunes: z.int(),
  removed: z.int(),
  /** When that was so: what was taken out of the book later is not among those removed. */
  asOf: z.iso.datetime(),
});
export type BookFacets = z.output<typeof bookFacetsSchema>;

/** How far the counting of figures is. */
export const countingSchema = z.object({
  left: z.int(),
  /** Tunes that could not be counted, also not when tried again. */
  givenUp: z.int(),
  tunes: z.int(),
});
export type Counting = z.output<typeof countingSchema>;

/** What a view keeps: which tunes, in which order. */
export const viewQuerySchema = bookQuerySchema.pick({ sort: true, down: true }).extend(bookFilterSchema.shape);
export const MAX_VIEWS = 60;
export const nameViewSchema = z.object({
  name: z.string().trim().min(1, 'a view has a name').max(80, 'at most 80 characters'),
  query: viewQuerySchema,
});
export const bookViewSchema = nameViewSchema.extend({ id: z.uuid() });
export type BookView = z.output<typeof bookViewSchema>;
export const bookViewsSchema = z.object({ views: z.array(bookViewSchema) });

/** Tunes that can be changed one by one in a request; more are told by a filter. */
export const MAX_PICKED = 5000;

/** Tunes by their ids, or all that a filter lets through; by title, or in the order they are named. */
export const tuneChoiceSchema = z.union([
  z.object({ ids: z.array(z.uuid()).min(1).max(MAX_PICKED), inOrder: z.literal(true).optional() }),
  z.object({ filter: bookFilterSchema }),
]);
export type TuneChoice = z.output<typeof tuneChoiceSchema>;

export const bulkDeedSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('tag'), tag: tagSchema }),
  z.object({ kind: z.literal('untag'), tag: tagSchema }),
  z.object({ kind: z.literal('practised'), at: z.iso.datetime() }),
  z.object({ kind: z.literal('remove') }),
  z.object({ kind: z.literal('bring-back') }),
]);
export type BulkDeed = z.output<typeof bulkDeedSchema>;

export const bulkChangeSchema = z.object({ choice: tuneChoiceSchema, deed: bulkDeedSchema });
export type BulkChange = z.output<typeof bulkChangeSchema>;

/** What a bulk change did; `undo` takes it back. */
export const bulkDoneSchema = z.object({ changed: z.int(), undo: z.uuid() });
export type BulkDone = z.output<typeof bulkDoneSchema>;

const idSchema = z.object({ id: z.uuid() });
const changedSchema = z.object({ changed: z.int() });

/** The book as a whole: pages of it, views, changes of many tunes at once. */
export const bookRoutes = {
  listTunes: route({ method: 'GET', path: '/api/book/tunes', query: bookQuerySchema, answer: tuneListSchema }),
  countBook: route({ method: 'GET', path: '/api/book/count', query: bookFilterSchema, answer: bookCountSchema }),
  listFacets: route({ method: 'GET', path: '/api/book/facets', answer: bookFacetsSchema }),
  findBookSize: route({ method: 'GET', path: '/api/book/size', answer: bookSizeSchema }),
  findCounting: route({ method: 'GET', path: '/api/book/counting', answer: countingSchema }),
  /** Into an empty book only. */
  loadDemo: route({ method: 'POST', path: '/api/book/demo', answer: z.object({ tunes: z.int() }) }),
  changeTunes: route({
    method: 'POST',
    path: '/api/book/changes',
    body: bulkChangeSchema,
    answer: bulkDoneSchema,
    makes: true,
  }),
  takeBackChange: route({
    method: 'POST',
    path: '/api/book/changes/:id/undo',
    params: idSchema,
    answer: changedSchema,
    errors: ['not-found'],
    makes: true,
  }),
  /** Takes what was out of the book by then out for good. */
  deleteRemoved: route({
    method: 'DELETE',
    path: '/api/book/removed',
    query: z.object({ by: z.iso.datetime('expected the time up to which tunes were taken out') }),
    answer: changedSchema,
  }),
  listViews: route({ method: 'GET', path: '/api/book/views', answer: bookViewsSchema }),
  keepView: route({
    method: 'POST',
    path: '/api/book/views',
    body: nameViewSchema,
    answer: bookViewSchema,
    errors: ['too-many-views'],
    makes: true,
  }),
  removeView: route({
    method: 'DELETE',
    path: '/api/book/views/:id',
    params: idSchema,
    errors: ['not-found'],
  }),
};
