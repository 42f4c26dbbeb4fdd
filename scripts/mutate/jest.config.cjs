/** The tests that mutants are tried with: those of the folder, in one file (all.test.cjs). */
const { join } = require('node:path');
const rootDir = join(__dirname, '../..');

module.exports = {
  ...require('../../jest.config.cjs'),
  rootDir,
  roots: ['<rootDir>/scripts/mutate', '<rootDir>/packages', '<rootDir>/bench'],
  testMatch: ['<rootDir>/scripts/mutate/all.test.cjs'],
  moduleFileExtensions: ['ts', 'tsx', 'js', 'cjs', 'json'],
  testEnvironment: join(__dirname, 'environment.cjs'),
  maxWorkers: 1,
};
