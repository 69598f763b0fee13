import { z } from 'zod';
import { newTuneSchema } from '#formats/json';
import { route } from './route';
import { MAX_IMPORT_BYTES } from './tunes';

/** Most tunes that one import may bring. */
export const MAX_IMPORTED = 20_000;

/** Tunes sent in one piece, and what they may weigh: a piece fits into a request. */
export const MAX_IN_PIECE = 100;
export const PIECE_BYTES = 2 * 1024 * 1024;

export const beginImportSchema = z.object({ fileName: z.string().trim().min(1).max(300) });
export const importBegunSchema = z.object({ id: z.uuid() });

export const importPieceSchema = z.object({
  /** Place of the first of these tunes among all of the import, from 0. */
  from: z.int().min(0).max(MAX_IMPORTED),
  tunes: z
    .array(
      z.object({
        tune: newTuneSchema,
        /** The tune's own text; left out: the file is kept as a whole. */
        source: z.string().max(MAX_IMPORT_BYTES).optional(),
      }),
    )
    .min(1)
    .max(MAX_IN_PIECE),
});
export type ImportPiece = z.output<typeof importPieceSchema>;

const place = z.int().min(0).max(MAX_IMPORTED);

/** What becomes of the tunes that were laid ready: those not named become tunes of their own. */
export const finishImportSchema = z.object({
  /** How many were sent. */
  expected: z.int().min(1).max(MAX_IMPORTED),
  leftOut: z.array(place).max(MAX_IMPORTED),
  /** Tunes that are other settings of tunes of the book. */
  joins: z.array(z.object({ at: place, tune: z.uuid() })).max(MAX_IMPORTED),
});
export type FinishImport = z.output<typeof finishImportSchema>;

export const importStateSchema = z.object({
  id: z.uuid(),
  fileName: z.string(),
  arrived: z.int(),
  isFinished: z.boolean(),
});
export type ImportState = z.output<typeof importStateSchema>;

export const importFinishedSchema = z.object({
  tunes: z.int(),
  settings: z.int(),
  /** The first tune that is now in the book, and how many there are. */
  first: z.uuid().nullable(),
});
export type ImportFinished = z.output<typeof importFinishedSchema>;

/** Prints of melodies that are about to be brought in, to be compared with the book. */
export const likenessAskedSchema = z.object({
  melodies: z
    .array(z.object({ print: z.array(z.int()).max(64), pitches: z.array(z.int().min(0).max(200)).max(1024) }))
    .min(1)
    .max(500),
});

export const likeTuneSchema = z.object({
  id: z.uuid(),
  title: z.string(),
  /** 1: equal but for key and octave. */
  share: z.number(),
  /** Semitones by which the asked melody lies above. */
  semitones: z.int(),
});
export type LikeTune = z.output<typeof likeTuneSchema>;

/** For each melody asked about the tunes like it, the likest first. */
export const likenessesSchema = z.object({ found: z.array(z.array(likeTuneSchema)) });

/** Parts of other tunes that are like parts of one. */
export const partLikenessesSchema = z.object({
  tunes: z.array(likeTuneSchema),
  parts: z.array(likeTuneSchema.extend({ part: z.string(), ofPart: z.string() })),
});
export type PartLikenesses = z.output<typeof partLikenessesSchema>;

/** Written notes of a tune, the first counted from 0, whose hand and bowing its player knows from another. */
const knownHandSchema = z.object({
  id: z.uuid(),
  title: z.string(),
  from: z.int().min(0),
  notes: z.int().min(1),
  part: z.string(),
  bar: z.int().min(0),
});
export type KnownHand = z.output<typeof knownHandSchema>;

const idSchema = z.object({ id: z.uuid() });

/**
 * Imports in pieces: begun, its original and its tunes sent, then finished at once or given up. Every step may come again
 * when its answer was lost; nothing is in the book before the last one.
 */
export const importRoutes = {
  beginImport: route({
    method: 'POST',
    path: '/api/imports',
    body: beginImportSchema,
    answer: importBegunSchema,
    makes: true,
  }),
  findImport: route({
    method: 'GET',
    path: '/api/imports/:id',
    params: idSchema,
    answer: importStateSchema,
    errors: ['not-found'],
  }),
  sendOriginal: route({
    method: 'PUT',
    path: '/api/imports/:id/original',
    params: idSchema,
    body: 'bytes',
    errors: ['not-found'],
  }),
  sendPiece: route({
    method: 'PUT',
    path: '/api/imports/:id/tunes',
    params: idSchema,
    body: importPieceSchema,
    errors: ['not-found', 'bad-tune'],
  }),
  finishImport: route({
    method: 'POST',
    path: '/api/imports/:id/finish',
    params: idSchema,
    body: finishImportSchema,
    answer: importFinishedSchema,
    errors: ['not-found', 'import-incomplete'],
  }),
  abortImport: route({ method: 'DELETE', path: '/api/imports/:id', params: idSchema, errors: ['not-found'] }),
};

/** Tunes and parts of the book that are like others. */
export const likenessRoutes = {
  findLikenesses: route({
    method: 'POST',
    path: '/api/likenesses',
    body: likenessAskedSchema,
    answer: likenessesSchema,
  }),
  findPartLikenesses: route({
    method: 'GET',
    path: '/api/likenesses/:id',
    params: idSchema,
    answer: partLikenessesSchema,
  }),
  /** From tunes that the log has as played clean. */
  findKnownHands: route({
    method: 'GET',
    path: '/api/likenesses/:id/hands',
    params: idSchema,
    answer: z.object({ hands: z.array(knownHandSchema) }),
  }),
};
