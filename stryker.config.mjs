// A mutation pass over the core: npm run mutate -- --mutate 'core/src/run/**/*.ts'
/** @type {import('@stryker-mutator/core').PartialStrykerOptions} */
export default {
  mutate: ['core/src/**/*.ts', '!core/src/**/*.test.ts'],
  testRunner: 'jest',
  coverageAnalysis: 'perTest',
  jest: { configFile: 'jest.config.mjs', enableFindRelatedTests: true },
  testRunnerNodeArgs: ['--max-old-space-size=2048'],
  concurrency: 2,
  timeoutMS: 60_000,
  reporters: ['clear-text', 'progress'],
  tempDirName: '.stryker',
  ignorePatterns: ['.nodes', 'data', 'docs/screenshots', '**/dist', 'e2e', 'server', 'web', 'cli'],
};
