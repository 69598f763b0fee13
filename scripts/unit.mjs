// Unit and API tests; further arguments go to Jest.
import { join } from 'node:path';
import { ensureAbcPlayer } from './lib/debian.mjs';
import { ensureModules } from './lib/stamps.mjs';
import { ROOT } from './lib/root.mjs';
import { run } from './lib/run.mjs';

await ensureModules();
await ensureAbcPlayer();
try {
  await run(process.execPath, [join(ROOT, 'node_modules/jest/bin/jest.js'), ...process.argv.slice(2)]);
} catch {
  process.exitCode = 1;
}
