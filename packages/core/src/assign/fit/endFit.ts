import type { BoardPin, Rail } from '../../sheets/boardSheet';
import type { PartSheet, PartTerminal } from '../../sheets/partSheet';
import { singleLed } from '../../nets/leds';
import { PIN_ROLES } from '../../sheets/roles';
import type { IndexedBoard } from '../../sheets/sheetIndex';
import type { WireEnd } from '../../plan/plan';
import { pinFit, pinFits, type FitReason, type PinFit } from './pinFit';
import { isRisky, supplyFault, tieLimit } from './railFit';

/** Why a rail or ground cannot take a terminal, besides the reasons of pins. */
export type EndReason = FitReason | 'rail-does-not-fit' | 'strap-too-high' | 'no-tie' | 'ground-only' | 'rail-only' | 'elsewhere';

export type EndFit = PinFit | { readonly verdict: 'cannot'; readonly reason: EndReason };

const CAN: EndFit = { verdict: 'can' };
const cannot = (reason: EndReason): EndFit => ({ verdict: 'cannot', reason });

/** Whether a part could work on a rail; a reduced margin is reported by the checks. */
function canFeed(board: IndexedBoard, part: PartSheet, terminal: PartTerminal, rail: Rail): boolean {
  const fault = supplyFault(board, part, terminal, rail);
  return fault === undefined || isRisky(fault);
}

function railFit(board: IndexedBoard, part: PartSheet, terminal: PartTerminal, railId: string): EndFit {
  if (terminal.role === 'ground') return cannot('ground-only');
  const rail = board.sheet.rails.list.find((r) => r.id === railId);
  if (terminal.role === 'supply.vcc') return rail && canFeed(board, part, terminal, rail) ? CAN : cannot('rail-does-not-fit');
  if (!terminal.ties?.includes('supply')) return cannot('no-tie');
  return rail && rail.volts.max <= tieLimit(part, terminal.id) ? CAN : cannot('strap-too-high');
}

function groundFit(terminal: PartTerminal): EndFit {
  if (terminal.role === 'ground' || terminal.ties?.includes('ground')) return CAN;
  return cannot(terminal.role === 'supply.vcc' ? 'rail-only' : 'no-tie');
}

/** Where the two ends of a single LED may go, whichever way it is driven: the anode to a supply, the cathode to ground, either to an output.
 *  @returns undefined for all other parts */
function ledFit(board: IndexedBoard, part: PartSheet, terminal: PartTerminal, end: WireEnd): EndFit | undefined {
  const led = singleLed(part);
  if (!led || end.to === 'terminal' || end.to === 'trimmer' || end.to === 'divider') return undefined;
  const isAnode = terminal.id === led.anode;
  if (end.to === 'rail') return isAnode ? CAN : cannot('ground-only');
  if (end.to === 'ground') return isAnode ? cannot('no-tie') : CAN;
  return pinFits(board, led.signal).get(end.pin) ?? pinFit(board, end.pin, led.signal);
}

/** Whether a terminal could go to an end: a pin by its abilities, a rail by its voltage, ground by its role. */
export function endFit(board: IndexedBoard, part: PartSheet, terminal: PartTerminal, end: WireEnd): EndFit {
  if (terminal.role === 'external') return cannot('elsewhere');
  const led = ledFit(board, part, terminal, end);
  if (led) return led;
  if (end.to === 'rail') return railFit(board, part, terminal, end.rail);
  if (end.to === 'ground') return groundFit(terminal);
  if (end.to === 'terminal') return CAN;
  if (end.to === 'trimmer' || end.to === 'divider') return terminal.bias ? CAN : cannot('no-tie');
  if (!PIN_ROLES[terminal.role]) return cannot(terminal.role === 'ground' ? 'ground-only' : 'rail-only');
  return pinFits(board, terminal).get(end.pin) ?? pinFit(board, end.pin, terminal);
}

/** The reason of a fit in words, for the pin in question; empty where it simply can. */
export function fitReason(fit: EndFit, terminal: PartTerminal, pin: BoardPin | undefined): string {
  if (fit.verdict === 'can') return '';
  return REASON_WORDS[fit.reason](terminal, pin);
}

const REASON_WORDS: { readonly [R in EndReason]: (terminal: PartTerminal, pin: BoardPin | undefined) => string } = {
  'not-a-signal-pin': () => 'Not a signal pin.',
  'no-pin-needed': () => 'This terminal does not connect to a signal pin.',
  reserved: (_, pin) => `Used by the board itself. ${pin?.trouble ?? ''}`,
  'no-line': (terminal) => `No bus controller has ${PIN_ROLES[terminal.role]?.line?.line.toUpperCase() ?? 'this line'} on this pin.`,
  'no-adc': () => 'No analog input on this pin.',
  'no-pwm': () => 'No PWM on this pin.',
  'no-interrupt': () => 'No interrupt on this pin.',
  'input-only': () => 'Input-only pin.',
  'analog-only': () => 'Analog-input-only pin.',
  'output-only': () => 'Output-only pin.',
  caution: (_, pin) => `Possible, with a caveat: ${pin?.trouble ?? ''}`,
  'rail-does-not-fit': () => 'The rail is outside the part’s supply range, or is not the logic supply that the part requires.',
  'strap-too-high': () => 'The rail exceeds the maximum voltage of this strap.',
  'no-tie': () => 'The part sheet does not allow this tie.',
  'ground-only': () => 'A ground terminal connects to ground.',
  'rail-only': () => 'A supply terminal connects to a rail.',
  elsewhere: () => 'This terminal does not connect to the board.',
};
