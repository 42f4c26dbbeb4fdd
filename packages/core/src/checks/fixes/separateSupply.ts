import { railsFor, supplyFault } from '../../assign/fit/railFit';
import { type RailReport, railReports } from '../../electrics/reports/railReport';
import { type PlanTerminal, terminalsOf } from '../../nets/terminals';
import { applyEdits } from '../../plan/applyEdits';
import { boardOf, boardOrThrow, type Edit } from '../../plan/edit';
import { newPlacement } from '../../plan/newPlacement';
import { type Plan, terminalKey } from '../../plan/plan';
import { isSameNominal } from '../../quantity/range';
import type { Rail } from '../../sheets/boardSheet';
import type { PartSheet } from '../../sheets/partSheet';
import type { IndexedBoard, Sheets } from '../../sheets/sheetIndex';

/** A regulator or source that is added to a plan for loads. */
export interface SeparateSupply {
  readonly part: PartSheet;
  readonly edits: readonly Edit[];
  readonly plan: Plan;
}

type Output = NonNullable<PartSheet['supplies']>['list'][number];

/** Whether more flows from a rail than it gives. */
export const isOver = ({ rail, peakMilliamps }: RailReport): boolean =>
  rail.budgetMilliamps !== undefined && peakMilliamps > rail.budgetMilliamps;

/** Whether a supply terminal is within its range on a rail, except at extremes. */
const isFed = (board: IndexedBoard, part: PartSheet, terminal: PlanTerminal['terminal'], rail: Rail): boolean =>
  (supplyFault(board, part, terminal, rail)?.from ?? 'extreme') === 'extreme';

/** The wires of a new supply: its grounds, and its input from the first rail that fits it. Undefined where none does. */
function supplyWires(board: IndexedBoard, id: string, part: PartSheet): readonly Edit[] | undefined {
  const edits: Edit[] = [];
  for (const terminal of part.terminals.list) {
    const at = { kind: 'wire' as const, placement: id, terminal: terminal.id };
    if (terminal.role === 'ground' && terminal.need === 'needed') edits.push({ ...at, end: { to: 'ground' } });
    if (terminal.role !== 'supply.vcc') continue;
    const rail = railsFor(board, part, terminal).find((one) => one.direction !== 'in' && isFed(board, part, terminal, one));
    if (!rail) return undefined;
    edits.push({ ...at, end: { to: 'rail', rail: rail.id } });
  }
  return edits;
}

/** What a supply is wanted for. */
interface Wanted {
  readonly loads: readonly PlanTerminal[];
  /** The rail that has fewer loads then, if they have one. */
  readonly relieved?: string;
  /** Whether an output has the right voltage. */
  readonly fits: (output: Output) => boolean;
}

/** Loads fed from the smallest regulator, and from the smallest source, that fits and is enough: no rail is overloaded by it. */
function fedFromNew(plan: Plan, sheets: Sheets, { loads, relieved, fits }: Wanted): readonly SeparateSupply[] {
  const board = boardOrThrow(plan, sheets);
  const had = new Set(railReports(plan, sheets).flatMap((one) => (isOver(one) && one.rail.id !== relieved ? [one.rail.id] : [])));
  const found = [...sheets.parts.values()]
    .flatMap(({ sheet: part }) => {
      const output = part.supplies?.list.find(fits);
      return output ? [{ part, output }] : [];
    })
    .toSorted((a, b) => a.output.maxMilliamps - b.output.maxMilliamps);
  const tried = (isSource: boolean): readonly SeparateSupply[] => {
    for (const { part, output } of found) {
      if ((output.regulator === undefined) !== isSource) continue;
      const added = newPlacement(plan, part);
      const wires = supplyWires(board, added.id, part);
      if (!wires) continue;
      const rail = terminalKey(added.id, output.output);
      const edits: Edit[] = [
        { kind: 'add-placement', placement: added },
        ...wires,
        ...(part.supply?.capacitors ? [{ kind: 'capacitors' as const, placement: added.id, there: true }] : []),
        ...loads.map(({ placement, terminal }): Edit => ({
          kind: 'wire',
          placement: placement.id,
          terminal: terminal.id,
          end: { to: 'rail', rail },
        })),
      ];
      const after = applyEdits(plan, edits, sheets);
      if (after.ok && railReports(after.plan, sheets).every((one) => !isOver(one) || had.has(one.rail.id)))
        return [{ part, edits, plan: after.plan }];
    }
    return [];
  };
  return [...tried(false), ...tried(true)];
}

/** The ways to feed a load of a rail from a regulator or a source of its own with the voltage that it has now.
 *  @param rail the id of the rail that feeds it now */
export function separateSupplies(plan: Plan, sheets: Sheets, placement: string, rail: string): readonly SeparateSupply[] {
  const from = boardOf(plan, sheets)?.sheet.rails.list.find(({ id }) => id === rail);
  const loads = terminalsOf(plan, { id: placement }, sheets).filter(
    ({ terminal, wire }) => terminal.role === 'supply.vcc' && wire?.end.to === 'rail' && wire.end.rail === rail,
  );
  if (!from || loads.length === 0 || loads.some(({ wire, placement: own }) => wire?.locked || own.onBoard)) return [];
  return fedFromNew(plan, sheets, { loads, relieved: rail, fits: ({ volts }) => isSameNominal(volts, from.volts) });
}

/** The ways to feed supply terminals of a part that no rail of the plan suits from a regulator or a source that is added.
 *  @param open those without a wire */
export function missingSupplies(plan: Plan, sheets: Sheets, open: readonly PlanTerminal[]): readonly SeparateSupply[] {
  const board = boardOf(plan, sheets);
  const loads = open.filter(
    ({ part, terminal }) => terminal.role === 'supply.vcc' && board && railsFor(board, part, terminal).length === 0,
  );
  if (!board || loads.length === 0) return [];
  return fedFromNew(plan, sheets, {
    loads,
    fits: ({ volts }) =>
      loads.every(({ part, terminal }) => isFed(board, part, terminal, { id: '', label: '', feed: '', direction: 'out', volts })),
  });
}
