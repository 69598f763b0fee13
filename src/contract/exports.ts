import { z } from 'zod';
import { ALL_FILE_KINDS } from '#formats/kinds';
import { tuneChoiceSchema } from './book';
import { route } from './route';

/** Tunes as files of a kind, and the list itself as a table. */
export const EXPORT_FORMATS = [...ALL_FILE_KINDS, 'csv'] as const;
export type ExportFormat = (typeof EXPORT_FORMATS)[number];

/** Which tunes go out, and as what. */
export const exportSchema = z.object({
  format: z.enum(EXPORT_FORMATS),
  choice: tuneChoiceSchema,
  /** Of the file, where several tunes make one. */
  name: z.string().trim().min(1).max(200).optional(),
});

/** Largest backup that is taken back. */
export const MAX_BACKUP_BYTES = 512 * 1024 * 1024;

export const restoredSchema = z.object({
  tunes: z.int(),
  rows: z.int(),
  copy: z.string().describe('the name under which the book as it was is kept'),
});
export type Restored = z.output<typeof restoredSchema>;

/** Copies of the book that are made by themselves: each day, and before a backup is taken back. */
export const keptCopiesSchema = z.object({
  copies: z.array(
    z.object({
      name: z.string(),
      kind: z.enum(['daily', 'before-restore']),
      madeAt: z.iso.datetime().describe('when it was made and gone through to its end'),
      bytes: z.int(),
    }),
  ),
});
export type KeptCopies = z.output<typeof keptCopiesSchema>;

export const exportRoutes = {
  exportTunes: route({
    method: 'POST',
    path: '/api/export',
    body: exportSchema,
    answer: 'file',
    errors: ['not-found'],
    isSlow: true,
  }),
};

/** The whole book as one file, and back; and the copies that are made by themselves. */
export const backupRoutes = {
  keepBackup: route({ method: 'GET', path: '/api/backup', answer: 'file', isSlow: true }),
  listCopies: route({ method: 'GET', path: '/api/backup/copies', answer: keptCopiesSchema }),
  findCopy: route({
    method: 'GET',
    path: '/api/backup/copies/:name',
    params: z.object({ name: z.string() }),
    answer: 'file',
    errors: ['not-found'],
    isSlow: true,
  }),
  restoreBackup: route({
    method: 'POST',
    path: '/api/backup',
    body: 'bytes',
    answer: restoredSchema,
    errors: ['bad-backup'],
    isSlow: true,
  }),
};
