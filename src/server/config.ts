import path from 'node:path';
import { z } from 'zod';

/** Letters of a key that nobody guesses. */
const MIN_SECRET = 16;
/** Names of this machine, for itself alone. */
const LOOPBACK = ['127.0.0.1', '::1', 'localhost'];

const configSchema = z.object({
  DATABASE_URL: z.string().min(1, 'expected the address of a PostgreSQL database'),
  MORRIN_HOST: z.string().default('127.0.0.1'),
  /** The key by which others are let in where the server listens beyond this machine. */
  MORRIN_SECRET: z.string().min(MIN_SECRET, `expected at least ${MIN_SECRET} letters`).optional(),
  /** What the cookies of this machine are made from, the same after each start, and the key of the one link of this start. */
  MORRIN_MACHINE_KEY: z.string().min(MIN_SECRET).optional(),
  MORRIN_LINK_KEY: z.string().min(MIN_SECRET).optional(),
  MORRIN_PORT: z.coerce.number().int().min(0).max(65535).default(4710),
  /** Further host names the server may be asked for by, comma-separated; loopback names always are. */
  MORRIN_ALLOWED_HOSTS: z.string().default(''),
  MORRIN_LOG: z.enum(['silent', 'error', 'warn', 'info', 'debug']).default('warn'),
  /** Folder for the copies of the book that are made each day and before a backup is taken back. */
  MORRIN_COPIES: z.string().min(1).default('.data/copies'),
  /** `1`: loads the demo tunes into an empty book. */
  MORRIN_DEMO: z.enum(['0', '1']).default('0'),
});

export interface Config {
  readonly databaseUrl: string;
  readonly host: string;
  readonly port: number;
  readonly allowedHosts: readonly string[];
  readonly logLevel: 'silent' | 'error' | 'warn' | 'info' | 'debug';
  readonly copiesFolder: string;
  /** null: it listens on this machine alone, and its user is let in. */
  readonly secret: string | null;
  readonly machineKey: string | null;
  readonly linkKey: string | null;
  readonly loadDemo: boolean;
}

/** All settings of the server, parsed once. */
export function readConfig(env: NodeJS.ProcessEnv): Config {
  const parsed = configSchema.parse(env);
  if (!LOOPBACK.includes(parsed.MORRIN_HOST) && parsed.MORRIN_SECRET === undefined)
    throw new Error(
      `MORRIN_HOST=${parsed.MORRIN_HOST} would open the book to everybody who reaches this machine: expected a key of ${MIN_SECRET} letters or more in MORRIN_SECRET.`,
    );
  return {
    databaseUrl: parsed.DATABASE_URL,
    host: parsed.MORRIN_HOST,
    port: parsed.MORRIN_PORT,
    allowedHosts: parsed.MORRIN_ALLOWED_HOSTS.split(',')
      .map((host) => host.trim())
      .filter((host) => host !== ''),
    logLevel: parsed.MORRIN_LOG,
    secret: parsed.MORRIN_SECRET ?? null,
    machineKey: parsed.MORRIN_MACHINE_KEY ?? null,
    linkKey: parsed.MORRIN_LINK_KEY ?? null,
    copiesFolder: path.resolve(parsed.MORRIN_COPIES),
    loadDemo: parsed.MORRIN_DEMO === '1',
  };
}
