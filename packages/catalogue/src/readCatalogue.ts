import { firstOrThrow } from '@roof-chart/core/collections/orThrow';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { readSheet } from '@roof-chart/core/sheets/readSheet';

export interface SheetFile {
  /** `boards/rp2040-stick-40.json` */
  readonly name: string;
  readonly text: string;
}

/** The sheet files of a catalogue folder, in order of their names. */
export function sheetFiles(folder: string): readonly SheetFile[] {
  return ['boards', 'parts'].flatMap((kind) =>
    readdirSync(join(folder, kind))
      .filter((name) => name.endsWith('.json'))
      .sort()
      .map((name) => ({ name: `${kind}/${name}`, text: readFileSync(join(folder, kind, name), 'utf8') })),
  );
}

/** Identifies exactly these files. */
export function digestOf(files: readonly SheetFile[]): string {
  const hash = createHash('sha256');
  for (const { name, text } of files) hash.update(`${name}\0${text}\0`);
  return hash.digest('hex');
}

/** Where the build notes the digest of the files it has checked. */
export const CHECKED = 'dist/checked';

function checkedSheet({ name, text }: SheetFile): BoardSheet | PartSheet {
  const result = readSheet(JSON.parse(text));
  if (!result.ok) throw new Error(`Sheet ${name}: ${firstOrThrow(result.faults).path}: ${firstOrThrow(result.faults).fault}`);
  return result.sheet;
}

/** Every sheet of a catalogue folder. Files that the build has checked as they are now are not checked again:
 *  that would be half of the server's start.
 *  @throws Error naming the file and place of the first fault: a shipped sheet that is wrong must not start */
export function readCatalogue(folder: string): readonly (BoardSheet | PartSheet)[] {
  const files = sheetFiles(folder);
  const note = join(folder, CHECKED);
  const known = existsSync(note) && readFileSync(note, 'utf8') === digestOf(files);
  return known ? files.map(({ text }) => JSON.parse(text) as BoardSheet | PartSheet) : files.map(checkedSheet);
}
