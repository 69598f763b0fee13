import { TEST_SHARE } from './scripts/lib/share.mjs';

const swc = (tsx) => [
  '@swc/jest',
  {
    jsc: {
      parser: { syntax: 'typescript', tsx },
      target: 'es2022',
      transform: tsx ? { react: { runtime: 'automatic' } } : undefined,
    },
    module: { type: 'commonjs' },
  },
];

const common = {
  globals: { TEST_SHARE },
  transform: { '\\.ts$': swc(false), '\\.tsx$': swc(true), '\\.js$': swc(false) },
  transformIgnorePatterns: ['/node_modules/(?!(vexflow|pitchy|p-queue|p-timeout|d3-path)/)'],
  moduleFileExtensions: ['ts', 'tsx', 'js', 'mjs', 'cjs', 'json'],
  moduleNameMapper: {
    '^#(core|formats)/(.*)$': '<rootDir>/src/$1/$2/index.ts',
    '^#(contract|words)/(.*)$': '<rootDir>/src/$1/$2.ts',
    // What Vite gives the address of.
    '\\?(url|worker)': '<rootDir>/scripts/testUrl.js',
  },
};

export default {
  cacheDirectory: '<rootDir>/node_modules/.cache/jest',
  maxWorkers: '100%',
  // A maximum, not a wait: a machine that is busy with something else is slow, and no test is about that.
  testTimeout: 60_000,
  projects: [
    {
      ...common,
      displayName: 'core',
      testEnvironment: 'node',
      testMatch: ['<rootDir>/src/{core,formats,contract,words}/**/*.test.ts'],
    },
    {
      ...common,
      displayName: 'cli',
      testEnvironment: 'node',
      testMatch: ['<rootDir>/src/cli/**/*.test.ts'],
      globalSetup: '<rootDir>/scripts/testPlayer.mjs',
    },
    {
      ...common,
      displayName: 'server',
      testEnvironment: 'node',
      testMatch: ['<rootDir>/src/server/**/*.test.ts'],
      globalSetup: '<rootDir>/scripts/testDatabase.mjs',
      globalTeardown: '<rootDir>/scripts/testDatabaseStop.mjs',
    },
    {
      ...common,
      displayName: 'attacks',
      testEnvironment: 'node',
      testMatch: ['<rootDir>/attacks/**/*.test.ts'],
      globalSetup: '<rootDir>/scripts/testDatabase.mjs',
      globalTeardown: '<rootDir>/scripts/testDatabaseStop.mjs',
    },
    {
      ...common,
      displayName: 'web',
      testEnvironment: '<rootDir>/scripts/pageEnvironment.mjs',
      setupFiles: ['<rootDir>/scripts/testPage.js'],
      testMatch: ['<rootDir>/src/web/**/*.test.{ts,tsx}'],
    },
  ],
};
