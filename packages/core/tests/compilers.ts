import { execFileSync, spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';

/** Whether a program is there. */
export const has = (program: string): boolean => spawnSync(program, ['--version'], { stdio: 'ignore' }).status === 0;

/** Runs work in a folder of its own that is gone afterwards. */
function inFolder<T>(work: (folder: string) => T): T {
  const folder = mkdtempSync(join(tmpdir(), 'roof-chart-compiled-'));
  try {
    return work(folder);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

function must(program: string, args: readonly string[], cwd: string): string {
  try {
    return execFileSync(program, args, { cwd, encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'] });
  } catch (error) {
    const { stderr = '', message } = error as { stderr?: string; message: string };
    throw new Error(`${program} ${args.join(' ')}: ${stderr || message}`);
  }
}

function writeAll(folder: string, files: { readonly [name: string]: string }): void {
  for (const [name, text] of Object.entries(files)) {
    mkdirSync(dirname(join(folder, name)), { recursive: true });
    writeFileSync(join(folder, name), text);
  }
}

const STRICT = ['-Wall', '-Wextra', '-Werror', '-pedantic'];

/** Compiles files with the host's C++ compiler and runs the program. @returns what it printed */
export const runCpp = (files: { readonly [name: string]: string }, main: string, language: 'c++11' | 'c99'): string =>
  inFolder((folder) => {
    writeAll(folder, files);
    must(language === 'c99' ? 'gcc' : 'g++', [`-std=${language}`, ...STRICT, '-I', '.', '-o', 'program', main], folder);
    return must(join(folder, 'program'), [], folder);
  });

/** Compiles a file for a chip of the ATmega family; static assertions in it hold or fail here. */
export const compileAvr = (files: { readonly [name: string]: string }, main: string, chip = 'atmega328p'): void =>
  inFolder((folder) => {
    writeAll(folder, files);
    must('avr-g++', ['-std=c++11', `-mmcu=${chip}`, '-Os', '-Wall', '-Wextra', '-Werror', '-c', '-o', 'object.o', main], folder);
  });

/** Runs a MicroPython program. @returns what it printed */
export const runMicroPython = (program: string): string =>
  inFolder((folder) => {
    writeFileSync(join(folder, 'program.py'), program);
    return must(process.execPath, [join(__dirname, 'runMicroPython.mjs'), join(folder, 'program.py')], folder);
  });

/** Compiles a Rust program with its modules and runs it. @returns what it printed */
export const runRust = (files: { readonly [name: string]: string }): string =>
  inFolder((folder) => {
    writeAll(folder, files);
    must('rustc', ['--edition', '2021', '-D', 'warnings', '-o', 'program', 'main.rs'], folder);
    return must(join(folder, 'program'), [], folder);
  });

/** Compiles a device tree source and writes it back from the compiled tree. */
export const throughDtc = (source: string): string =>
  inFolder((folder) => {
    writeFileSync(join(folder, 'in.dts'), source);
    must('dtc', ['-@', '-q', '-I', 'dts', '-O', 'dtb', '-o', 'out.dtbo', 'in.dts'], folder);
    return must('dtc', ['-q', '-I', 'dtb', '-O', 'dts', 'out.dtbo'], folder);
  });
