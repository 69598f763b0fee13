import { defineConfig } from '@playwright/test';

const json = process.env.PLAYWRIGHT_JSON;
/** One server with its own book for each worker. */
const servers = JSON.parse(process.env.STORY_SERVERS ?? '[]') as { url: string; databaseUrl: string }[];

Object.assign(globalThis, { TEST_SHARE: Number(process.env.TEST_SHARE) });

export default defineConfig({
  testDir: 'e2e',
  outputDir: 'test-results',
  timeout: 120_000,
  expect: { timeout: 20_000 },
  fullyParallel: true,
  workers: Math.max(1, servers.length),
  reporter: json ? [['list'], ['json', { outputFile: json }]] : [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--process-per-site',
      ],
    },
  },
});
