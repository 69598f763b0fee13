// Builds the pages with Vite and bundles the server; packages stay outside the bundle.
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'esbuild';
import { build as buildWeb } from 'vite';
import { ROOT } from './lib/root.mjs';

rmSync(join(ROOT, 'dist'), { recursive: true, force: true });
await build({
  entryPoints: [join(ROOT, 'src/server/main.ts'), join(ROOT, 'src/server/jobs/jobs.worker.ts')],
  entryNames: '[name]',
  outdir: join(ROOT, 'dist/server'),
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  packages: 'external',
  // The project's own # imports are part of the bundle.
  plugins: [
    {
      name: 'own-imports',
      setup(bundler) {
        bundler.onResolve({ filter: /^#(core|formats)\// }, ({ path }) => ({
          path: join(ROOT, 'src', path.slice(1), 'index.ts'),
        }));
        bundler.onResolve({ filter: /^#(contract|words)\// }, ({ path }) => ({
          path: join(ROOT, 'src', `${path.slice(1)}.ts`),
        }));
      },
    },
  ],
  logLevel: 'warning',
});
await buildWeb({ root: ROOT, logLevel: 'warn' });
