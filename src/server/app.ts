import { randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import express, { type Express } from 'express';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { MOST_HANDOUT_BYTES } from '#contract/handout';
import { MOST_TUNE_BYTES } from '#contract/tunes';
import type { Database } from './db';
import { AppError, errorHandler } from './errors';
import { onlyWithKey, sameOriginOnly, securityHeaders } from './security';
import { backupRoutes } from './backup/routes';
import { bookRoutes } from './book/routes';
import { exportRoutes } from './export/routes';
import { handoutRoutes } from './handout/routes';
import { importRoutes } from './imports/routes';
import { likenessRoutes } from './likeness/routes';
import { pegsRoutes } from './pegs/routes';
import { settingsRoutes } from './settings/routes';
import { tuneRoutes } from './tunes/routes';
import { versionRoutes } from './versions/routes';

export interface AppDeps {
  readonly db: Database;
  readonly log: Logger;
  /** Built pages; left out where only the API is served. */
  readonly webDir?: string;
  readonly allowedHosts?: readonly string[];
  /** Asks for figures that are out of date to be counted in the background; left out: nothing does. */
  readonly askForCounting?: () => Promise<void>;
  readonly now?: () => Date;
  /** Where the demo tunes lie. */
  readonly demoDir?: string;
  /** Where copies of the book are kept that are made by themselves. */
  readonly copiesFolder?: string;
  /** The key without which nobody is let in; left out: everybody on this machine is. */
  readonly secret?: string | null;
}

/** The place in the built page that is filled with a fresh nonce for each answer. */
const NONCE_PLACEHOLDER = /__CSP_NONCE__/g;

/** The whole server as a value: nothing listens yet. */
export function createApp(deps: AppDeps): Express {
  const {
    db,
    log,
    webDir,
    allowedHosts = [],
    askForCounting = () => Promise.resolve(),
    now = () => new Date(),
    demoDir = 'demo',
    copiesFolder = path.resolve('.data/copies'),
    secret = null,
  } = deps;
  const app = express();
  app.disable('x-powered-by');
  app.use((_request, response, next) => {
    response.locals.nonce = randomBytes(16).toString('base64');
    next();
  });
  app.use(securityHeaders());
  app.use(pinoHttp({ logger: log, autoLogging: false }));
  app.use(sameOriginOnly(allowedHosts));
  if (secret !== null) app.use(onlyWithKey(secret));
  app.use('/api', (_request, response, next) => {
    // What the book holds is in no cache, of the browser or between.
    response.setHeader('Cache-Control', 'no-store');
    next();
  });
  app.use('/api/handout', express.json({ limit: MOST_HANDOUT_BYTES, strict: true }));
  app.use('/api', express.json({ limit: MOST_TUNE_BYTES, strict: true }));

  app.get('/api/health', async (_request, response) => {
    await db.query('SELECT 1');
    response.json({ ok: true });
  });
  app.use('/api/handout', handoutRoutes());
  app.use('/api/book', bookRoutes(db, now, demoDir));
  app.use('/api/backup', backupRoutes(db, askForCounting, now, copiesFolder));
  app.use('/api/export', exportRoutes(db));
  app.use('/api/imports', importRoutes(db, askForCounting));
  app.use('/api/likenesses', likenessRoutes(db));
  app.use('/api/settings', settingsRoutes(db, askForCounting));
  app.use('/api/pegs', pegsRoutes(db));
  app.use('/api/tunes/:id/versions', versionRoutes(db));
  app.use('/api/tunes', tuneRoutes(db));
  app.use('/api', () => {
    throw new AppError('not-found');
  });

  if (webDir !== undefined) {
    const page = readFileSync(path.join(webDir, 'index.html'), 'utf8');
    app.use(
      '/assets',
      express.static(path.join(webDir, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }),
    );
    app.use(express.static(webDir, { index: false }));
    app.get('/{*splat}', (_request, response) => {
      response.set('Cache-Control', 'no-store');
      response.type('html').send(page.replace(NONCE_PLACEHOLDER, response.locals.nonce as string));
    });
  }
  app.use(errorHandler);
  return app;
}
