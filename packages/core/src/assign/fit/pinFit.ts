import { entryOrThrow } from '../../collections/orThrow';
import type { BoardPin } from '../../sheets/boardSheet';
import type { PartTerminal } from '../../sheets/partSheet';
import { PIN_ROLES } from '../../sheets/roles';
import type { IndexedBoard } from '../../sheets/sheetIndex';
import type { Plan } from '../../plan/plan';
import { controllersAt } from '../../nets/controllers';
import { isCautionFor } from './pinUse';

/** Why a pin cannot serve, or what it costs; ids, so that the words are made at the edge. */
export type FitReason =
  | 'not-a-signal-pin'
  | 'no-pin-needed'
  | 'reserved'
  | 'no-line'
  | 'no-adc'
  | 'no-pwm'
  | 'no-interrupt'
  | 'input-only'
  | 'analog-only'
  | 'output-only'
  | 'caution';

export type PinFit =
  | { readonly verdict: 'can' }
  | { readonly verdict: 'costs'; readonly reason: 'caution' }
  | { readonly verdict: 'cannot'; readonly reason: FitReason };

const cannot = (reason: FitReason): PinFit => ({ verdict: 'cannot', reason });

function missingAbility(board: IndexedBoard, pin: BoardPin, terminal: PartTerminal): FitReason | null {
  const demand = entryOrThrow(PIN_ROLES, terminal.role);
  const requires = terminal.requires ?? [];
  if (demand.line && controllersAt(board, pin.id, demand.line.kind, demand.line.line).length === 0) return 'no-line';
  if (demand.adc && !pin.adc) return 'no-adc';
  if (pin.io === 'analog' && !demand.adc) return 'analog-only';
  if (demand.output && pin.io === 'in') return 'input-only';
  if (demand.input && pin.io === 'out') return 'output-only';
  if ((demand.pwm || requires.includes('pwm')) && !pin.pwm) return 'no-pwm';
  if (requires.includes('interrupt') && !pin.interrupts?.length) return 'no-interrupt';
  return null;
}

/** Whether one pin, taken alone, can serve one terminal. Other wires do not matter here.
 *  @example pinFit(board, 'GP4', sda) // { verdict: 'can' } */
export function pinFit(board: IndexedBoard, pinId: string, terminal: PartTerminal): PinFit {
  const pin = board.pins.get(pinId);
  // The board's own reset does for parts that may start together with it.
  if (pin?.control === 'reset' && pin.header && !pin.sameAs)
    return terminal.line === 'reset' ? { verdict: 'can' } : cannot('not-a-signal-pin');
  if (!pin || pin.kind !== 'io' || !pin.header || pin.sameAs) return cannot('not-a-signal-pin');
  if (!PIN_ROLES[terminal.role]) return cannot('no-pin-needed');
  const missing = missingAbility(board, pin, terminal);
  if (missing) return cannot(missing);
  if (pin.grade === 'reserved') return cannot('reserved');
  return isCautionFor(pin, terminal) ? { verdict: 'costs', reason: 'caution' } : { verdict: 'can' };
}

/** Whether the radio, if used in the plan, blocks the analog input of this pin. */
export function adcBlocked(
  plan: Plan,
  board: IndexedBoard,
  pin: BoardPin,
  terminals: readonly { readonly terminal: PartTerminal }[],
): boolean {
  if (!plan.radio || !pin.adc || !board.sheet.radio?.blocksAdc.includes(pin.adc.unit)) return false;
  return terminals.some(({ terminal }) => PIN_ROLES[terminal.role]?.adc);
}

const fitTables = new WeakMap<IndexedBoard, WeakMap<PartTerminal, ReadonlyMap<string, PinFit>>>();

/** The fit of every signal pin of the board for a terminal, in physical order.
 *  Remembered per board and terminal: both are immutable, and 100 rows of a chart ask again at every edit. */
export function pinFits(board: IndexedBoard, terminal: PartTerminal): ReadonlyMap<string, PinFit> {
  let table = fitTables.get(board);
  if (!table) fitTables.set(board, (table = new WeakMap()));
  let fits = table.get(terminal);
  if (!fits) {
    fits = new Map(board.ioPins.map((pin) => [pin.id, pinFit(board, pin.id, terminal)]));
    table.set(terminal, fits);
  }
  return fits;
}

/** Whether a terminal needs a board pin at all (supplies, grounds and outside terminals do not). */
export function wantsPin(terminal: PartTerminal): boolean {
  return PIN_ROLES[terminal.role] !== undefined;
}
