// `npm run watch`: types, and the tests of what has changed since the last commit, again with each change.
import { join } from 'node:path';
import { ROOT } from './lib/root.mjs';
import { run, runNamed } from './lib/run.mjs';
import { ensureModules } from './lib/stamps.mjs';

await ensureModules();
const stop = new AbortController();
const types = runNamed(
  'types',
  process.execPath,
  [join(ROOT, 'node_modules/typescript7/bin/tsc'), '-b', '--watch', '--preserveWatchOutput'],
  { signal: stop.signal },
);
types.catch(() => undefined);
await run(process.execPath, [join(ROOT, 'node_modules/jest/bin/jest.js'), '--watch', ...process.argv.slice(2)]).catch(
  () => undefined,
);
stop.abort();
