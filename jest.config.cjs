/** Unit and server tests; the browser tests are Playwright's. */
module.exports = {
  testEnvironment: 'node',
  roots: ['<rootDir>/packages'],
  testMatch: ['**/*.test.ts'],
  moduleFileExtensions: ['ts', 'tsx', 'js', 'json'],
  moduleNameMapper: { '^@roof-chart/core/(.*)$': '<rootDir>/packages/core/src/$1.ts' },
  transform: {
    '^.+\\.tsx?$': ['@swc/jest', { jsc: { target: 'es2022', parser: { syntax: 'typescript', tsx: true } }, module: { type: 'commonjs' } }],
  },
  maxWorkers: 2,
};
