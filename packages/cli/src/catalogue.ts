import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readSheet } from '@roof-chart/core/sheets/readSheet';
import { indexSheets, type Sheets } from '@roof-chart/core/sheets/sheetIndex';

/** The shipped sheets.
 *  @throws Error naming the first sheet that is not sound */
export function loadCatalogue(folder: string): Sheets {
  const names = ['boards', 'parts'].flatMap((kind) => readdirSync(join(folder, kind)).map((name) => join(folder, kind, name)));
  return indexSheets(
    names.map((name) => {
      const result = readSheet(JSON.parse(readFileSync(name, 'utf8')));
      if (!result.ok) throw new Error(`${name}: ${result.faults[0]!.path}: ${result.faults[0]!.fault}`);
      return result.sheet;
    }),
  );
}
