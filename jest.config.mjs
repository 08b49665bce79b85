/** Packages that are ES modules alone. */
const MODULES = [
  'hucre',
  'p-queue',
  'p-timeout',
  'eventemitter3',
  '@nestjs/bullmq',
  '@nestjs/bull-shared',
].join('|');

/** @type {import('jest').Config} */
export default {
  moduleFileExtensions: ['ts', 'tsx', 'js', 'cjs', 'mjs', 'json'],
  testMatch: [
    '<rootDir>/{core,plot,cli,server,web,fuzz}/src/**/*.test.{ts,tsx}',
    '<rootDir>/core/trust/*.test.ts',
    '<rootDir>/web/*.test.ts',
  ],
  testEnvironment: 'node',
  setupFiles: ['<rootDir>/scripts/page-globals.mjs'],
  // how long something takes is no matter of these tests; this ends what hangs
  testTimeout: 240_000,
  testEnvironmentOptions: { customExportConditions: ['@schritt/source', 'node', 'node-addons'] },
  extensionsToTreatAsEsm: [],
  // the tests run as CommonJS, and this package offers that by its file alone
  moduleNameMapper: {
    '^d3-format$': '<rootDir>/node_modules/d3-format/dist/d3-format.js',
    // styles and fonts say nothing to a test
    '\\.(css|woff2\\?inline)$': '<rootDir>/scripts/no-styles.cjs',
  },
  transformIgnorePatterns: [`/node_modules/(?!(${MODULES})/)`],
  transform: {
    [`/node_modules/(${MODULES})/.+\\.js$`]: [
      '@swc/jest',
      { swcrc: false, module: { type: 'commonjs' }, jsc: { target: 'es2022' } },
    ],
    '^.+\\.(tsx?|mjs)$': [
      '@swc/jest',
      {
        swcrc: false,
        module: { type: 'commonjs' },
        jsc: {
          target: 'es2022',
          keepClassNames: true,
          parser: { syntax: 'typescript', tsx: true, decorators: true },
          transform: {
            legacyDecorator: true,
            decoratorMetadata: true,
            useDefineForClassFields: false,
            react: { runtime: 'automatic' },
          },
        },
      },
    ],
  },
};
