const TARGET = { target: 'es2022' };
const REACT = { transform: { react: { runtime: 'automatic' } } };
const COMMON = { type: 'commonjs' };

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
    '^.+\\.tsx?$': ['@swc/jest', { jsc: { ...TARGET, parser: { syntax: 'typescript', tsx: true }, ...REACT }, module: COMMON }],
    '^.+\\.m?js$': ['@swc/jest', { jsc: { ...TARGET, parser: { syntax: 'ecmascript' } }, module: COMMON }],
  },
  // Scales come as modules of the language, which Jest does not read as they are.
  transformIgnorePatterns: ['/node_modules/(?!(?:d3-[a-z-]+|internmap)/)'],
  maxWorkers: 2,
  // Far above what any test takes: a machine that does other things, too, is no fault of the product's.
  testTimeout: 120_000,
};
