// npm test: installs what is missing, then everything that can say no. Ends with "N passed, N failed".
// npm test -- core/levels: the tests whose path has these words in this order, in Jest and in the browser.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { stripVTControlCharacters } from 'node:util';
import { build, checkNode, installPackages, main, root, run, tool } from './steps.mjs';

const CHROMIUMS = [process.env.CHROMIUM_PATH, '/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome-stable'];
const chromium = () => CHROMIUMS.find((path) => path && existsSync(path));
const results = join(root, 'test-results');
const total = { passed: 0, failed: 0 };
/** Said again at the end, where the output of a long run is not cut. */
const reasons = [];

/** Steps that run beside each other: one for each of the two cores that this is made for. */
const LANES = 2;

function count(name, passed, failed, seconds, output = '') {
  total.passed += passed;
  total.failed += failed;
  const numbers = passed + failed > 1 ? `: ${passed} passed, ${failed} failed` : '';
  console.log(`${failed > 0 ? 'FAILED' : 'ok'}  ${name}${numbers} (${seconds.toFixed(0)} s)`);
  if (failed > 0 && output) console.log(output);
}

/** @returns the seconds since then */
function clock() {
  const from = performance.now();
  return () => (performance.now() - from) / 1000;
}

/** A step that is right or wrong as a whole. @param shown prints what it says also where it is right */
function step(name, program, args, { shown = false } = {}) {
  return async () => {
    const seconds = clock();
    const { code, output } = await run(process.execPath, [program, ...args], { quiet: true });
    if (shown && code === 0) console.log(output.trim());
    count(name, code === 0 ? 1 : 0, code === 0 ? 0 : 1, seconds(), output);
    if (code !== 0) reasons.push(`${name}\n${output.slice(-1500)}`);
  };
}

/** Runs steps in their order, as many beside each other as there are lanes. */
async function inLanes(steps) {
  const left = [...steps];
  const lane = async () => {
    for (let next = left.shift(); next; next = left.shift()) await next();
  };
  await Promise.all(Array.from({ length: LANES }, lane));
}

/** Installs packages of the distribution, where that is allowed here. @returns what was said */
async function installFromDistribution(names) {
  if (!existsSync('/usr/bin/apt-get') || process.getuid?.() !== 0) return '';
  console.log(`Installing ${names.join(', ')} (apt-get).`);
  await run('apt-get', ['update', '-qq'], { quiet: true });
  const { output } = await run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...names], {
    quiet: true,
    env: { DEBIAN_FRONTEND: 'noninteractive' },
  });
  return output.slice(-2000);
}

/** The programs that exported constants are compiled with, by the package that has them. */
const COMPILERS = { 'g++': 'g++', gcc: 'gcc', 'avr-g++': 'gcc-avr', dtc: 'device-tree-compiler' };
const AVR_LIBRARY = 'avr-libc';

async function findCompilers() {
  const missing = () => Object.keys(COMPILERS).filter((program) => spawnSync(program, ['--version'], { stdio: 'ignore' }).status !== 0);
  if (missing().length === 0) return;
  const said = await installFromDistribution([...new Set(missing().map((program) => COMPILERS[program])), AVR_LIBRARY]);
  if (missing().length === 0) return;
  console.log(said);
  console.log(
    `The tests of exports need ${missing().join(', ')}: install ${missing()
      .map((program) => COMPILERS[program])
      .join(', ')} and ${AVR_LIBRARY}.`,
  );
}

async function findBrowser() {
  if (chromium()) return true;
  const said = await installFromDistribution(['chromium']);
  if (chromium()) return true;
  console.log(said);
  console.log(
    'The browser tests need Chromium: install the package "chromium" of your distribution, or set CHROMIUM_PATH to a Chromium program.',
  );
  return false;
}

/** What reads the code without running it, the longest first. Types keep what they have found for the next run (`incremental`). */
const STATIC = [
  step('lint', tool('eslint/bin/eslint.js'), ['.', '--max-warnings', '0', '--cache', '--cache-location', 'node_modules/.cache/eslint']),
  ...[
    'packages/web/tsconfig.test.json',
    'packages/core/tsconfig.test.json',
    'packages/core',
    'packages/api/tsconfig.test.json',
    'packages/cli/tsconfig.test.json',
    'bench',
    'packages/server/tsconfig.test.json',
    'e2e',
  ].map((project) => {
    const memory = `node_modules/.cache/types-${project.replaceAll(/\W/g, '-')}.json`;
    return step(`types of ${project}`, tool('typescript-native/bin/tsc'), ['-p', project, '--incremental', '--tsBuildInfoFile', memory]);
  }),
  step('formatting', tool('prettier/bin/prettier.cjs'), ['--check', '.', '--log-level', 'warn', '--cache']),
  step('formatting of the programs for boards', join(root, 'scripts/formatPrograms.mjs'), ['--check']),
  step('files and exports that nothing uses', tool('knip/bin/knip.js'), ['--no-progress', '--include', 'files,exports,types']),
  step('dependency direction and cycles', tool('dependency-cruiser/bin/dependency-cruise.mjs'), [
    'packages',
    'e2e',
    'bench',
    '--config',
    '.dependency-cruiser.cjs',
  ]),
];

/** Parts of the tests that are asked for by name; none: all of them. */
const NAMES = process.argv.slice(2).filter((word) => !word.startsWith('-'));
const escaped = (word) => word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
const patterns = NAMES.map((name) => name.split('/').map(escaped).join('.*'));
const specs = () =>
  readdirSync(join(root, 'e2e')).filter((file) => file.endsWith('.spec.ts') && patterns.some((one) => new RegExp(one).test(`e2e/${file}`)));

async function unit() {
  await findCompilers();
  const seconds = clock();
  const file = join(results, 'unit.json');
  const { output } = await run(
    process.execPath,
    [tool('jest/bin/jest.js'), ...patterns, '--passWithNoTests', '--json', `--outputFile=${file}`],
    { quiet: true },
  );
  if (!existsSync(file)) return count('unit and server tests', 0, 1, seconds(), output);
  const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites, testResults } = JSON.parse(readFileSync(file, 'utf8'));
  // A suite that cannot even be loaded has no tests to fail.
  count('unit and server tests', numPassedTests, numFailedTests + numRuntimeErrorTestSuites, seconds(), output);
  for (const { assertionResults, message } of testResults) {
    const failed = assertionResults.filter(({ status }) => status === 'failed');
    reasons.push(
      ...failed.map(
        ({ fullName, failureMessages }) => `${fullName}\n${stripVTControlCharacters(failureMessages.join('\n')).slice(0, 1500)}`,
      ),
    );
    if (assertionResults.length === 0) reasons.push(stripVTControlCharacters(message).slice(0, 1500));
  }
}

async function browser() {
  if (!(await findBrowser())) return count('browser tests', 0, 1, 0);
  const seconds = clock();
  const file = join(results, 'e2e.json');
  const env = { CHROMIUM_PATH: chromium() };
  const { output } = await run(
    process.execPath,
    [tool('@playwright/test/cli.js'), 'test', '--config', 'e2e/playwright.config.ts', ...(NAMES.length > 0 ? specs() : [])],
    {
      quiet: true,
      env,
    },
  );
  if (!existsSync(file)) return count('browser tests', 0, 1, seconds(), output);
  const { stats, errors, suites } = JSON.parse(readFileSync(file, 'utf8'));
  count('browser tests', stats.expected, stats.unexpected + stats.flaky + errors.length, seconds(), output);
  reasons.push(...suites.flatMap(failuresIn));
}

/** Why each browser test of a suite failed: its title and the first lines of its error. */
function failuresIn({ specs, suites = [] }) {
  const own = specs
    .filter((spec) => !spec.ok)
    .flatMap((spec) =>
      spec.tests.flatMap(({ results }) =>
        results.flatMap(({ errors }) =>
          errors.map(
            ({ message, location }) => `${spec.title} (line ${location?.line})\n${stripVTControlCharacters(message).slice(0, 1500)}`,
          ),
        ),
      ),
    );
  return [...own, ...suites.flatMap(failuresIn)];
}

/** What is done to the real server under edits: kills (1 000 under `soak`), full disks, a second server, a restore. */
const KILLS = '20';
const FAULTS = [
  step('kills of the server', 'e2e/faults/kills.mjs', ['--kills', KILLS], { shown: true }),
  step('full disks', 'e2e/faults/fullDisk.mjs', [], { shown: true }),
  step('a data folder in use', 'e2e/faults/folder.mjs', [], { shown: true }),
];

await main(async () => {
  const seconds = clock();
  checkNode();
  const compileDriver = await installPackages();
  rmSync(results, { recursive: true, force: true });
  mkdirSync(results, { recursive: true });
  if (NAMES.length > 0) {
    await compileDriver();
    await unit();
    if (specs().length > 0) {
      await build();
      await browser();
    }
    if (total.passed + total.failed === 0) count(`tests named ${NAMES.join(', ')}: none there`, 0, 1, seconds());
  } else {
    // Reading and building the code needs no database.
    await inLanes([compileDriver, ...STATIC.slice(0, 1), build, ...STATIC.slice(1)]);
    await step('size of the first load', 'scripts/firstLoad.mjs', [], { shown: true })();
    await unit();
    // Browsers wait more than they compute: a server that is killed beside them has room.
    await inLanes([browser, ...FAULTS]);
  }
  for (const reason of reasons) console.log(`\n${reason}\n`);
  console.log(`${(seconds() / 60).toFixed(1)} minutes`);
  console.log(`${total.passed} passed, ${total.failed} failed`);
  process.exitCode = total.failed > 0 ? 1 : 0;
});
