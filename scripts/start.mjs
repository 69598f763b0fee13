// `npm start`: sets up what is missing, starts database and server, keeps both running until Ctrl-C.
import { fork } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { once } from 'node:events';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { keepRunning } from './lib/backoff.mjs';
import { ensurePostgres } from './lib/debian.mjs';
import { noteAddress, releaseLock, takeLock } from './lib/lock.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { ROOT } from './lib/root.mjs';
import { ensureBuild, ensureModules } from './lib/stamps.mjs';

const PREFERRED_PORT = 4710;

const lock = takeLock();
if (!lock.ok) {
  console.log(
    lock.url ? `Morrin is already running at ${lock.url}` : `Morrin is already being started by process ${lock.pid}.`,
  );
  process.exit(0);
}

/** Where the system tells which user is at the other end of a connection, the server knows its own. */
const KNOWS_USERS = existsSync('/proc/net/tcp');
const linkKey = randomBytes(16).toString('hex');
/** Whether it was told where it listens. */
let isTold = false;
let stopping = false;
let database = null;
let server = null;
/** Where it listens; kept when it is started again, so that open pages find it. */
let port = null;

async function stop(code) {
  if (stopping) return;
  stopping = true;
  if (server && server.exitCode === null && server.signalCode === null) {
    const gone = once(server, 'exit');
    server.kill('SIGTERM');
    await Promise.race([gone, new Promise((resolve) => setTimeout(resolve, 4000))]);
    server.kill('SIGKILL');
  }
  await database?.stop();
  releaseLock();
  process.exit(code);
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop(0));

function fail(error) {
  if (stopping) return;
  console.error(`\n${error.message}`);
  void stop(1);
}

const isStopping = () => stopping;
const telling = (what) => (failure, wait) =>
  console.log(
    `The ${what} ${failure ? `did not start: ${failure.message.split('\n')[0]}` : 'ended'}; it is tried again in ${(wait / 1000).toFixed(1)} s.`,
  );

/** Runs the database; `onReady` is told its address each time it is up. */
function keepDatabase(bin, onReady) {
  return keepRunning({
    isStopping,
    tell: telling('database'),
    start: async () => {
      database = await startPostgres(bin, 'postgres');
      const { child } = database;
      const ended = child.exitCode === null && child.signalCode === null ? once(child, 'exit') : Promise.resolve();
      onReady();
      return { ended };
    },
  });
}

/** Runs the server; `onReady` is told where it listens when it does for the first time. */
function keepServer(onReady) {
  return keepRunning({
    isStopping,
    tell: telling('server'),
    start: async () => {
      const child = fork(join(ROOT, 'dist/server/main.js'), [], {
        cwd: ROOT,
        env: {
          ...process.env,
          DATABASE_URL: database.url,
          MORRIN_PORT: String(port),
          MORRIN_MACHINE_KEY: machineKey(),
          // The link of this start is used up with the first server: one that is started again has none.
          ...(isTold ? {} : { MORRIN_LINK_KEY: linkKey }),
          MORRIN_DEMO: process.env.MORRIN_DEMO ?? '1',
        },
        stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
      });
      server = child;
      const ended = once(child, 'exit');
      const [url, failure] = await Promise.race([
        once(child, 'message').then(([message]) =>
          message.kind === 'listening' ? [message.url, null] : [null, message],
        ),
        ended.then(([code]) => [null, { message: `It ended with ${code} before it listened.` }]),
      ]);
      if (failure !== null) {
        child.kill('SIGKILL');
        throw Object.assign(new Error(failure.message), { isFinal: failure.isFinal === true });
      }
      port = Number(new URL(url).port);
      noteAddress(url);
      onReady(url);
      return { ended };
    },
  });
}

/** What the cookies of this installation are made from; made at the first start, readable by its user alone. */
function machineKey() {
  const file = join(ROOT, '.data', 'machine-key');
  if (!existsSync(file)) {
    mkdirSync(join(ROOT, '.data'), { recursive: true });
    writeFileSync(file, randomBytes(32).toString('hex'), { mode: 0o600 });
  }
  return readFileSync(file, 'utf8');
}

function portIsFree(wanted) {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', () => resolve(false));
    probe.listen(wanted, '127.0.0.1', () => probe.close(() => resolve(true)));
  });
}

/** The port that is asked for; without one the usual, or any that is free. */
async function choosePort() {
  const asked = process.env.MORRIN_PORT;
  if (!asked) return (await portIsFree(PREFERRED_PORT)) ? PREFERRED_PORT : 0;
  const wanted = Number(asked);
  if (!/^\d+$/.test(asked) || wanted > 65535)
    throw new Error(`MORRIN_PORT: expected a port from 0 to 65535, got ${asked}`);
  if (wanted > 0 && !(await portIsFree(wanted)))
    throw new Error(`MORRIN_PORT: ${wanted} is taken by another program. Choose another, or leave it out.`);
  return wanted;
}

try {
  port = await choosePort();
  await ensureModules();
  const bin = await ensurePostgres();
  await ensureBuild();
  let isFirst = true;
  await new Promise((resolve, reject) => {
    keepDatabase(bin, () => {
      // Its address may be another, so the server starts anew with it.
      if (!isFirst) server?.kill('SIGTERM');
      isFirst = false;
      resolve();
    }).catch(reject);
  });
  keepServer((url) => {
    const key = process.env.MORRIN_SECRET ? ' (the first time with ?key= and the key behind it)' : '';
    const others = process.env.MORRIN_SECRET
      ? ''
      : `\n${KNOWS_USERS ? 'Another user of this machine comes in once by' : 'The first time open'} ${url}/?key=${linkKey}`;
    if (!isTold) console.log(`\nMorrin is ready: ${url}${key}${others}\nCtrl-C stops it.`);
    isTold = true;
  }).catch(fail);
} catch (error) {
  fail(error);
}
