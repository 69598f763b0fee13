// `npm start`: sets up what is missing, starts database and server, keeps both running until Ctrl-C.
import { fork } from 'node:child_process';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { ensurePostgres } from './lib/debian.mjs';
import { noteAddress, releaseLock, takeLock } from './lib/lock.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { ROOT } from './lib/root.mjs';
import { ensureBuild, ensureModules } from './lib/stamps.mjs';

const PREFERRED_PORT = 4710;
/** More restarts than this within a minute mean that something is wrong that a restart does not mend. */
const MOST_RESTARTS = 5;

const lock = takeLock();
if (!lock.ok) {
  console.log(
    lock.url ? `Morrin is already running at ${lock.url}` : `Morrin is already being started by process ${lock.pid}.`,
  );
  process.exit(0);
}

let stopping = false;
let database = null;
let server = null;
const restarts = [];

async function stop(code) {
  if (stopping) return;
  stopping = true;
  if (server && server.exitCode === null) {
    const gone = new Promise((resolve) => server.once('exit', resolve));
    server.kill('SIGTERM');
    await Promise.race([gone, new Promise((resolve) => setTimeout(resolve, 4000))]);
    server.kill('SIGKILL');
  }
  await database?.stop();
  releaseLock();
  process.exit(code);
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop(0));

function mayRestart(what) {
  const now = Date.now();
  restarts.push(now);
  if (restarts.filter((time) => now - time < 60_000).length <= MOST_RESTARTS) return true;
  console.error(`The ${what} keeps ending. Stopping.`);
  void stop(1);
  return false;
}

async function startDatabase(bin) {
  database = await startPostgres(bin, 'postgres');
  database.child.once('exit', () => {
    if (stopping || !mayRestart('database')) return;
    console.log('The database ended; starting it again.');
    // Its port may differ, so the server starts anew with it.
    startDatabase(bin).then(
      () => server?.kill('SIGTERM'),
      (error) => fail(error),
    );
  });
}

function portIsFree(port) {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', () => resolve(false));
    probe.listen(port, '127.0.0.1', () => probe.close(() => resolve(true)));
  });
}

async function startServer(port) {
  server = fork(join(ROOT, 'dist/server/main.js'), [], {
    cwd: ROOT,
    env: {
      ...process.env,
      DATABASE_URL: database.url,
      MORRIN_PORT: String(port),
      MORRIN_DEMO: process.env.MORRIN_DEMO ?? '1',
    },
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
  });
  const child = server;
  const url = await new Promise((resolve, reject) => {
    child.on('message', (message) =>
      message.kind === 'listening' ? resolve(message.url) : reject(new Error(message.message)),
    );
    child.once('exit', (code) => reject(new Error(`The server ended with ${code} before it listened.`)));
  });
  child.removeAllListeners('exit');
  child.once('exit', () => {
    if (stopping || !mayRestart('server')) return;
    console.log('The server ended; starting it again.');
    startServer(Number(new URL(url).port)).catch(fail);
  });
  noteAddress(url);
  return url;
}

function fail(error) {
  if (stopping) return;
  console.error(`\n${error.message}`);
  void stop(1);
}

try {
  await ensureModules();
  const bin = await ensurePostgres();
  await ensureBuild();
  await startDatabase(bin);
  const wanted = process.env.MORRIN_PORT ? Number(process.env.MORRIN_PORT) : PREFERRED_PORT;
  const port = process.env.MORRIN_PORT || (await portIsFree(wanted)) ? wanted : 0;
  const url = await startServer(port);
  console.log(`\nMorrin is ready: ${url}\nCtrl-C stops it.`);
} catch (error) {
  fail(error);
}
