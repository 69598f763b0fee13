import { z } from 'zod';

/** What the book takes on the disk, in bytes. */
export const bookSizeSchema = z.object({
  tunes: z.int().describe('tunes with what they are found by'),
  revisions: z.int().describe('how tunes stood before, and versions under names'),
  originals: z.int().describe('files and texts that tunes were read from'),
  whole: z.int().describe('the whole database'),
});
export type BookSize = z.output<typeof bookSizeSchema>;
