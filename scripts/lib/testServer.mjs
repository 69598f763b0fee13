// The built app on a throw-away database, for browser tests, benchmarks and pictures.
import { fork } from 'node:child_process';
import { join } from 'node:path';
import { ensureChromium, ensurePostgres } from './debian.mjs';
import { startPostgres } from './postgres.mjs';
import { ROOT } from './root.mjs';
import { ensureBuild, ensureModules } from './stamps.mjs';

/** Sets up what is missing, starts database and server with the demo tunes; `stop` ends both. */
export async function startTestServer(name) {
  await ensureModules();
  const bin = await ensurePostgres();
  await ensureChromium();
  await ensureBuild();
  const database = await startPostgres(bin, name, { throwaway: true });
  const server = fork(join(ROOT, 'dist/server/main.js'), [], {
    cwd: ROOT,
    env: { ...process.env, DATABASE_URL: database.url, MORRIN_PORT: '0', MORRIN_DEMO: '1' },
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
  });
  const url = await new Promise((resolve, reject) => {
    server.on('message', (message) =>
      message.kind === 'listening' ? resolve(message.url) : reject(new Error(message.message)),
    );
    server.once('exit', (code) => reject(new Error(`The server ended with ${code}.`)));
  });
  const stop = async () => {
    server.removeAllListeners('exit');
    server.kill('SIGTERM');
    await database.stop();
  };
  return { url, stop, databaseUrl: database.url };
}
