import { type ChildProcess, fork, spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import pg from 'pg';

/** The built server as a process of its own, on a database of its own. */
export interface RunningServer {
  readonly url: string;
  readonly databaseUrl: string;
  readonly child: ChildProcess;
  readonly stop: () => Promise<void>;
}

export async function query<T extends object>(databaseUrl: string, text: string, values: unknown[] = []): Promise<T[]> {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  try {
    return (await client.query<T>(text, values)).rows;
  } finally {
    await client.end();
  }
}

/** Starts the built server on an empty book in the run's throw-away cluster. */
export async function startServer(name: string, env: Readonly<Record<string, string>> = {}): Promise<RunningServer> {
  const base = process.env.TEST_DATABASE_URL!;
  await query(base, `CREATE DATABASE ${pg.escapeIdentifier(name)} TEMPLATE template1`);
  const address = new URL(base);
  address.pathname = `/${name}`;
  const copies = mkdtempSync(path.join(tmpdir(), 'morrin-copies-'));
  const child = fork(path.resolve('dist/server/main.js'), [], {
    env: {
      ...process.env,
      DATABASE_URL: address.href,
      MORRIN_PORT: '0',
      MORRIN_DEMO: '0',
      MORRIN_COPIES: copies,
      ...env,
    },
    execArgv: [],
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
  });
  const ended = once(child, 'exit').then(([code]) =>
    Promise.reject(new Error(`the server ended with ${String(code)}`)),
  );
  ended.catch(() => undefined);
  const [message] = (await Promise.race([once(child, 'message'), ended])) as [{ url?: string; message?: string }];
  if (!message.url) throw new Error(message.message);
  return {
    url: message.url,
    databaseUrl: address.href,
    child,
    stop: async () => {
      if (child.exitCode === null && child.signalCode === null) {
        child.kill('SIGTERM');
        await once(child, 'exit');
      }
      rmSync(copies, { recursive: true, force: true });
    },
  };
}

/** By how much a process that does nothing was delayed since it was last asked, in ms: the machine's own share of every delay. */
export async function idleProcess(): Promise<{ readonly maxMs: () => Promise<number>; readonly stop: () => void }> {
  const script = `
    const { monitorEventLoopDelay } = require('node:perf_hooks');
    const delays = monitorEventLoopDelay({ resolution: 5 }); delays.enable();
    process.on('message', () => { process.send(delays.max * 1e-6 - 5); delays.reset(); });
    process.send('ready');`;
  const child = spawn(process.execPath, ['-e', script], { stdio: ['ignore', 'inherit', 'inherit', 'ipc'] });
  await once(child, 'message');
  return {
    maxMs: async () => {
      const answer = once(child, 'message');
      child.send('?');
      return Math.max(0, (await answer)[0] as number);
    },
    stop: () => child.kill(),
  };
}
