/** The tests that mutants are tried with: those of the folder. Tests of whole programs and sweeps over the library take too long for each
 *  mutant. */
const base = require('./jest.config.cjs');

module.exports = {
  ...base,
  roots: (process.env.ROOF_CHART_MUTATE ?? 'packages').split(',').map((folder) => `<rootDir>/${folder}`),
  testPathIgnorePatterns: ['/node_modules/', 'packages/core/src/review/pairings', 'packages/core/src/outputs/fuzz'],
};
