import type { IndexedBoard } from '../sheets/sheetIndex';
import type { Nets } from '../nets/nets';
import type { PlanTerminal } from '../nets/terminals';

/** Pins with a wire, of the signal pins on the board's headers. */
export interface PinLedger {
  readonly used: number;
  readonly total: number;
}

/** What the parts take from one rail, in milliamperes, against its budget. */
export interface RailLedger {
  readonly rail: string;
  readonly label: string;
  readonly typicalMilliamps: number;
  readonly peakMilliamps: number;
  readonly budgetMilliamps: number | undefined;
  readonly lines: readonly { readonly placement: string; readonly typicalMilliamps: number; readonly peakMilliamps: number }[];
}

export interface Ledgers {
  readonly pins: PinLedger;
  readonly rails: readonly RailLedger[];
}

const sum = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0);

/** Each placement on the rail of its first supply terminal: a second supply terminal is the same supply. */
function fedFrom(terminals: readonly PlanTerminal[], nets: Nets): ReadonlyMap<string, PlanTerminal & { rail: string }> {
  const fed = new Map<string, PlanTerminal & { rail: string }>();
  for (const item of terminals) {
    const rail = item.terminal.role === 'supply.vcc' ? nets.byTerminal.get(item.key)?.rails[0] : undefined;
    if (rail && !fed.has(item.placement.id)) fed.set(item.placement.id, { ...item, rail });
  }
  return fed;
}

/** How many of a board's signal pins something is wired to. */
export const usedPins = (board: IndexedBoard, nets: Nets): number => board.ioPins.filter((pin) => nets.byPin.has(pin.id)).length;

/** The budgets of a plan: pins, and the current of every rail that gives current. */
export function ledgersOf(board: IndexedBoard, nets: Nets, terminals: readonly PlanTerminal[]): Ledgers {
  const fed = [...fedFrom(terminals, nets).values()];
  const rails = board.sheet.rails.list
    .filter((rail) => rail.direction !== 'in')
    .map((rail): RailLedger => {
      const lines = fed
        .filter((item) => item.rail === rail.id && item.part.supply)
        .map(({ placement, part }) => ({
          placement: placement.id,
          typicalMilliamps: part.supply!.typicalMilliamps,
          peakMilliamps: part.supply!.peakMilliamps,
        }));
      return {
        rail: rail.id,
        label: rail.label,
        typicalMilliamps: sum(lines.map((l) => l.typicalMilliamps)),
        peakMilliamps: sum(lines.map((l) => l.peakMilliamps)),
        budgetMilliamps: rail.budgetMilliamps,
        lines,
      };
    });
  return { pins: { used: usedPins(board, nets), total: board.ioPins.length }, rails };
}
