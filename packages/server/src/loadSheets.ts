import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { readSheet } from '@roof-chart/core/sheets/readSheet';

/** Every sheet of a catalogue folder, read and checked.
 *  @throws Error naming the file and place of the first fault: a shipped sheet that is wrong must not start */
export function loadSheets(folder: string): readonly (BoardSheet | PartSheet)[] {
  return ['boards', 'parts'].flatMap((kind) =>
    readdirSync(join(folder, kind))
      .filter((name) => name.endsWith('.json'))
      .sort()
      .map((name) => {
        const result = readSheet(JSON.parse(readFileSync(join(folder, kind, name), 'utf8')));
        if (!result.ok) throw new Error(`Sheet ${kind}/${name}: ${result.faults[0]!.path}: ${result.faults[0]!.fault}`);
        return result.sheet;
      }),
  );
}
