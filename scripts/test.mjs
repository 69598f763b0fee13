// `npm test`: sets up what is missing, then types, lint and layers, Jest, Playwright, side by side where there is room;
// ends with `N passed, N failed`. With --deep everything in full size: TEST_SHARE=1, and both compilers.
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { ensurePackages } from './lib/debian.mjs';
import { ROOT } from './lib/root.mjs';
import { runNamed } from './lib/run.mjs';
import { ensureBuild, ensureModules } from './lib/stamps.mjs';
import { runSteps } from './lib/steps.mjs';
import { testCluster } from './lib/testCluster.mjs';

const RESULTS = join(ROOT, '.data', 'test-results');
const deep = process.argv.includes('--deep');
if (deep) process.env.TEST_SHARE = '1';
const begun = performance.now();

await Promise.all([
  ensureModules(),
  ensurePackages(['postgresql', 'chromium', 'abcmidi', ...(deep ? ['fluidsynth', 'fluid-soundfont-gm'] : [])]),
]);
const setUpSeconds = (performance.now() - begun) / 1000;
rmSync(RESULTS, { recursive: true, force: true });
mkdirSync(RESULTS, { recursive: true });

// The cluster starts while the checks run; the tests of server and pages have their databases in it.
const cluster = testCluster('test-postgres').then((started) => {
  process.env.TEST_DATABASE_URL = started.url;
  return started;
});
cluster.catch(() => undefined);

/** A command that counts as one test. */
const check = (name, script, size = 1) => ({
  name,
  size,
  run: async () => {
    await runNamed(name, 'npm', ['run', '-s', script]);
    return { passed: 1, failed: 0 };
  },
});

/** A test runner, counted by its result file; one that wrote none, or ended badly without a failed test, has failed. */
const suite = (name, args, env, file, read) => ({
  name,
  size: 2,
  run: async () => {
    await cluster;
    const result = join(RESULTS, file);
    const ended = await runNamed(name, process.execPath, args(result), { env: { ...process.env, ...env } }).then(
      () => true,
      () => false,
    );
    const { passed, failed } = read(JSON.parse(readFileSync(result, 'utf8')));
    return { passed, failed: failed === 0 && !ended ? 1 : failed };
  },
});

/** Jest over some of its projects. */
const jest = (name, projects) =>
  suite(
    name,
    (result) => [
      join(ROOT, 'node_modules/jest/bin/jest.js'),
      '--json',
      `--outputFile=${result}`,
      '--selectProjects',
      ...projects,
    ],
    {},
    `${name}.json`,
    ({ numPassedTests, numFailedTests, numRuntimeErrorTestSuites }) => ({
      passed: numPassedTests,
      failed: numFailedTests + numRuntimeErrorTestSuites,
    }),
  );

const build = {
  name: 'build',
  size: 1,
  run: async () => {
    await ensureBuild();
    return { passed: 1, failed: 0 };
  },
};

const results = await runSteps(
  [
    check('lint', 'check:lint'),
    check('types', 'check:types'),
    build,
    check('format', 'check:format'),
    check('unused', 'check:unused'),
    check('layers', 'check:layers'),
    ...(deep
      ? [check('types 6', 'check:types6'), check('calibration', 'calibration'), check('listening', 'listening')]
      : []),
    jest('unit', ['core', 'cli', 'server', 'web']),
    suite(
      'stories',
      () => [join(ROOT, 'scripts/e2e.mjs')],
      { PLAYWRIGHT_JSON: join(RESULTS, 'playwright.json') },
      'playwright.json',
      ({ stats }) => ({ passed: stats.expected + stats.flaky, failed: stats.unexpected }),
    ),
    jest('attacks', ['attacks']),
  ],
  Math.max(2, availableParallelism()),
);
await cluster.then(({ stop }) => stop()).catch(() => undefined);

const sum = (what) => results.reduce((total, result) => total + result[what], 0);
const minutes = (seconds) => `${Math.floor(seconds / 60)} min ${Math.round(seconds % 60)} s`;
console.log('');
if (setUpSeconds > 1) console.log(`setting up ${minutes(setUpSeconds)}`);
for (const { name, seconds, failed } of results)
  console.log(`${name.padEnd(10)} ${minutes(seconds).padStart(12)}${failed > 0 ? `   ${failed} failed` : ''}`);
console.log(`in all ${minutes((performance.now() - begun) / 1000)}\n`);
console.log(`${sum('passed')} passed, ${sum('failed')} failed`);
process.exitCode = sum('failed') === 0 && sum('passed') > 0 ? 0 : 1;
