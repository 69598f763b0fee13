// `npm run dev`: pages with hot reload, the server started anew on every change, a database of its own.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { ensurePostgres } from './lib/debian.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { ROOT } from './lib/root.mjs';
import { ensureModules } from './lib/stamps.mjs';

/** Where vite.config.ts sends what begins with /api. */
const SERVER_PORT = '4711';

await ensureModules();
const database = await startPostgres(await ensurePostgres(), 'dev-postgres');
const bin = (path) => join(ROOT, 'node_modules', path);
const start = (args, env = {}) =>
  spawn(process.execPath, args, { cwd: ROOT, stdio: 'inherit', env: { ...process.env, ...env } });
const children = [
  start([bin('tsx/dist/cli.mjs'), 'watch', '--clear-screen=false', 'src/server/main.ts'], {
    DATABASE_URL: database.url,
    MORRIN_PORT: SERVER_PORT,
    MORRIN_DEMO: '1',
    MORRIN_LOG: 'info',
  }),
  start([bin('vite/bin/vite.js'), '--host', '127.0.0.1']),
];

let stopping = false;
async function stop(code) {
  if (stopping) return;
  stopping = true;
  for (const child of children) child.kill('SIGTERM');
  await database.stop();
  process.exit(code);
}
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => void stop(0));
for (const child of children) child.once('exit', () => void stop(1));
