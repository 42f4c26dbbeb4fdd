import { firstOrThrow } from '@roof-chart/core/collections/orThrow';
import { randomUUID } from 'node:crypto';
import type { Plan } from '@roof-chart/core/plan/plan';
import { type PlanFile, planFault, planRefs, withRefs } from '@roof-chart/core/plan/planFile';
import { indexSheets, type SheetRef } from '@roof-chart/core/sheets/sheetIndex';
import type { KeptSheet } from '@roof-chart/api/keptSheets';
import type { StoredPlan } from '@roof-chart/api/storedPlan';
import type { PlanStore } from './planStore';
import type { SheetRepository } from './sheetRepository';
import type { Statements } from './transactions';

export type ImportOutcome = Imported | { readonly ok: false; readonly path: string; readonly fault: string };

const refKey = ({ id, version }: SheetRef): string => `${id}@${version}`;

/** Imports a plan file: sheets that are not in the library are saved as own sheets. The plan is validated first; plan and sheets are
 *  saved together or not at all. */
export function importPlan(store: PlanStore, shelf: SheetRepository, file: PlanFile): ImportOutcome {
  const fault = importFault(shelf, file);
  if (fault) return { ok: false, ...fault };
  try {
    return store.transactions.write((statements) => importWithin(statements, store, shelf, file));
  } catch (error) {
    shelf.load();
    if (error instanceof ImportRefused) return { ok: false, path: 'sheets', fault: error.message };
    throw error;
  }
}

/** Why a file cannot be imported, found during the import: the enclosing transaction stores nothing. */
export class ImportRefused extends Error {}

/** Sheets of the file that are not shipped here, versions of one sheet one after another. */
function foreignSheets(shelf: SheetRepository, { plan, sheets }: PlanFile) {
  const used = new Set(planRefs(plan).map(refKey));
  return sheets.filter((sheet) => used.has(refKey(sheet)) && !shelf.ships(sheet.id)).sort((a, b) => a.version - b.version);
}

/** Why a plan file cannot be imported. */
export function importFault(shelf: SheetRepository, file: PlanFile): { readonly path: string; readonly fault: string } | undefined {
  const foreign = foreignSheets(shelf, file);
  const carried = new Set(foreign.map(refKey));
  const here = shelf.list.filter((sheet) => !carried.has(refKey(sheet)));
  try {
    return planFault(file.plan, indexSheets([...here, ...foreign]));
  } catch (error) {
    return { path: 'sheets', fault: (error as Error).message };
  }
}

export interface Imported {
  readonly ok: true;
  readonly stored: StoredPlan;
  readonly kept: readonly KeptSheet[];
}

/** Imports a plan file within a larger transaction. If that fails, the sheets must be reloaded.
 *  @throws ImportRefused if one of its sheets cannot be saved */
export function importWithin(statements: Statements, store: PlanStore, shelf: SheetRepository, file: PlanFile): Imported {
  const { plan, kept } = keepSheets(statements, shelf, file);
  const id = store.isTaken(plan.id) ? randomUUID() : plan.id;
  return { ok: true, stored: store.createWithin(statements, { ...plan, id }), kept };
}

/** Keeps the sheets of a file as own ones, and gives its plan as it refers to them here.
 *  @throws ImportRefused when one of them cannot be kept */
export function keepSheets(
  statements: Statements,
  shelf: SheetRepository,
  file: PlanFile,
): { readonly plan: Plan; readonly kept: readonly KeptSheet[] } {
  const moved = new Map<string, number>();
  const kept: KeptSheet[] = [];
  for (const sheet of foreignSheets(shelf, file)) {
    const outcome = shelf.keepWithin(statements, [sheet]);
    if (outcome.kind === 'taken') throw new ImportRefused(`the ID ${outcome.id} is used by a sheet of another kind`);
    moved.set(refKey(sheet), firstOrThrow(outcome.sheets).version);
    kept.push(...outcome.sheets);
  }
  if (kept.length > 0) shelf.load();
  return { plan: withRefs(file.plan, (ref) => ({ id: ref.id, version: moved.get(refKey(ref)) ?? ref.version })), kept };
}
