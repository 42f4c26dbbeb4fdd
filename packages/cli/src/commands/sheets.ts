import { mkdirSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { digestOf, readCatalogue, sheetFiles } from '@roof-chart/catalogue/readCatalogue';
import { FAMILIES } from '@roof-chart/core/sheets/partSheet';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { type Sourced, type Trust, TRUSTS } from '@roof-chart/core/sheets/source';
import type { RegisterCommand } from '../command';
import { EXIT, type ExitCode, InputFault, type Io } from '../io';

const isSourced = (value: unknown): value is Sourced => typeof value === 'object' && value !== null && 'source' in value;

/** Groups of facts by how far each can be trusted. */
function trustOf(documents: readonly object[]): { readonly [T in Trust]: number } {
  const trusts = documents.flatMap((document) =>
    Object.values(document)
      .filter(isSourced)
      .map((group) => group.source.trust),
  );
  return Object.fromEntries(TRUSTS.map((trust) => [trust, trusts.filter((t) => t === trust).length])) as { [T in Trust]: number };
}

/** Counts of the catalogue by family and trust, and every id. */
function sheets(io: Io, all: Sheets, json: boolean): ExitCode {
  const boards = [...all.boards.values()].map((b) => b.sheet);
  const parts = [...all.parts.values()].map((p) => p.sheet);
  const families = FAMILIES.map((family) => ({ family, sheets: parts.filter((p) => p.family === family) })).filter(
    (f) => f.sheets.length > 0,
  );
  const counts = {
    boards: boards.length,
    parts: parts.length,
    families: Object.fromEntries(families.map((f) => [f.family, f.sheets.length])),
    trust: { boards: trustOf(boards), parts: trustOf(parts) },
    unknownFacts: [...boards, ...parts].reduce((sum, sheet) => sum + sheet.unknown.length, 0),
  };
  if (json) {
    io.out(JSON.stringify({ ...counts, ids: { boards: boards.map((b) => b.id), parts: parts.map((p) => p.id) } }, null, 2));
    return EXIT.clean;
  }
  io.out(`${counts.boards} boards`);
  for (const board of boards) io.out(`  ${board.id}  ${board.title}`);
  for (const { family, sheets: list } of families) {
    io.out(`${list.length} of family ${family}`);
    for (const part of list) io.out(`  ${part.id}  ${part.title}`);
  }
  return EXIT.clean;
}

/** Validates every sheet of a folder and stores the digests of the valid files. */
function noteChecked(folder: string, note: string): ExitCode {
  const files = sheetFiles(folder);
  writeNote(note, '');
  try {
    readCatalogue(folder);
  } catch (error) {
    throw new InputFault((error as Error).message);
  }
  writeNote(note, digestOf(files));
  return EXIT.clean;
}

function writeNote(note: string, text: string): void {
  mkdirSync(dirname(note), { recursive: true });
  writeFileSync(note, text);
}

export const registerSheets: RegisterCommand = (program, { io, catalogue, done }) => {
  program
    .command('sheets')
    .description('Counts the boards and parts in the library by family and trust.')
    .option('--json', 'counts and IDs as JSON', false)
    .option('--note <file>', 'validate every sheet and store the digests of the valid files')
    .action((options: { json: boolean; note?: string }) =>
      done(options.note ? noteChecked(catalogue.folder, options.note) : sheets(io, catalogue.sheets(), options.json)),
    );
};
