import { firstOrThrow } from '../collections/orThrow';
import Joi from 'joi';
import type { BoardSheet } from '../sheets/boardSheet';
import type { PartSheet } from '../sheets/partSheet';
import { readSheet } from '../sheets/readSheet';
import { bareSheets } from '../sheets/notedSheets';
import { boardOf } from './edit';
import { boardSheet, partSheet, type SheetRef, type Sheets } from '../sheets/sheetIndex';
import { unsafePlace } from '../sheets/unsafePlace';
import type { Plan } from './plan';
import { planSchema } from './planSchema';
import { renamedFields, upgradePlan } from './upgradePlan';

type Sheet = BoardSheet | PartSheet;

/** A plan file: the plan with its sheets, so that it opens anywhere. */
export interface PlanFile {
  readonly plan: Plan;
  readonly sheets: readonly Sheet[];
}

/** The shape of a plan file: the plan and the sheets it uses. */
export const fileSchema = (planSchema as Joi.ObjectSchema<Plan & { readonly sheets?: readonly unknown[] }>).keys({
  sheets: Joi.array().items(Joi.object().unknown()).max(250),
});

const refKey = ({ id, version }: SheetRef): string => `${id}@${version}`;

/** Every sheet a plan refers to, each version once. */
export function planRefs(plan: Plan): readonly SheetRef[] {
  return [...new Map([plan.board, ...plan.placements.map((p) => p.sheet)].map((ref) => [refKey(ref), ref])).values()];
}

/** The document of a plan file: the plan with the sheets it uses, as they were kept: its bench notes are in the plan. */
export function planDocument(plan: Plan, given: Sheets): Plan & { readonly sheets: readonly Sheet[] } {
  const sheets = bareSheets(given);
  const used = planRefs(plan).flatMap((ref) => (boardSheet(sheets, ref) ?? partSheet(sheets, ref))?.sheet ?? []);
  return { ...plan, sheets: used };
}

export type PlanFileRead =
  { readonly ok: true; readonly file: PlanFile } | { readonly ok: false; readonly path: string; readonly fault: string };

/** A document from outside as a plan with its sheets, or the first place where it is not one. */
export function readPlanFile(document: unknown): PlanFileRead {
  const unsafe = unsafePlace(document);
  if (unsafe !== undefined) return { ok: false, path: unsafe, fault: 'unknown key or nesting depth' };
  const { error, value } = fileSchema.validate(renamedFields(document), { convert: false, errors: { label: false } });
  if (error) return { ok: false, path: firstOrThrow(error.details).path.join('.') || 'the document', fault: error.message };
  const { sheets: documents = [], ...plan } = value as Plan & { readonly sheets?: readonly unknown[] };
  const sheets: Sheet[] = [];
  for (const [at, one] of documents.entries()) {
    const read = readSheet(one);
    if (!read.ok) return { ok: false, path: `sheets.${at}.${firstOrThrow(read.faults).path}`, fault: firstOrThrow(read.faults).fault };
    sheets.push(read.sheet);
  }
  return { ok: true, file: { plan: upgradePlan(plan), sheets } };
}

/** The plan with its references changed: sheets may get another version where they are kept. */
export function withRefs(plan: Plan, change: (ref: SheetRef) => SheetRef): Plan {
  return { ...plan, board: change(plan.board), placements: plan.placements.map((p) => ({ ...p, sheet: change(p.sheet) })) };
}

/** The first contradiction between a plan and its sheets: a missing sheet, terminal or end. */
export function planFault(plan: Plan, sheets: Sheets): { readonly path: string; readonly fault: string } | undefined {
  const board = boardOf(plan, sheets);
  if (!board) return { path: 'board.id', fault: `unknown board sheet ${plan.board.id}` };
  const parts = new Map(plan.placements.map((p) => [p.id, partSheet(sheets, p.sheet)]));
  for (const [at, placement] of plan.placements.entries())
    if (!parts.get(placement.id)) return { path: `placements.${at}.sheet.id`, fault: `unknown part sheet ${placement.sheet.id}` };
  const hasTerminal = (placement: string, terminal: string) => parts.get(placement)?.terminals.has(terminal) ?? false;
  for (const [key, { end }] of Object.entries(plan.wires)) {
    const colon = key.indexOf(':');
    if (!hasTerminal(key.slice(0, colon), key.slice(colon + 1))) return { path: `wires.${key}`, fault: 'no such terminal in this plan' };
    if (end.to === 'pin' && board.pins.get(end.pin)?.kind !== 'io')
      return { path: `wires.${key}.end.pin`, fault: `${end.pin} is not a signal pin of ${board.sheet.title}` };
    if (end.to === 'rail' && !board.sheet.rails.list.some((rail) => rail.id === end.rail))
      return { path: `wires.${key}.end.rail`, fault: `${end.rail} is not a rail of ${board.sheet.title}` };
    if (end.to === 'terminal' && !hasTerminal(end.placement, end.terminal))
      return { path: `wires.${key}.end`, fault: 'ends at a terminal that is not in this plan' };
    if ((end.to === 'trimmer' || end.to === 'divider') && !parts.get(key.slice(0, colon))?.terminals.get(key.slice(colon + 1))?.bias)
      return { path: `wires.${key}.end`, fault: 'no terminal whose voltage a trimmer or divider sets' };
  }
  return undefined;
}
