// `npm test`: sets up what is missing, then types, lint and layers, Jest, Playwright; ends with `N passed, N failed`.
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureAbcPlayer, ensureChromium, ensurePostgres } from './lib/debian.mjs';
import { ROOT } from './lib/root.mjs';
import { run } from './lib/run.mjs';
import { ensureBuild, ensureModules } from './lib/stamps.mjs';

const RESULTS = join(ROOT, '.data', 'test-results');
const counts = { passed: 0, failed: 0 };

/** Runs a step that counts as one test. */
async function check(name, command, args) {
  console.log(`\n— ${name}`);
  try {
    await run(command, args);
    counts.passed += 1;
  } catch (error) {
    console.error(error.message);
    counts.failed += 1;
  }
}

/** Runs a test runner and adds what its result file counts; a runner that wrote none has failed. */
async function suite(name, args, env, file, read) {
  console.log(`\n— ${name}`);
  const result = join(RESULTS, file);
  const ended = await run(process.execPath, args(result), { env: { ...process.env, ...env } }).then(
    () => true,
    () => false,
  );
  try {
    const { passed, failed } = read(JSON.parse(readFileSync(result, 'utf8')));
    counts.passed += passed;
    counts.failed += failed;
    if (!ended && failed === 0) counts.failed += 1;
  } catch {
    console.error(`${name} left no result.`);
    counts.failed += 1;
  }
}

await ensureModules();
await ensurePostgres();
await ensureChromium();
await ensureAbcPlayer();
rmSync(RESULTS, { recursive: true, force: true });
mkdirSync(RESULTS, { recursive: true });

const bin = (name) => join(ROOT, 'node_modules', name);
await check('types', process.execPath, [bin('typescript/bin/tsc'), '-b']);
await check('lint', process.execPath, [bin('eslint/bin/eslint.js'), '.', '--max-warnings', '0']);
await check('format', process.execPath, [bin('prettier/bin/prettier.cjs'), '--check', '--log-level', 'warn', '.']);
await check('layers', process.execPath, [
  bin('dependency-cruiser/bin/dependency-cruise.mjs'),
  '--config',
  '.dependency-cruiser.cjs',
  '--output-type',
  'err',
  'src',
  'e2e',
]);
await check('unused code', process.execPath, [bin('knip/bin/knip.js')]);
await suite(
  'unit and API tests',
  (result) => [bin('jest/bin/jest.js'), '--json', `--outputFile=${result}`],
  {},
  'jest.json',
  ({ numPassedTests, numFailedTests, numRuntimeErrorTestSuites }) => ({
    passed: numPassedTests,
    failed: numFailedTests + numRuntimeErrorTestSuites,
  }),
);
await ensureBuild();
await suite(
  'browser stories',
  () => [join(ROOT, 'scripts/e2e.mjs')],
  { PLAYWRIGHT_JSON: join(RESULTS, 'playwright.json') },
  'playwright.json',
  ({ stats }) => ({ passed: stats.expected + stats.flaky, failed: stats.unexpected }),
);

console.log(`\n${counts.passed} passed, ${counts.failed} failed`);
process.exitCode = counts.failed === 0 && counts.passed > 0 ? 0 : 1;
