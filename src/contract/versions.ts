import { z } from 'zod';
import { tuneSchema } from '#formats/json';
import { route } from './route';
import { tuneIdSchema } from './tunes';

/** A version of a tune under a name of its own. */
export const VERSION_KINDS = ['plan', 'setting'] as const;

/** Where a version comes from: another plan of the same notes, or a setting as somebody plays it. */
const originShape = {
  kind: z.enum(VERSION_KINDS),
  /** Who taught it; empty where nobody is named. */
  taughtBy: z.string().trim().max(200),
  learnedOn: z.iso.date().nullable(),
  note: z.string().trim().max(2000),
};
export const versionOriginSchema = z.object(originShape);
export type VersionOrigin = z.output<typeof versionOriginSchema>;

export const tuneVersionSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  createdAt: z.iso.datetime(),
  tune: tuneSchema,
  /** Counted up with each change of its name or origin. */
  revision: z.int().min(1),
  ...originShape,
});
export type TuneVersion = z.output<typeof tuneVersionSchema>;

export const tuneVersionsSchema = z.object({ versions: z.array(tuneVersionSchema) });

/** Most versions that a tune may have. */
export const MAX_VERSIONS = 100;
/** Versions of an enormous tune are fewer: together they come in one answer. */
export const MAX_VERSION_LETTERS = 20_000_000;

export const nameVersionSchema = z.object({
  name: z.string().trim().min(1, 'a version has a name').max(120, 'at most 120 characters'),
  tune: tuneSchema,
  kind: originShape.kind.default('plan'),
  taughtBy: originShape.taughtBy.default(''),
  learnedOn: originShape.learnedOn.default(null),
  note: originShape.note.default(''),
});
export type NameVersion = z.input<typeof nameVersionSchema>;

/** What of a version can be changed later; its notes stay as they were kept. */
export const changeVersionSchema = versionOriginSchema.extend({
  baseRevision: z.int().min(1),
  name: z.string().trim().min(1, 'a version has a name').max(120, 'at most 120 characters'),
});
export type ChangeVersion = z.output<typeof changeVersionSchema>;

const versionIdSchema = tuneIdSchema.extend({ versionId: z.uuid('expected the id of a version') });

/** Named versions of a tune. */
export const versionRoutes = {
  listVersions: route({
    method: 'GET',
    path: '/api/tunes/:id/versions',
    params: tuneIdSchema,
    answer: tuneVersionsSchema,
  }),
  nameVersion: route({
    method: 'POST',
    path: '/api/tunes/:id/versions',
    params: tuneIdSchema,
    body: nameVersionSchema,
    answer: tuneVersionSchema,
    errors: ['not-found', 'bad-tune', 'too-many-versions'],
    makes: true,
  }),
  changeVersion: route({
    method: 'PATCH',
    path: '/api/tunes/:id/versions/:versionId',
    params: versionIdSchema,
    body: changeVersionSchema,
    answer: tuneVersionSchema,
    errors: ['not-found', 'stale-save'],
  }),
  removeVersion: route({
    method: 'DELETE',
    path: '/api/tunes/:id/versions/:versionId',
    params: versionIdSchema,
    errors: ['not-found'],
  }),
};
