/** @type {import('jest').Config} */
export default {
  testMatch: ['<rootDir>/{core,cli,server,web}/src/**/*.test.{ts,tsx}'],
  testEnvironment: 'node',
  testEnvironmentOptions: { customExportConditions: ['@schritt/source', 'node', 'node-addons'] },
  extensionsToTreatAsEsm: [],
  transform: {
    '^.+\\.tsx?$': [
      '@swc/jest',
      {
        swcrc: false,
        module: { type: 'commonjs' },
        jsc: {
          target: 'es2022',
          keepClassNames: true,
          parser: { syntax: 'typescript', tsx: true, decorators: true },
          transform: { legacyDecorator: true, decoratorMetadata: true, useDefineForClassFields: false },
        },
      },
    ],
  },
};
