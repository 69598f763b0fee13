import { randomBytes } from 'node:crypto';
import { existsSync } from 'node:fs';
import path from 'node:path';
import { pino } from 'pino';
import { createApp } from './app';
import { keepDailyCopies } from './backup/dailyCopies';
import { readConfig } from './config';
import { startCounting } from './counting/queue';
import { connect } from './db';
import { loadDemo } from './demo/loadDemo';
import { deleteStaleImports } from './imports/queries';
import { jobPool } from './jobs/jobPool';
import { migrate, NewerDatabase } from './migrate';
import { isOwnUser, lastingKey, machineKeys } from './security';

/** Ends the start for good, with words for who started it: no other try would mend it. */
function giveUp(error: unknown): never {
  const message = error instanceof Error ? error.message : String(error);
  process.send?.({ kind: 'failed', message, isFinal: true });
  if (!process.send) console.error(message);
  process.exit(1);
}

function configOrGiveUp() {
  try {
    return readConfig(process.env);
  } catch (error) {
    return giveUp(error);
  }
}

/** Backups and exports that are sent at once. */
const MAX_STREAMS = 3;

const config = configOrGiveUp();
const log = pino({ level: config.logLevel });
const root = process.cwd();

await migrate(config.databaseUrl, path.join(root, 'db/migrations')).catch((error: unknown) => {
  if (error instanceof NewerDatabase) giveUp(error);
  throw error;
});
const onLost = ({ message }: Error) => log.warn(`database connection lost: ${message}`);
const db = connect(config.databaseUrl, onLost);
const streams = connect(config.databaseUrl, onLost, MAX_STREAMS);
await deleteStaleImports(db);

const webDir = path.join(root, 'dist/web');
// While the pages are worked on they come from elsewhere, and nothing is built.
const pages = existsSync(webDir) ? { webDir } : {};
// Bundled it stands beside this file; while the server is worked on it is the source.
const jobsScript = import.meta.url.endsWith('.ts') ? './jobs/jobs.worker.ts' : './jobs.worker.js';
const pool = jobPool(new URL(jobsScript, import.meta.url));
const { jobs } = pool;
if (config.loadDemo) await loadDemo(db, jobs, path.join(root, 'demo'));
const queue = await startCounting({ db, databaseUrl: config.databaseUrl, jobs, log });
const app = createApp({
  db,
  streams,
  log,
  jobs,
  ...pages,
  allowedHosts: config.allowedHosts,
  askForCounting: queue.ask,
  askForAbility: queue.askForAbility,
  demoDir: path.join(root, 'demo'),
  copiesFolder: config.copiesFolder,
  door:
    config.secret === null
      ? machineKeys(config.machineKey ?? randomBytes(32).toString('hex'), config.linkKey, isOwnUser(process.getuid?.()))
      : lastingKey(config.secret),
});
const copies = keepDailyCopies({ db, jobs, folder: config.copiesFolder, log });
const server = app.listen(config.port, config.host, (error) => {
  if (error) {
    process.send?.({ kind: 'failed', message: error.message });
    throw error;
  }
  const address = server.address();
  const port = typeof address === 'object' && address ? address.port : config.port;
  process.send?.({ kind: 'listening', url: `http://${config.host}:${port}` });
});

// The queue tells the database of finished jobs unwatched: a database that is away then is no reason to end.
process.on('unhandledRejection', (error) => log.error({ err: error }, 'a step in the background failed'));

// Longer than a browser keeps an idle connection: one closed just as the next request is sent down it would lose it.
server.keepAliveTimeout = 75_000;

let stopping = false;
function stop(): void {
  if (stopping) return;
  stopping = true;
  copies.stop();
  const counting = queue.stop().finally(() => pool.stop());
  server.close(() => void counting.then(() => db.end()).finally(() => process.exit(0)));
  server.closeIdleConnections();
  setTimeout(() => process.exit(0), 3000).unref();
}

process.on('SIGTERM', stop);
process.on('SIGINT', stop);
// The process that started this one is gone, however it went.
process.on('disconnect', stop);
