// Unit and API tests; further arguments go to Jest: `npm run unit -- src/core/bowing` runs one folder's.
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './lib/root.mjs';
import { run } from './lib/run.mjs';
import { ensureModules } from './lib/stamps.mjs';

const jest = join(ROOT, 'node_modules/jest/bin/jest.js');
// What a test needs of the system its own project sets up; a pure one waits for nothing.
if (!existsSync(jest)) await ensureModules();
try {
  await run(process.execPath, [jest, ...process.argv.slice(2)]);
} catch {
  process.exitCode = 1;
}
