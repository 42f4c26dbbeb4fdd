import { getOrThrow } from '../../collections/orThrow';
import type { BoardPin } from '../../sheets/boardSheet';
import type { IndexedBoard } from '../../sheets/sheetIndex';
import type { Nets } from '../../nets/nets';
import { type PlanTerminal, signalOf } from '../../nets/terminals';
import { pinFits } from './pinFit';
import { usualPins } from './usual';

/** Whether a terminal could join a pin without meeting a different signal. */
export function isFreeFor(nets: Nets, pin: string, item: PlanTerminal): boolean {
  const net = nets.byPin.get(pin);
  return !net || net.signals.every((signal) => signal.id === signalOf(item));
}

/** How many abilities a pin has that the terminal does not ask for: spending them wastes what others may need. */
function waste(pin: BoardPin, item: PlanTerminal): number {
  const required = new Set([...(item.terminal.requires ?? []), ...(item.terminal.prefers ?? [])]);
  const analog = pin.adc && item.terminal.role !== 'adc.in' ? 4 : 0;
  const pwm = pin.pwm && !required.has('pwm') ? 1 : 0;
  const ownLine = pin.interrupts?.some((i) => !i.shared) && !required.has('interrupt') ? 1 : 0;
  const hardwareBus = (pin.functions ?? []).some((f) => f.startsWith('spi') || f.startsWith('i2c')) ? 1 : 0;
  return analog + pwm + ownLine + hardwareBus;
}

/** Pins that could take the terminal now, best first: no caution, then usual ones, then least waste, then physical order.
 *  @param item the terminal to be wired; its own present pin is left out */
export function freePins(board: IndexedBoard, nets: Nets, item: PlanTerminal): readonly string[] {
  const here = item.wire?.end.to === 'pin' ? item.wire.end.pin : undefined;
  const fits = pinFits(board, item.terminal);
  const usual = usualPins(board);
  return board.ioPins
    .filter((pin) => pin.id !== here && getOrThrow(fits, pin.id).verdict !== 'cannot' && isFreeFor(nets, pin.id, item))
    .map((pin, order) => ({
      pin,
      order,
      cost: (getOrThrow(fits, pin.id).verdict === 'costs' ? 100 : 0) + 20 * usual.signal(item.terminal.role, pin.id) + waste(pin, item),
    }))
    .sort((a, b) => a.cost - b.cost || a.order - b.order)
    .map(({ pin }) => pin.id);
}
