// npm test: installs what is missing, then everything that can say no. Ends with "N passed, N failed".
import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { stripVTControlCharacters } from 'node:util';
import { build, checkNode, install, main, root, run, tool } from './steps.mjs';

const CHROMIUMS = [process.env.CHROMIUM_PATH, '/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome-stable'];
const chromium = () => CHROMIUMS.find((path) => path && existsSync(path));
const results = join(root, 'test-results');
const total = { passed: 0, failed: 0 };
/** Said again at the end, where the output of a long run is not cut. */
const reasons = [];

function count(name, passed, failed, output = '') {
  total.passed += passed;
  total.failed += failed;
  console.log(`${failed > 0 ? 'FAILED' : 'ok'}  ${name}${passed + failed > 1 ? `: ${passed} passed, ${failed} failed` : ''}`);
  if (failed > 0 && output) console.log(output);
}

/** A step that is right or wrong as a whole. */
async function step(name, program, args) {
  const { code, output } = await run(process.execPath, [tool(program), ...args], { quiet: true });
  count(name, code === 0 ? 1 : 0, code === 0 ? 0 : 1, output);
}

/** Installs packages of the distribution, where that is allowed here. @returns what was said */
async function installPackages(names) {
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
  const said = await installPackages([...new Set(missing().map((program) => COMPILERS[program])), AVR_LIBRARY]);
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
  const said = await installPackages(['chromium']);
  if (chromium()) return true;
  console.log(said);
  console.log(
    'The browser tests need Chromium: install the package "chromium" of your distribution, or set CHROMIUM_PATH to a Chromium program.',
  );
  return false;
}

function freePort() {
  return new Promise((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address();
      probe.close(() => resolve(port));
    });
  });
}

async function types() {
  for (const project of [
    'packages/core',
    ...['core', 'server', 'web', 'cli'].map((p) => `packages/${p}/tsconfig.test.json`),
    'packages/server',
    'packages/web',
    'packages/cli',
    'e2e',
    'bench',
  ]) {
    await step(`types of ${project}`, 'typescript/bin/tsc', ['-p', project]);
  }
}

async function unit() {
  await findCompilers();
  const file = join(results, 'unit.json');
  const { output } = await run(process.execPath, [tool('jest/bin/jest.js'), '--json', `--outputFile=${file}`], { quiet: true });
  if (!existsSync(file)) return count('unit and server tests', 0, 1, output);
  const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites, testResults } = JSON.parse(readFileSync(file, 'utf8'));
  // A suite that cannot even be loaded has no tests to fail.
  count('unit and server tests', numPassedTests, numFailedTests + numRuntimeErrorTestSuites, output);
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
  if (!(await findBrowser())) return count('browser tests', 0, 1);
  const file = join(results, 'e2e.json');
  const data = mkdtempSync(join(tmpdir(), 'roof-chart-e2e-'));
  const env = { E2E_DATA: data, E2E_PORT: String(await freePort()), CHROMIUM_PATH: chromium() };
  const { output } = await run(process.execPath, [tool('@playwright/test/cli.js'), 'test', '--config', 'e2e/playwright.config.ts'], {
    quiet: true,
    env,
  });
  rmSync(data, { recursive: true, force: true });
  if (!existsSync(file)) return count('browser tests', 0, 1, output);
  const { stats, errors, suites } = JSON.parse(readFileSync(file, 'utf8'));
  count('browser tests', stats.expected, stats.unexpected + stats.flaky + errors.length, output);
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

/** What is done to the real server under edits: kills (few with `--quick`), full disks, a second server, a restore. */
async function faults() {
  const kills = process.argv.includes('--quick') ? '20' : '200';
  const scripts = [
    ['kills of the server', ['e2e/faults/kills.mjs', '--kills', kills]],
    ['full disks', ['e2e/faults/fullDisk.mjs']],
    ['a data folder in use', ['e2e/faults/folder.mjs']],
  ];
  for (const [name, args] of scripts) {
    const { code, output } = await run(process.execPath, args, { quiet: true });
    if (code === 0) console.log(output.trim());
    total[code === 0 ? 'passed' : 'failed'] += 1;
    if (code !== 0) console.log(`FAILED  ${name}\n${output}`);
  }
}

await main(async () => {
  checkNode();
  await install();
  rmSync(results, { recursive: true, force: true });
  mkdirSync(results, { recursive: true });
  await types();
  await step('lint', 'eslint/bin/eslint.js', ['.', '--max-warnings', '0']);
  await step('formatting', 'prettier/bin/prettier.cjs', ['--check', '.', '--log-level', 'warn']);
  await step('dependency direction and cycles', 'dependency-cruiser/bin/dependency-cruise.mjs', [
    'packages',
    'e2e',
    'bench',
    '--config',
    '.dependency-cruiser.cjs',
  ]);
  await unit();
  await build();
  await faults();
  await browser();
  for (const reason of reasons) console.log(`\n${reason}\n`);
  console.log(`${total.passed} passed, ${total.failed} failed`);
  process.exitCode = total.failed > 0 ? 1 : 0;
});
