import { z } from 'zod';

const configSchema = z.object({
  DATABASE_URL: z.string().min(1, 'expected the address of a PostgreSQL database'),
  MORRIN_HOST: z.string().default('127.0.0.1'),
  MORRIN_PORT: z.coerce.number().int().min(0).max(65535).default(4710),
  /** Further host names the server may be asked for by, comma-separated; loopback names always are. */
  MORRIN_ALLOWED_HOSTS: z.string().default(''),
  MORRIN_LOG: z.enum(['silent', 'error', 'warn', 'info', 'debug']).default('warn'),
  /** `1`: loads the demo tunes into an empty book. */
  MORRIN_DEMO: z.enum(['0', '1']).default('0'),
});

export interface Config {
  readonly databaseUrl: string;
  readonly host: string;
  readonly port: number;
  readonly allowedHosts: readonly string[];
  readonly logLevel: 'silent' | 'error' | 'warn' | 'info' | 'debug';
  readonly loadDemo: boolean;
}

/** All settings of the server, parsed once. */
export function readConfig(env: NodeJS.ProcessEnv): Config {
  const parsed = configSchema.parse(env);
  return {
    databaseUrl: parsed.DATABASE_URL,
    host: parsed.MORRIN_HOST,
    port: parsed.MORRIN_PORT,
    allowedHosts: parsed.MORRIN_ALLOWED_HOSTS.split(',')
      .map((host) => host.trim())
      .filter((host) => host !== ''),
    logLevel: parsed.MORRIN_LOG,
    loadDemo: parsed.MORRIN_DEMO === '1',
  };
}
