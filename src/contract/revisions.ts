import { z } from 'zod';
import { tuneSchema } from '#formats/json';
import { route } from './route';
import { tuneIdSchema } from './tunes';

/** How a tune stood after a save. */
const revisionShape = { revision: z.int().min(1), savedAt: z.iso.datetime() };

/** Revisions of a tune that are still kept, the newest first. */
export const revisionListSchema = z.object({ revisions: z.array(z.object(revisionShape)) });
export type RevisionList = z.output<typeof revisionListSchema>;

export const tuneRevisionSchema = z.object({ ...revisionShape, tune: tuneSchema });
export type TuneRevision = z.output<typeof tuneRevisionSchema>;

/** Which revisions are kept: the last ones all, of older ones the last of each hour, then of each day, then of each week. */
export const KEPT_REVISIONS = { all: 50, hourlyDays: 2, dailyDays: 60 } as const;

/** How a tune stood after earlier saves. Going back to one is an edit like any other. */
export const revisionRoutes = {
  listRevisions: route({
    method: 'GET',
    path: '/api/tunes/:id/revisions',
    params: tuneIdSchema,
    answer: revisionListSchema,
  }),
  findRevision: route({
    method: 'GET',
    path: '/api/tunes/:id/revisions/:revision',
    params: tuneIdSchema.extend({ revision: z.coerce.number<number | string>().int().min(1) }),
    answer: tuneRevisionSchema,
    errors: ['not-found'],
  }),
};
