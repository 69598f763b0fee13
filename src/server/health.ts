import { monitorEventLoopDelay } from 'node:perf_hooks';
import { Router } from 'express';
import { type Health, healthRoutes as routes } from '#contract/health';
import type { Database } from './db';
import { serve } from './serve';

/** How finely delays are seen. */
const RESOLUTION_MS = 5;
const MS_PER_NS = 1e-6;

/**
 * Whether the server can work: its database answers and can be written, and how long requests have to wait at most because
 * something else ran on their thread. Delays are those since the last time somebody asked.
 */
export function healthRoutes(db: Database): Router {
  const delays = monitorEventLoopDelay({ resolution: RESOLUTION_MS });
  delays.enable();
  const router = Router();
  serve(router, routes.findHealth, async () => {
    // What is measured holds the resolution itself.
    const inMs = (ns: number) => Math.max(0, Math.round(ns * MS_PER_NS - RESOLUTION_MS));
    const delayMs = { middle: inMs(delays.percentile(50)), max: inMs(delays.max) };
    delays.reset();
    const { rows } = await db.query<{ is_read_only: boolean }>(
      "SELECT pg_is_in_recovery() OR current_setting('transaction_read_only')::boolean AS is_read_only",
    );
    const isReadOnly = rows[0]!.is_read_only;
    const health: Health = { ok: !isReadOnly, database: isReadOnly ? 'read-only' : 'ready', delayMs };
    return { status: isReadOnly ? 503 : 200, made: health };
  });
  return router;
}
