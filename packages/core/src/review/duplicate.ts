import { findOrThrow } from '../collections/orThrow';
import { freePins } from '../assign/fit/freePins';
import { findNets } from '../nets/nets';
import { terminalsOf } from '../nets/terminals';
import { applyEdits } from '../plan/applyEdits';
import { boardOf, type Edit, partOf } from '../plan/edit';
import { firstFree } from '../plan/newPlacement';
import { type Plan, sameEnd, terminalKey, type WireEnd } from '../plan/plan';
import { mapEntries } from '../plan/planMaps';
import type { Sheets } from '../sheets/sheetIndex';
import { additionOf } from './addition';

/** A part once more. */
export interface Duplicate {
  readonly placement: string;
  readonly edits: readonly Edit[];
  readonly plan: Plan;
}

/** What of a part a second one of its kind has too: its resistors, transistors, capacitors and loads, not what was done on the bench or what is
 *  said of one part alone. */
const PATTERN: ReadonlySet<Edit['kind']> = new Set(['series', 'pull', 'driver', 'ladder', 'capacitors', 'load', 'rate', 'software-pwm']);

/** Whether a wire ends the same for both: at a supply, at ground, at a trimmer or divider of its own. */
const isShared = ({ to }: WireEnd): boolean => to === 'rail' || to === 'ground' || to === 'trimmer' || to === 'divider';

/** A name with the next free number: "Knob" and "Knob 2" give "Knob 3". */
function nextName(plan: Plan, name: string): string {
  const names = new Set(plan.placements.map((p) => p.name));
  const stem = name.replace(/ \d+$/u, '');
  return firstFree(
    (one) => names.has(one),
    (n) => (n === 1 ? stem : `${stem} ${n}`),
  );
}

/** A second part of the same kind, wired as the first one is: on its buses, with pins and addresses of its own, the same supplies and ties, the same
 *  resistors and colours. Undefined for a part whose sheet is missing, one on the board, and in a full plan. */
export function duplicateOf(plan: Plan, sheets: Sheets, id: string): Duplicate | undefined {
  const original = plan.placements.find((p) => p.id === id);
  const part = partOf(plan, id, sheets)?.sheet;
  const board = boardOf(plan, sheets);
  const addition = part && board && original && !original.onBoard ? additionOf(plan, sheets, part) : undefined;
  if (!original || !part || !board || !addition) return undefined;
  const own = addition.placement;
  const named: Edit = { kind: 'rename-placement', placement: own, name: nextName(plan, original.name) };
  let now = addition.plan;
  const edits: Edit[] = [...addition.edits];
  const take = (more: readonly Edit[]): void => {
    for (const edit of more) {
      const result = applyEdits(now, [edit], sheets);
      if (!result.ok) continue;
      now = result.plan;
      edits.push(edit);
    }
  };
  take([named]);
  for (const { terminal } of terminalsOf(now, { id: own }, sheets)) {
    const at = { placement: own, terminal: terminal.id };
    const [was, is] = [plan.wires[terminalKey(id, terminal.id)], now.wires[terminalKey(own, terminal.id)]];
    if (was && isShared(was.end)) {
      // Straps are what tells two of a kind apart: those that the addition chose stay.
      if (terminal.role !== 'strap' && !sameEnd(is?.end, was.end)) take([{ kind: 'wire', ...at, end: was.end, colour: was.colour }]);
    } else if (was?.end.to === 'pin' && !is) {
      const item = findOrThrow(terminalsOf(now, { id: own }, sheets), (t) => t.terminal.id === terminal.id);
      const [pin] = freePins(board, findNets(now, sheets), item);
      if (pin !== undefined) take([{ kind: 'wire', ...at, end: { to: 'pin', pin }, colour: was.colour }]);
    } else if (!was && is && terminal.need === 'optional') take([{ kind: 'unwire', ...at }]);
    const drawn = now.wires[terminalKey(own, terminal.id)];
    if (was && drawn && drawn.colour !== was.colour) take([{ kind: 'colour', ...at, colour: was.colour }]);
  }
  take(
    mapEntries(plan).flatMap(({ owner, set }): Edit[] =>
      owner === id && PATTERN.has(set.kind) && 'placement' in set ? [{ ...set, placement: own } as Edit] : [],
    ),
  );
  if (original.pullUpsCut) take([{ kind: 'cut-pull-ups', placement: own, cut: true }]);
  return { placement: own, edits, plan: now };
}
