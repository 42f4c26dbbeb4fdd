// A mutant is killed by the first test that fails: those that follow are skipped.
const { TestEnvironment } = require('jest-environment-node');

module.exports = class extends TestEnvironment {
  #hasFailed = false;

  handleTestEvent({ name, test }) {
    if (name === 'test_fn_failure' || name === 'hook_failure') this.#hasFailed = true;
    if (name === 'test_start' && this.#hasFailed) test.mode = 'skip';
  }
};
