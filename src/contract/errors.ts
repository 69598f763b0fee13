import { z } from 'zod';

/** Every code the server answers with; `docs/errors.md` explains each. */
export const ERROR_CODES = [
  'not-found',
  'bad-request',
  'bad-tune',
  'stale-save',
  'too-many-versions',
  'too-many-views',
  'import-incomplete',
  'bad-backup',
  'too-large',
  'too-much-work',
  'busy',
  'no-key',
  'wrong-origin',
  'database-away',
  'internal',
] as const;
export type ErrorCode = (typeof ERROR_CODES)[number];

export const errorSchema = z.object({
  code: z.enum(ERROR_CODES),
  message: z.string(),
  details: z.unknown().optional(),
});
export type ErrorBody = z.output<typeof errorSchema>;
