import { writeFileSync } from 'node:fs';
import { createInterface } from 'node:readline';
import { dirname, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { readCatalogue } from '@roof-chart/catalogue/readCatalogue';
import { indexSheets } from '@roof-chart/core/sheets/sheetIndex';
import { type Io, readText } from './io';
import { runProgram } from './program';

const folder = resolve(dirname(fileURLToPath(import.meta.url)), '../../catalogue');

const processIo: Io = {
  out: (text) => console.log(text),
  err: (text) => console.error(text),
  read: readText,
  write: (path, text) => writeFileSync(path, text),
  lines: () => createInterface({ input: process.stdin }),
};

/** Runs one command of the process. @returns its exit code */
export function runCli(args: readonly string[]): Promise<number> {
  return runProgram(args, processIo, { folder, sheets: () => indexSheets(readCatalogue(folder)) });
}
