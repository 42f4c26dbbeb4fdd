import { randomUUID } from 'node:crypto';
import { type PlanFile, planFault, planRefs, withRefs } from '@roof-chart/core/plan/planFile';
import { indexSheets, type SheetRef } from '@roof-chart/core/sheets/sheetIndex';
import type { PlanStore, StoredPlan } from './planStore';
import type { KeptSheet, SheetShelf } from './sheetShelf';

export type ImportOutcome =
  | { readonly ok: true; readonly stored: StoredPlan; readonly kept: readonly KeptSheet[] }
  | { readonly ok: false; readonly path: string; readonly fault: string };

const refKey = ({ id, version }: SheetRef): string => `${id}@${version}`;

/** Takes a plan file in: sheets that are not shipped here are kept as own ones, and the plan refers to them as they
 *  are kept. Whether the plan is sound is known before anything is kept. */
export async function importPlan(store: PlanStore, shelf: SheetShelf, { plan, sheets }: PlanFile): Promise<ImportOutcome> {
  const used = new Set(planRefs(plan).map(refKey));
  const foreign = sheets.filter((sheet) => used.has(refKey(sheet)) && !shelf.ships(sheet.id)).sort((a, b) => a.version - b.version);
  const carried = new Set(foreign.map(refKey));
  const here = shelf.list.filter((sheet) => !carried.has(refKey(sheet)));
  let problem;
  try {
    problem = planFault(plan, indexSheets([...here, ...foreign]));
  } catch (error) {
    problem = { path: 'sheets', fault: (error as Error).message };
  }
  if (problem) return { ok: false, ...problem };
  // Versions of one sheet must be kept one after another, to be told apart.
  const moved = new Map<string, number>();
  const kept: KeptSheet[] = [];
  for (const sheet of foreign) {
    const outcome = await shelf.keep([sheet]);
    if (outcome.kind === 'taken') return { ok: false, path: 'sheets', fault: `a sheet of another kind has the id ${outcome.id}` };
    moved.set(refKey(sheet), outcome.sheets[0]!.version);
    kept.push(...outcome.sheets);
  }
  const settled = withRefs(plan, (ref) => ({ id: ref.id, version: moved.get(refKey(ref)) ?? ref.version }));
  const id = (await store.isTaken(plan.id)) ? randomUUID() : plan.id;
  return { ok: true, stored: await store.create({ ...settled, id }), kept };
}
