import type { BoardPin, Rail } from '../sheets/boardSheet';
import type { PartSheet, PartTerminal } from '../sheets/partSheet';
import { PIN_ROLES } from '../sheets/roles';
import type { IndexedBoard } from '../sheets/sheetIndex';
import type { WireEnd } from '../plan/plan';
import { pinFit, pinFits, type FitReason, type PinFit } from './pinFit';
import { isRisky, supplyFault, tieLimit } from './railFit';

/** Why a rail or ground cannot take a terminal, besides the reasons of pins. */
export type EndReason = FitReason | 'rail-does-not-fit' | 'strap-too-high' | 'no-tie' | 'ground-only' | 'rail-only' | 'elsewhere';

export type EndFit = PinFit | { readonly verdict: 'cannot'; readonly reason: EndReason };

const CAN: EndFit = { verdict: 'can' };
const cannot = (reason: EndReason): EndFit => ({ verdict: 'cannot', reason });

/** Whether a part could live on a rail: what only leaves less margin is for the checks to tell. */
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

/** Whether a terminal could go to an end: a pin by its abilities, a rail by its voltage, ground by its role. */
export function endFit(board: IndexedBoard, part: PartSheet, terminal: PartTerminal, end: WireEnd): EndFit {
  if (terminal.need === 'outside') return cannot('elsewhere');
  if (end.to === 'rail') return railFit(board, part, terminal, end.rail);
  if (end.to === 'ground') return groundFit(terminal);
  if (end.to === 'terminal') return CAN;
  if (!PIN_ROLES[terminal.role]) return cannot(terminal.role === 'ground' ? 'ground-only' : 'rail-only');
  return pinFits(board, terminal).get(end.pin) ?? pinFit(board, end.pin, terminal);
}

/** The reason of a fit in words, for the pin in question; empty where it simply can. */
export function sayFit(fit: EndFit, terminal: PartTerminal, pin: BoardPin | undefined): string {
  if (fit.verdict === 'can') return '';
  return REASON_WORDS[fit.reason](terminal, pin);
}

const REASON_WORDS: { readonly [R in EndReason]: (terminal: PartTerminal, pin: BoardPin | undefined) => string } = {
  'not-a-signal-pin': () => 'This is no signal pin.',
  'no-pin-needed': () => 'This terminal takes no signal pin.',
  reserved: (_, pin) => `Taken by the board. ${pin?.trouble ?? ''}`,
  'no-line': (terminal) => `No bus controller brings ${PIN_ROLES[terminal.role]?.line?.line.toUpperCase() ?? 'this line'} out here.`,
  'no-adc': () => 'No analog input here.',
  'no-pwm': () => 'No PWM here.',
  'no-interrupt': () => 'No interrupt here.',
  'input-only': () => 'This pin is an input only.',
  'analog-only': () => 'This pin is an analog input and nothing else.',
  'output-only': () => 'This pin is an output only.',
  caution: (_, pin) => `Possible, with a cost: ${pin?.trouble ?? ''}`,
  'rail-does-not-fit': () =>
    'The rail’s voltage is outside the part’s supply range, or not the board’s logic supply where the part needs that.',
  'strap-too-high': () => 'The rail’s voltage is above what this strap takes.',
  'no-tie': () => 'The part sheet does not allow this tie.',
  'ground-only': () => 'A ground terminal goes to ground.',
  'rail-only': () => 'A supply terminal goes to a rail.',
  elsewhere: () => 'This terminal does not go to the board.',
};
