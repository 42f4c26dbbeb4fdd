// npm run mutate [-- FOLDER … --sample N --seed S]: changes the code at single places and counts how many changes make a test fail.
// Without words all folders as a whole, which takes hours; with a sample so many lines of them, drawn by the seed.
import { mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { checkNode, install, main, PlainFault, root, run, tool } from '../steps.mjs';

const core = (folder) => `packages/core/src/${folder}`;
/** Results of many plans, as they were read: what changes any of them is noticed. */
const CORPUS = core('review/corpus.test.ts');

/** What is mutated, the share of mutants that must be killed, and the tests that must do it where they are not in the folder itself. */
const FOLDERS = {
  formulas: { path: core('electrics'), least: 90 },
  checks: {
    path: core('checks'),
    least: 90,
    tests: [core('checks'), core('assign/ontoDriver.test.ts'), core('displays'), core('electrics/reports/ladderReport.test.ts')],
  },
  edits: { path: core('plan'), least: 90 },
  assign: {
    path: core('assign'),
    least: 85,
    tests: [core('assign'), core('sheets/boards.test.ts'), core('checks/fixes'), core('checks/levels'), 'bench/oracle'],
  },
  nets: { path: core('nets'), least: 85, tests: [core('nets'), core('checks')] },
  displays: { path: core('displays'), least: 85 },
  outputs: { path: core('outputs'), least: 85 },
  review: { path: core('review'), least: 85 },
  sheets: { path: core('sheets'), least: 85 },
  identify: { path: core('identify'), least: 85 },
  quantity: { path: core('quantity'), least: 85, tests: [core('quantity'), core('electrics')] },
  store: { path: 'packages/server/src/store', least: 85, tests: ['packages/server/src'] },
  api: { path: 'packages/server/src/api', least: 85, tests: ['packages/server/src'] },
  state: { path: 'packages/web/src/state', least: 85 },
};

const WORK = join(root, '.mutate');
/** A line on which something can be turned round: not a comment, an import, a type or a bracket. */
const MUTABLE = /[-+*/%<>!=&|?]|\btrue\b|\bfalse\b|\.(?:min|max|some|every|filter|sort|slice)\b|return |['"`]/;
const PLAIN = /^\s*(?:\/\/|\/?\*|import |export (?:type|interface)|(?:readonly |[}\])];?,?$))/;

function sources(folder) {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return sources(path);
    return /\.ts$/.test(entry.name) && !/\.(?:test|d)\.ts$/.test(entry.name) ? [path] : [];
  });
}

/** A generator of numbers from 0 to 1 that a seed determines (mulberry32). */
function numbers(seed) {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
  };
}

/** Lines of the folders, drawn without repeats. */
function sampled(folders, count, seed) {
  const lines = folders.flatMap((name) =>
    sources(join(root, FOLDERS[name].path)).flatMap((path) =>
      readFileSync(path, 'utf8')
        .split('\n')
        .flatMap((line, at) => (MUTABLE.test(line) && !PLAIN.test(line) ? [`${relative(root, path)}:${at + 1}-${at + 1}`] : [])),
    ),
  );
  const next = numbers(seed);
  const drawn = [];
  while (drawn.length < count && lines.length > 0) drawn.push(...lines.splice(Math.floor(next() * lines.length), 1));
  return drawn;
}

function words(argv) {
  const number = (name, otherwise) => {
    const at = argv.indexOf(name);
    if (at < 0) return otherwise;
    const value = Number(argv[at + 1]);
    if (!Number.isInteger(value) || value < 0) throw new PlainFault(`${name}: expected a whole number, got ${argv[at + 1] ?? 'nothing'}.`);
    argv.splice(at, 2);
    return value;
  };
  const sample = number('--sample', undefined);
  const seed = number('--seed', 1);
  const strange = argv.find((word) => !FOLDERS[word]);
  if (strange) throw new PlainFault(`${strange}: expected one of ${Object.keys(FOLDERS).join(', ')}, --sample N or --seed S.`);
  return { folders: argv.length > 0 ? argv : Object.keys(FOLDERS), sample, seed };
}

/** Killed and survived mutants of one folder. */
function scoreOf(files, { path }) {
  const mutants = Object.entries(files).flatMap(([file, { mutants: list }]) =>
    file.startsWith(`${path}/`) ? list.map((mutant) => ({ file, ...mutant })) : [],
  );
  const of = (...states) => mutants.filter(({ status }) => states.includes(status));
  return { killed: of('Killed', 'Timeout').length, survived: of('Survived', 'NoCoverage') };
}

function report(folders, files) {
  const rows = folders.map((name) => [name, FOLDERS[name], scoreOf(files, FOLDERS[name])]);
  for (const [name, , { survived }] of rows)
    for (const { file, location, mutatorName, replacement, status } of survived)
      console.log(
        `${name}: ${file}:${location.start.line}:${location.start.column} ${mutatorName}${status === 'NoCoverage' ? ', in no test' : ''}: ${(replacement ?? '').replace(/\s+/g, ' ').slice(0, 100)}`,
      );
  console.log('');
  let isLow = false;
  for (const [name, { least }, { killed, survived }] of rows) {
    const all = killed + survived.length;
    if (all === 0) continue;
    const score = (100 * killed) / all;
    isLow ||= score < least;
    console.log(`${name.padEnd(10)} ${score.toFixed(1).padStart(5)} % of ${String(all).padStart(4)} killed (at least ${least} %)`);
  }
  return isLow;
}

/** Mutates one folder, or the lines drawn of it, with the tests of that folder. @returns the files of the report */
async function mutateFolder(name, mutate) {
  const { path, tests = [path] } = FOLDERS[name];
  const all = path.startsWith('packages/core/') ? [...tests, CORPUS] : tests;
  rmSync(join(WORK, 'sandbox'), { recursive: true, force: true });
  const config = {
    testRunner: 'jest',
    plugins: ['@stryker-mutator/jest-runner'],
    // Jest follows imports within its roots only, so it would not find a test that reaches the code through another folder.
    jest: { configFile: 'scripts/mutate/jest.config.cjs', enableFindRelatedTests: false },
    mutate,
    // What one test has worked out is remembered for the next, so it cannot be told which test needs which line.
    coverageAnalysis: 'all',
    concurrency: 2,
    timeoutMS: 30_000,
    dryRunTimeoutMinutes: 30,
    ignorePatterns: ['dist', 'data', 'docs/screenshots', 'e2e', 'test-results', 'playwright-report'],
    tempDirName: '.mutate/sandbox',
    reporters: ['json', 'progress-append-only'],
    jsonReporter: { fileName: '.mutate/report.json' },
    allowConsoleColors: false,
  };
  writeFileSync(join(WORK, 'config.json'), JSON.stringify(config, null, 2));
  const { code } = await run(process.execPath, [tool('@stryker-mutator/core/bin/stryker.js'), 'run', join(WORK, 'config.json')], {
    env: { ROOF_CHART_MUTATE: all.join() },
  });
  if (code !== 0) throw new PlainFault(`The mutation run of ${name} failed.`);
  return JSON.parse(readFileSync(join(WORK, 'report.json'), 'utf8')).files;
}

await main(async () => {
  checkNode();
  const { folders, sample, seed } = words(process.argv.slice(2));
  await install();
  rmSync(WORK, { recursive: true, force: true });
  mkdirSync(WORK, { recursive: true });
  const lines = sample === undefined ? undefined : sampled(folders, sample, seed);
  console.log(lines ? `Mutating ${lines.length} lines of ${folders.join(', ')}, seed ${seed}.` : `Mutating ${folders.join(', ')}.`);
  const files = {};
  for (const name of folders) {
    const own = lines ? lines.filter((line) => line.startsWith(`${FOLDERS[name].path}/`)) : [`${FOLDERS[name].path}/**/!(*.test).ts`];
    if (own.length > 0) Object.assign(files, await mutateFolder(name, own));
  }
  if (report(folders, files)) process.exitCode = 1;
});
