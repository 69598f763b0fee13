// The built app on a throw-away database, for browser tests, benchmarks and pictures.
import { fork } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensurePackages } from './debian.mjs';
import { ROOT } from './root.mjs';
import { ensureBuild, ensureModules } from './stamps.mjs';
import { createDatabase, testCluster } from './testCluster.mjs';

/** One server with the demo tunes; `stop` ends it and its database. */
export async function startTestServer(name) {
  const { servers, stop } = await startTestServers(name, 1);
  return { ...servers[0], stop };
}

/** Sets up what is missing and starts servers, each on a database of its own with the demo tunes; `stop` ends all. */
export async function startTestServers(name, count) {
  await Promise.all([ensureModules(), ensurePackages(['postgresql', 'chromium'])]);
  await ensureBuild();
  const cluster = await testCluster(`${name}-postgres`);
  const started = await Promise.all(
    Array.from({ length: count }, async (_, i) => {
      const databaseUrl = await createDatabase(cluster.url, `${name}_${i + 1}`);
      return { databaseUrl, ...(await startServer(databaseUrl)) };
    }),
  );
  const stop = async () => {
    await Promise.all(
      started.map(async ({ server, copies }) => {
        server.removeAllListeners('exit');
        if (server.exitCode === null && server.signalCode === null) {
          server.kill('SIGTERM');
          await once(server, 'exit');
        }
        rmSync(copies, { recursive: true, force: true });
      }),
    );
    await cluster.stop();
  };
  return { servers: started.map(({ url, databaseUrl }) => ({ url, databaseUrl })), stop };
}

async function startServer(databaseUrl) {
  const copies = mkdtempSync(join(tmpdir(), 'morrin-copies-'));
  const server = fork(join(ROOT, 'dist/server/main.js'), [], {
    cwd: ROOT,
    env: { ...process.env, DATABASE_URL: databaseUrl, MORRIN_PORT: '0', MORRIN_DEMO: '1', MORRIN_COPIES: copies },
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
  });
  const url = await new Promise((resolve, reject) => {
    server.on('message', (message) =>
      message.kind === 'listening' ? resolve(message.url) : reject(new Error(message.message)),
    );
    server.once('exit', (code) => reject(new Error(`The server ended with ${code}.`)));
  });
  return { server, url, copies };
}
