import { defineConfig } from '@playwright/test';

const json = process.env.PLAYWRIGHT_JSON;

export default defineConfig({
  testDir: 'e2e',
  outputDir: 'test-results',
  timeout: 45_000,
  expect: { timeout: 8_000 },
  workers: 1,
  reporter: json ? [['list'], ['json', { outputFile: json }]] : [['list']],
  use: {
    baseURL: process.env.BASE_URL,
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
      ],
    },
  },
});
