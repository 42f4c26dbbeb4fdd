import { type PlanFile, readPlanFile } from '@roof-chart/core/plan/planFile';
import type { Plan } from '@roof-chart/core/plan/plan';
import { indexSheets, type Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { InputFault, type Io } from './io';

/** A JSON document from a file or standard input.
 *  @throws InputFault with the place where it stops being JSON */
export function readJson(io: Io, path: string): unknown {
  const text = io.read(path);
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new InputFault(`${path}: not valid JSON: ${(error as Error).message}`);
  }
}

/** A plan as opened: its sheets are the shipped ones and those that its file carries. */
export interface OpenPlan {
  /** Where it was read, and where it is written unless another place is given; `-` for standard input. */
  readonly file: string;
  readonly plan: Plan;
  readonly sheets: Sheets;
  /** What the file carried, to be written back. */
  readonly carried: PlanFile['sheets'];
}

/** A plan from a file.
 *  @throws InputFault with the first place that is no plan */
export function openPlanFile(io: Io, shipped: Sheets, path: string): OpenPlan {
  const read = readPlanFile(readJson(io, path));
  if (!read.ok) throw new InputFault(`${path}: ${read.path}: ${read.fault}`);
  const { plan, sheets: carried } = read.file;
  // A shipped sheet is right as it is shipped; only what is not shipped comes from the file.
  const foreign = carried.filter((sheet) => !shipped.boards.has(sheet.id) && !shipped.parts.has(sheet.id));
  if (foreign.length === 0) return { file: path, plan, sheets: shipped, carried };
  try {
    return { file: path, plan, sheets: indexSheets([...[...shipped.versions.values()].map((s) => s.sheet), ...foreign]), carried };
  } catch (error) {
    throw new InputFault(`${path}: sheets: ${(error as Error).message}`);
  }
}
