import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

const TEST_GLOBALS = ['test', 'it', 'describe', 'expect', 'jest', 'beforeEach', 'afterEach', 'beforeAll', 'afterAll'];

export default tseslint.config(
  { ignores: ['**/dist*/**', '**/node_modules/**', 'data*/**', 'test-results/**', 'playwright-report/**', 'coverage/**'] },
  ...tseslint.configs.strict,
  {
    rules: {
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'max-lines': ['error', { max: 350, skipBlankLines: true, skipComments: true }],
      // Query types of the store name their missing argument `void`.
      '@typescript-eslint/no-invalid-void-type': 'off',
      eqeqeq: 'error',
      'no-console': 'error',
    },
  },
  // A test that asserts too much fails, which is what it is for.
  {
    files: ['**/*.test.{ts,tsx}', 'e2e/**', 'bench/**', 'packages/*/tests/**'],
    rules: { '@typescript-eslint/no-non-null-assertion': 'off' },
  },
  { files: ['packages/web/**/*.{ts,tsx}'], plugins: { 'react-hooks': reactHooks }, rules: reactHooks.configs.recommended.rules },
  // Types of tests and of Node are in sight of all code here; the product must not use them where they are not.
  {
    files: ['packages/*/src/**/*.{ts,tsx}'],
    ignores: ['**/*.test.{ts,tsx}'],
    rules: {
      'no-restricted-globals': ['error', ...TEST_GLOBALS],
      'max-lines-per-function': ['error', { max: 60, skipBlankLines: true, skipComments: true }],
    },
  },
  {
    files: ['packages/web/src/**/*.{ts,tsx}'],
    ignores: ['**/*.test.{ts,tsx}'],
    rules: {
      'no-restricted-globals': [
        'error',
        ...TEST_GLOBALS,
        'process',
        'Buffer',
        'global',
        'require',
        'module',
        '__dirname',
        '__filename',
        'setImmediate',
      ],
      'no-restricted-imports': ['error', { patterns: ['node:*'] }],
    },
  },
  // The core is told the time, the chance and the sheets; it never asks for them.
  {
    files: ['packages/core/src/**/*.ts'],
    rules: {
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'The core takes chance as an argument.' },
        { object: 'Date', property: 'now', message: 'The core takes the time as an argument.' },
      ],
      'no-restricted-syntax': [
        'error',
        { selector: "NewExpression[callee.name='Date']", message: 'The core takes the time as an argument.' },
      ],
    },
  },
  { files: ['scripts/**', 'bench/**', 'e2e/**/*.mjs', 'packages/cli/**', 'packages/server/src/start/**'], rules: { 'no-console': 'off' } },
  {
    files: ['**/*.cjs'],
    rules: { '@typescript-eslint/no-require-imports': 'off' },
  },
);
