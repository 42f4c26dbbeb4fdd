import { dirname, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { readCatalogue } from '@roof-chart/catalogue/readCatalogue';
import { indexSheets } from '@roof-chart/core/sheets/sheetIndex';
import { processIo } from './processIo';
import { runProgram } from './program';

const folder = resolve(dirname(fileURLToPath(import.meta.url)), '../../catalogue');

/** Runs one command of the process. @returns its exit code */
export function runCli(args: readonly string[]): Promise<number> {
  return runProgram(args, processIo, { folder, sheets: () => indexSheets(readCatalogue(folder)) });
}
