// Browser tests against the built app; further arguments go to Playwright.
import { join } from 'node:path';
import { ROOT } from './lib/root.mjs';
import { run } from './lib/run.mjs';
import { startTestServer } from './lib/testServer.mjs';

const { url, stop } = await startTestServer('e2e-postgres');
try {
  await run(process.execPath, [join(ROOT, 'node_modules/@playwright/test/cli.js'), 'test', ...process.argv.slice(2)], {
    env: { ...process.env, BASE_URL: url },
  });
} catch {
  process.exitCode = 1;
} finally {
  await stop();
}
