/** Unit and server tests; the browser tests are Playwright's. */
module.exports = {
  testEnvironment: 'node',
  roots: ['<rootDir>/packages', '<rootDir>/bench'],
  testMatch: ['**/*.test.ts', '**/*.test.tsx'],
  setupFiles: ['<rootDir>/packages/web/tests/browser.ts'],
  moduleFileExtensions: ['ts', 'tsx', 'js', 'json'],
  moduleNameMapper: {
    '^@roof-chart/(api|core|catalogue)/(.*)$': '<rootDir>/packages/$1/src/$2.ts',
    '^(.*\\.(?:py|cpp))\\?raw$': '$1',
    '\\.css$': '<rootDir>/packages/web/tests/style.cjs',
  },
  transform: {
    '\\.(py|cpp)$': '<rootDir>/packages/core/tests/rawText.cjs',
    '^.+\\.tsx?$': [
      '@swc/jest',
      {
        jsc: { target: 'es2022', parser: { syntax: 'typescript', tsx: true }, transform: { react: { runtime: 'automatic' } } },
        module: { type: 'commonjs' },
      },
    ],
  },
  maxWorkers: 2,
  // Far above what any test takes: a machine that does other things, too, is no fault of the product's.
  testTimeout: 120_000,
};
