// Unit and API tests; further arguments go to Jest.
import { join } from 'node:path';
import { ensureModules } from './lib/stamps.mjs';
import { ROOT } from './lib/root.mjs';
import { run } from './lib/run.mjs';

await ensureModules();
try {
  await run(process.execPath, [join(ROOT, 'node_modules/jest/bin/jest.js'), ...process.argv.slice(2)]);
} catch {
  process.exitCode = 1;
}
