// Steps that the two commands share. Plain Node: they run before anything is installed.
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { accessSync, constants, existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';

export const root = dirname(dirname(fileURLToPath(import.meta.url)));

/** A failure with an actionable message, printed without a stack trace. */
export class PlainFault extends Error {}

/** Runs a step of a command and ends the process with its sentence when it fails. */
export async function main(run) {
  try {
    await run();
  } catch (error) {
    console.error(error instanceof PlainFault ? error.message : error);
    process.exit(1);
  }
}

/** @throws PlainFault when this Node is older than package.json asks for */
export function checkNode() {
  const [needMajor, needMinor] = JSON.parse(readFileSync(join(root, 'package.json'), 'utf8'))
    .engines.node.match(/\d+/g)
    .map(Number);
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < needMajor || (major === needMajor && minor < needMinor)) {
    throw new PlainFault(`Node ${process.versions.node} is too old: Roof Chart needs ${needMajor}.${needMinor} or newer.`);
  }
}

/** @throws PlainFault when a folder cannot be written */
export function checkWritable(folder, advice) {
  try {
    mkdirSync(folder, { recursive: true });
    accessSync(folder, constants.W_OK);
  } catch {
    throw new PlainFault(`The folder ${folder} cannot be written. ${advice}`);
  }
}

/** Runs a program with its output passed through (or kept, with `quiet`). @returns its exit code and output */
export function run(command, args, { cwd = root, env = {}, quiet = false } = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, {
      cwd,
      env: { ...process.env, ...env },
      stdio: ['ignore', quiet ? 'pipe' : 'inherit', quiet ? 'pipe' : 'inherit'],
    });
    let output = '';
    for (const stream of [child.stdout, child.stderr]) stream?.on('data', (chunk) => (output += chunk));
    child.on('error', (error) => resolve({ code: 127, output: String(error) }));
    child.on('close', (code) => resolve({ code: code ?? 1, output }));
  });
}

/** The path of a package's program, run through Node so that it works the same everywhere. */
export const tool = (path) => join(root, 'node_modules', path);

function digest(text) {
  return createHash('sha256').update(text).digest('hex');
}

/** Installs the packages of the lock file if they are missing or outdated, but for the database driver, which is compiled here.
 *  @returns compiles it; nothing works with the database before */
export async function installPackages() {
  const stamp = join(root, 'node_modules/.roof-chart-lock');
  const lock = digest(readFileSync(join(root, 'package-lock.json')));
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return async () => {};
  checkWritable(root, 'Packages are installed there: copy the project to a writable folder.');
  console.error('Installing packages (npm ci).');
  const npm = process.platform === 'win32' ? 'npm.cmd' : 'npm';
  const { code } = await run(npm, ['ci', '--ignore-scripts', '--no-audit', '--no-fund', '--loglevel=error']);
  if (code !== 0) throw new PlainFault('The packages could not be installed. This needs access to the npm registry.');
  return async () => {
    console.error('Compiling the database driver. This can take two to three minutes.');
    // Its two files are compiled beside each other.
    const { code, output } = await run(npm, ['rebuild', 'better-sqlite3', '--loglevel=error'], { env: { JOBS: '2' }, quiet: true });
    if (code !== 0)
      throw new PlainFault(
        `The database driver could not be compiled. This needs a C++ compiler, make and Python.\n${output.slice(-2000)}`,
      );
    writeFileSync(stamp, lock);
  };
}

/** Installs everything that is missing or outdated. */
export async function install() {
  const compileDriver = await installPackages();
  await compileDriver();
}

function* files(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))) {
    if (entry.name === 'dist' || entry.name === 'node_modules') continue;
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* files(path);
    else yield path;
  }
}

/** Packages whose sources each part is built from. */
const BUILT_FROM = { server: ['core', 'api', 'catalogue', 'server'], cli: ['core', 'catalogue', 'cli'], web: ['core', 'api', 'web'] };

/** Builds one part when it is not built from these sources yet. */
export async function buildPart(part) {
  const folder = join(root, 'packages', part);
  const stamp = join(folder, 'dist/.stamp');
  const listing = BUILT_FROM[part]
    .flatMap((name) => [...files(join(root, 'packages', name))])
    .map((path) => `${path} ${statSync(path).size} ${statSync(path).mtimeMs}`);
  const now = digest([...listing, readFileSync(join(root, 'package-lock.json'))].join('\n'));
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === now) return;
  console.error(`Building the ${part}.`);
  const { code, output } = await run(process.execPath, [tool('vite/bin/vite.js'), 'build', '--logLevel', 'warn'], {
    cwd: folder,
    quiet: true,
  });
  if (code !== 0) throw new PlainFault(`The ${part} could not be built:\n${output}`);
  writeFileSync(stamp, now);
}

/** Checks the shipped sheets once, so that the server need not at every start: it compares a digest instead. */
async function checkSheets() {
  const note = join(root, 'packages/catalogue/dist/checked');
  const cli = join(root, 'packages/cli/dist/main.mjs');
  if (existsSync(note) && statSync(note).mtimeMs > statSync(cli).mtimeMs) return;
  const { runCli } = await import(pathToFileURL(cli).href);
  if ((await runCli(['sheets', '--note', note])) !== 0) throw new PlainFault('Invalid sheets: see above.');
}

/** Builds the parts of the application that are not built yet. */
export async function build() {
  for (const part of Object.keys(BUILT_FROM)) await buildPart(part);
  await checkSheets();
}
