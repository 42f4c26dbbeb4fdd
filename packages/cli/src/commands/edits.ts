import { planChanges } from '@roof-chart/core/text/planChanges';
import { applyEdits } from '@roof-chart/core/plan/applyEdits';
import { diffPlans } from '@roof-chart/core/plan/diffPlans';
import type { Edit } from '@roof-chart/core/plan/edit';
import { editsSchema } from '@roof-chart/core/plan/editSchema';
import type { Plan, WireEnd } from '@roof-chart/core/plan/plan';
import { startPlan } from '@roof-chart/core/plan/startPlan';
import { idSchema, nameSchema } from '@roof-chart/core/plan/planSchema';
import { newPlacement } from '@roof-chart/core/plan/newPlacement';
import { additionOf } from '@roof-chart/core/review/addition';
import { defaultStrap } from '@roof-chart/core/sheets/defaultStrap';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { unsafePlace } from '@roof-chart/core/sheets/unsafePlace';
import { EXIT, type ExitCode, InputFault, type Io } from '../io';
import { openPlanFile, type OpenPlan, readJson } from '../planFile';
import { planText } from '../planText';

/** Where the changed plan goes: back into its file, to another, or to standard output. */
export interface Target {
  readonly out?: string;
}

const asJson = (value: unknown): string => JSON.stringify(value, null, 2);

/** Standard input has no place to write back to: its plan goes to standard output. */
export function deliver(io: Io, plan: Plan, file: string, { out = file }: Target, carried: OpenPlan['carried'] = []): ExitCode {
  const document = carried.length > 0 ? { ...plan, sheets: carried } : plan;
  if (out === '-') io.out(asJson(document));
  else io.write(out, `${asJson(document)}\n`);
  return EXIT.clean;
}

/** @throws InputFault naming the edit, the place in it, and what was expected */
function applied(plan: Plan, edits: readonly Edit[], sheets: Sheets): Plan {
  const result = applyEdits(plan, edits, sheets);
  if (result.ok) return result.plan;
  const { path, expected, got } = result.problem;
  throw new InputFault(`edit ${result.at + 1}: ${path} must be ${expected}, not ${got}; nothing was changed`);
}

const nearest = (ids: Iterable<string>): string => [...ids].join(', ');

/** `new`: an empty plan on a board. */
export function create(
  io: Io,
  sheets: Sheets,
  boardId: string,
  options: { readonly name: string; readonly id: string; readonly out: string },
): ExitCode {
  const board = sheets.boards.get(boardId)?.sheet;
  if (!board) throw new InputFault(`unknown board ${boardId}: expected one of ${nearest(sheets.boards.keys())}`);
  for (const [what, schema, value] of [
    ['--name', nameSchema, options.name],
    ['--id', idSchema, options.id],
  ] as const) {
    const { error } = schema.validate(value, { convert: false });
    if (error) throw new InputFault(`${what}: ${error.message}`);
  }
  return deliver(io, startPlan(options.id, options.name, board.id, sheets), options.out, {});
}

/** `add`: a part, by default with proposed wires. */
export function add(io: Io, shipped: Sheets, file: string, partId: string, options: Target & { readonly wires: boolean }): ExitCode {
  const { plan, sheets, carried } = openPlanFile(io, shipped, file);
  const part = sheets.parts.get(partId)?.sheet;
  if (!part) throw new InputFault(`unknown part ${partId}: expected one of ${nearest(sheets.parts.keys())}`);
  const addition = options.wires ? additionOf(plan, sheets, part) : undefined;
  const edits: readonly Edit[] = addition?.edits ?? [{ kind: 'add-placement', placement: newPlacement(plan, part) }];
  return deliver(io, applied(plan, edits, sheets), file, options, carried);
}

/** `edit`: a JSON list of edits, all or none. */
export function edit(io: Io, shipped: Sheets, file: string, editsFile: string, options: Target): ExitCode {
  if (file === '-' && editsFile === '-') throw new InputFault('the plan and the edits cannot both come from standard input');
  const { plan, sheets, carried } = openPlanFile(io, shipped, file);
  const document = readJson(io, editsFile);
  const unsafe = unsafePlace(document);
  if (unsafe !== undefined) throw new InputFault(`${editsFile}: ${unsafe}: unknown key or nesting depth`);
  const { error, value } = editsSchema.required().validate(document, { convert: false });
  if (error) throw new InputFault(`${editsFile}: ${error.details[0]!.path.join('.') || 'the list'}: ${error.message}`);
  return deliver(io, applied(plan, value as Edit[], sheets), file, options, carried);
}

function terminal(text: string): { placement: string; terminal: string } {
  const match = /^([a-z0-9][a-z0-9-]*):(.+)$/.exec(text);
  if (!match) throw new InputFault(`${text}: expected part:terminal, for example display-1:SDA`);
  return { placement: match[1]!, terminal: match[2]! };
}

/** "GP4", "rail:3v3", "ground" or "part:terminal". */
function endOf(text: string): WireEnd {
  if (text === 'ground') return { to: 'ground' };
  if (text.startsWith('rail:')) return { to: 'rail', rail: text.slice(5) };
  return text.includes(':') ? { to: 'terminal', ...terminal(text) } : { to: 'pin', pin: text };
}

/** `wire`: one terminal to an end, or `open` to unwire it. */
export function wire(io: Io, shipped: Sheets, file: string, from: string, to: string, options: Target): ExitCode {
  const place = terminal(from);
  const change: Edit = to === 'open' ? { kind: 'unwire', ...place } : { kind: 'wire', ...place, end: endOf(to) };
  const { plan, sheets, carried } = openPlanFile(io, shipped, file);
  return deliver(io, applied(plan, [change], sheets), file, options, carried);
}

/** `lock`: one wire, or with `off` free again. */
export function lock(io: Io, shipped: Sheets, file: string, at: string, options: Target & { readonly off: boolean }): ExitCode {
  const { plan, sheets, carried } = openPlanFile(io, shipped, file);
  return deliver(io, applied(plan, [{ kind: 'lock', ...terminal(at), locked: !options.off }], sheets), file, options, carried);
}

/** `show`: the plan as text, or its document. */
export function show(io: Io, shipped: Sheets, file: string, json: boolean): ExitCode {
  const { plan, sheets } = openPlanFile(io, shipped, file);
  io.out(json ? asJson(plan) : planText(plan, sheets));
  return EXIT.clean;
}

/** `diff`: what differs, or with JSON the edits that lead from the first to the second. Exit code 1 where anything does. */
export function diff(io: Io, shipped: Sheets, from: string, to: string, json: boolean): ExitCode {
  if (from === '-' && to === '-') throw new InputFault('only one of the plans can come from standard input');
  const { plan: a } = openPlanFile(io, shipped, from);
  const { plan: b, sheets } = openPlanFile(io, shipped, to);
  if (a.board.id !== b.board.id) throw new InputFault(`the plans use different boards: ${a.board.id} and ${b.board.id}`);
  const edits = diffPlans(a, b, (part, strap) => defaultStrap(sheets, part, strap));
  const lines = planChanges(a, b, sheets);
  const words =
    lines.length > 0 ? lines.join('\n') : `${edits.length} changes of colours, names, jumpers, locks or ticks (--json lists them)`;
  io.out(json ? asJson(edits) : edits.length === 0 ? 'No differences.' : words);
  return edits.length === 0 ? EXIT.clean : EXIT.clashes;
}
