import js from '@eslint/js';
import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

const core = {
  // a path into one of them, or core as a whole
  regex: '(^|/)(core|plot)/(src|dist)/|^@schritt/core$',
  message: 'core and plot are used through the entries of their packages alone',
};
const house = (names) => ({
  group: names.flatMap((name) => [
    `@schritt/${name}`,
    `@schritt/${name}/*`,
    `**/${name}/src/**`,
    `**/${name}/dist/**`,
  ]),
  message: 'only core and plot are shared between the parts of the house; see docs/architecture.md',
});
/** What one part of the house may not import. */
const bounds = (files, others, more = [], ignores = []) => ({
  files,
  ignores,
  rules: { 'no-restricted-imports': ['error', { patterns: [house(others), ...more] }] },
});

export default tseslint.config(
  {
    ignores: [
      '.nodes/',
      '**/dist/',
      '**/node_modules/',
      'data/',
      '**/test-results/',
      '**/playwright-report/',
      'web/src/api/schema.ts',
    ],
  },
  js.configs.recommended,
  {
    files: ['**/*.{ts,tsx}'],
    extends: [...tseslint.configs.strictTypeChecked],
    languageOptions: {
      parserOptions: {
        // one program for all: the types of core are made once, not once for each part that uses it
        project: './tsconfig.lint.json',
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: {
      '@typescript-eslint/consistent-type-assertions': ['error', { assertionStyle: 'never' }],
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/restrict-template-expressions': [
        'error',
        { allowNumber: true, allowBoolean: true },
      ],
      '@typescript-eslint/no-implied-eval': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { ignoreRestSiblings: true }],
      '@typescript-eslint/no-unnecessary-type-parameters': 'off',
      '@typescript-eslint/no-unsafe-class-instance-assignment': 'off',
      '@typescript-eslint/no-confusing-void-expression': ['error', { ignoreArrowShorthand: true }],
      '@typescript-eslint/switch-exhaustiveness-check': [
        'error',
        { considerDefaultExhaustiveForUnions: true },
      ],
      'no-fallthrough': 'error',
      'max-params': ['error', 4],
      'max-lines-per-function': ['error', 100],
    },
  },
  {
    files: ['**/*.test.{ts,tsx}', 'e2e/**/*.ts'],
    rules: {
      'max-params': 'off',
      'max-lines-per-function': 'off',
      // act() of the testing library waits for what an async function does, also without an await in it
      '@typescript-eslint/require-await': 'off',
      '@typescript-eslint/no-unsafe-assignment': 'off',
      '@typescript-eslint/no-unsafe-member-access': 'off',
      '@typescript-eslint/no-unsafe-call': 'off',
      '@typescript-eslint/no-unsafe-return': 'off',
      '@typescript-eslint/no-unsafe-argument': 'off',
    },
  },
  {
    files: ['server/src/**/*.ts'],
    rules: {
      '@typescript-eslint/no-extraneous-class': [
        'error',
        { allowWithDecorator: true, allowConstructorOnly: true },
      ],
    },
  },
  {
    files: ['web/src/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: hooks.configs.recommended.rules,
  },
  {
    files: ['scripts/**/*.mjs', 'bench/**/*.mjs', '*.mjs'],
    languageOptions: {
      globals: {
        console: 'readonly',
        process: 'readonly',
        performance: 'readonly',
        structuredClone: 'readonly',
        Buffer: 'readonly',
        fetch: 'readonly',
        setTimeout: 'readonly',
        URL: 'readonly',
        window: 'readonly',
      },
    },
  },
  {
    files: ['**/*.{ts,tsx}'],
    ignores: ['**/*.test.{ts,tsx}', 'e2e/**'],
    rules: {
      'no-restricted-properties': [
        'error',
        ...['toFixed', 'toPrecision', 'toExponential', 'toLocaleString'].map((property) => ({
          property,
          message: 'numbers are printed by core/src/text/number-text.ts alone',
        })),
      ],
    },
  },
  {
    // the files that print numbers: doubles, and decimals
    files: ['core/src/text/number-text.ts', 'core/src/decimal/decimal-text.ts'],
    rules: { 'no-restricted-properties': 'off' },
  },
  bounds(
    ['core/src/**'],
    ['cli', 'server', 'web', 'e2e'],
    [
      { group: ['@schritt/*'], message: 'inside core, import the file itself' },
      {
        group: ['node:*', 'fs', 'path', 'react', 'antd', 'chart.js', '@nestjs/*'],
        message: 'core has no I/O and no interface',
      },
    ],
    ['core/src/**/*.test.ts'],
  ),
  bounds(['core/src/**/*.test.ts'], ['cli', 'server', 'web', 'e2e']),
  bounds(['plot/src/**'], ['cli', 'server', 'web', 'e2e'], [core]),
  bounds(['cli/src/**'], ['server', 'web', 'e2e'], [core]),
  bounds(['server/src/**'], ['cli', 'web', 'e2e'], [core]),
  bounds(['web/src/**'], ['cli', 'server', 'e2e'], [core]),
  bounds(['e2e/**'], ['cli', 'server', 'web'], [core]),
  bounds(['fuzz/src/**'], ['cli', 'server', 'web', 'e2e'], [core]),
);
