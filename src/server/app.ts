import { randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import express, { type Express } from 'express';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { abilityRoutes } from './ability/routes';
import { backupRoutes } from './backup/routes';
import { bookRoutes } from './book/routes';
import type { Database } from './db';
import { AppError, errorHandler } from './errors';
import { exportRoutes } from './export/routes';
import { handoutRoutes } from './handout/routes';
import { healthRoutes } from './health';
import { importRoutes } from './imports/routes';
import type { Jobs } from './jobs/jobs';
import { likenessRoutes } from './likeness/routes';
import { logRoutes } from './log/routes';
import { pegsRoutes } from './pegs/routes';
import { revisionRoutes } from './revisions/routes';
import { type DoorKeys, onlyWithKey, sameOriginOnly, securityHeaders } from './security';
import { CHECKS_ANSWERS } from './serve';
import { setsRoutes } from './sets/routes';
import { settingsRoutes } from './settings/routes';
import { tuneRoutes } from './tunes/routes';
import { versionRoutes } from './versions/routes';

export interface AppDeps {
  readonly db: Database;
  /** Connections for what is sent as it is read, which may take as long as who receives it: others do not wait for them. */
  readonly streams?: Database;
  readonly log: Logger;
  /** Works on what takes long, on other threads. */
  readonly jobs: Jobs;
  /** Built pages; left out where only the API is served. */
  readonly webDir?: string;
  readonly allowedHosts?: readonly string[];
  /** Asks for figures that are out of date to be counted in the background; left out: nothing does. */
  readonly askForCounting?: () => Promise<void>;
  /** The same for what follows from the log. */
  readonly askForAbility?: () => Promise<void>;
  readonly now?: () => Date;
  /** Where the demo tunes lie. */
  readonly demoDir?: string;
  /** Where copies of the book are kept that are made by themselves. */
  readonly copiesFolder?: string;
  /** Who is let in; left out: everybody who reaches the server. */
  readonly door?: DoorKeys | null;
  /** Answers are held against the contract. */
  readonly checksAnswers?: boolean;
}

/** Largest body that is read where requests are answered: it takes some milliseconds. */
const MAX_PLAIN_BYTES = 2 * 1024 * 1024;

/** The place in the built page that is filled with a fresh nonce for each answer. */
const NONCE_PLACEHOLDER = /__CSP_NONCE__/g;

/** The whole server as a value: nothing listens yet. */
export function createApp(deps: AppDeps): Express {
  const {
    db,
    streams = db,
    log,
    jobs,
    webDir,
    allowedHosts = [],
    askForCounting = () => Promise.resolve(),
    askForAbility = () => Promise.resolve(),
    now = () => new Date(),
    demoDir = 'demo',
    copiesFolder = path.resolve('.data/copies'),
    door = null,
    checksAnswers = false,
  } = deps;
  const app = express();
  app.disable('x-powered-by');
  // What is in no cache needs no tag to be compared by.
  app.disable('etag');
  app.set(CHECKS_ANSWERS, checksAnswers);
  app.use((_request, response, next) => {
    response.locals.nonce = randomBytes(16).toString('base64');
    next();
  });
  app.use(securityHeaders());
  // Of a request only what it asked for: its headers have the cookie that lets in.
  const req = ({ id, method, url }: { id: unknown; method: string; url: string }) => ({
    id,
    method,
    path: url.split('?')[0],
  });
  app.use(pinoHttp({ logger: log, autoLogging: false, serializers: { req } }));
  app.use(sameOriginOnly(allowedHosts));
  if (door !== null) app.use(onlyWithKey(door));
  app.use('/api', (_request, response, next) => {
    // What the book holds is in no cache, of the browser or between.
    response.setHeader('Cache-Control', 'no-store');
    next();
  });
  // Bodies with documents are taken as they come, by their routes, and read on another thread.
  app.use(handoutRoutes(jobs));
  app.use(likenessRoutes(db, jobs));
  app.use(versionRoutes(db, jobs));
  app.use(revisionRoutes(db));
  app.use(tuneRoutes(db, jobs, { askForCounting, askForAbility }));
  app.use(importRoutes(db, jobs, askForCounting));

  app.use('/api', express.json({ limit: MAX_PLAIN_BYTES, strict: true }));
  app.use(healthRoutes(db));
  app.use(bookRoutes(db, jobs, now, demoDir));
  app.use(backupRoutes({ db, streams, jobs, askForCounting, now, copiesFolder }));
  app.use(exportRoutes(streams, jobs));
  app.use(settingsRoutes(db, jobs, askForCounting));
  app.use(pegsRoutes(db));
  app.use(setsRoutes(db));
  app.use(abilityRoutes(db, now, askForAbility));
  app.use(logRoutes(db, streams, askForAbility));
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
