import { z } from 'zod';
import { route } from './route';

/** How the server stands. A database that is away is the error `database-away`. */
export const healthSchema = z.object({
  ok: z.boolean(),
  database: z.enum(['ready', 'read-only']),
  /** By how much answers were delayed since the last time that was asked, because other work ran on their thread. */
  delayMs: z.object({ middle: z.number(), max: z.number() }),
});
export type Health = z.output<typeof healthSchema>;

export const healthRoutes = {
  findHealth: route({ method: 'GET', path: '/api/health', answer: healthSchema }),
};
