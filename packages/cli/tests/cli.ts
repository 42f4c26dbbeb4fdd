import { join } from 'node:path';
import { readFileSync } from 'node:fs';
import { readCatalogue } from '@roof-chart/catalogue/readCatalogue';
import { indexSheets } from '@roof-chart/core/sheets/sheetIndex';
import { InputFault } from '../src/io';
import { runProgram } from '../src/program';

export const folder = join(__dirname, '../../catalogue');
export const sheets = indexSheets(readCatalogue(folder));
export const hive = readFileSync(join(__dirname, '../../../demo/plans/hive-watch.json'), 'utf8');

/** Runs one command over files that are texts. */
export async function cli(args: string[], files: Record<string, string> = {}) {
  const out: string[] = [];
  const err: string[] = [];
  const read = (path: string) => {
    if (files[path] === undefined) throw new InputFault(`${path} cannot be read: ENOENT`);
    return files[path];
  };
  const code = await runProgram(
    args,
    {
      out: (t) => out.push(t),
      err: (t) => err.push(t),
      read,
      write: (path, text) => void (files[path] = text),
      lines: () => linesOf(files['-'] ?? ''),
    },
    { folder, sheets: () => sheets },
  );
  return { code, out: out.join('\n'), err: err.join('\n') };
}

async function* linesOf(text: string): AsyncGenerator<string> {
  for (const line of text.split('\n')) yield await Promise.resolve(line);
}
