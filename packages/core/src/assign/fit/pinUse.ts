import type { BoardPin, PinDuty, PinEffect } from '../../sheets/boardSheet';
import type { PartSheet, PartTerminal } from '../../sheets/partSheet';
import { type ControllerKind, PIN_ROLES } from '../../sheets/roles';

/** The effect of a pin's board function on a connected terminal. `contends`: both drive the line; `listens`: the terminal receives what
 *  the board transmits; `acts`: the switched part turns on during start-up; `loads`: an LED keeps a weakly pulled-up line from reaching
 *  its high level; `lights`: it only draws current. */
export type PinUse = 'fails' | 'setting' | 'no-start' | 'contends' | 'listens' | 'loads' | 'lights' | 'pulled' | 'acts' | 'other';

export interface PinTrouble {
  readonly duty: Pick<PinDuty, 'note' | 'until'>;
  readonly use: PinUse;
  /** `acts`: something moves, sounds or switches. */
  readonly effect: PinEffect | 'acts';
}

const USE_OF: { readonly [E in PinEffect]: PinUse } = { fails: 'fails', setting: 'setting', 'no-start': 'no-start', disturbs: 'other' };

const stated = (duty: PinDuty): PinTrouble | undefined => duty.effect && { duty, use: USE_OF[duty.effect], effect: duty.effect };

/** The serial port of the board itself, for its console or for loading a program. */
function serialTrouble(duty: PinDuty, terminal: PartTerminal): PinTrouble | undefined {
  if (!duty.way) return { duty, use: 'other', effect: duty.effect ?? 'disturbs' };
  if (terminal.direction !== 'in') return { duty, use: duty.effect === 'fails' ? 'fails' : 'contends', effect: duty.effect ?? 'setting' };
  return { duty, use: duty.effect === 'fails' ? 'fails' : 'listens', effect: duty.effect === 'fails' ? 'fails' : 'disturbs' };
}

/** Whether a terminal's line is pulled high only by a pull-up: contacts, open-drain outputs, and outputs that idle high through a
 *  resistor. */
function isPulledOnly(part: PartSheet, terminal: PartTerminal): boolean {
  const outputs = terminal.outputs ?? part.levels?.outputs;
  const rests = terminal.role === 'gpio.in' && terminal.idle === 'high';
  return !part.supply || outputs === 'open-drain' || rests || terminal.role === 'onewire.data';
}

/** Whether what a terminal switches goes on while the board starts. */
const actsAtStart = (pin: BoardPin, terminal: PartTerminal): boolean =>
  pin.starts !== undefined && terminal.acts !== undefined && (pin.starts === 'pulses' || pin.starts === terminal.acts);

function troubleOf(duty: PinDuty, part: PartSheet, terminal: PartTerminal): PinTrouble | undefined {
  switch (duty.duty) {
    case 'console':
    case 'usb':
      return serialTrouble(duty, terminal);
    case 'led':
      if (terminal.direction === 'in') return undefined;
      // One towards the supply pulls the line up itself.
      return duty.level === 'high' && isPulledOnly(part, terminal)
        ? { duty, use: 'loads', effect: 'setting' }
        : { duty, use: 'lights', effect: 'disturbs' };
    case 'pull-up':
      return PIN_ROLES[terminal.role]?.line?.kind === 'i2c' ? undefined : { duty, use: 'pulled', effect: 'disturbs' };
    case 'boot':
      // Boot levels are judged by the idle level of the line.
      return duty.level === undefined ? (stated(duty) ?? { duty, use: 'other', effect: 'disturbs' }) : undefined;
    case 'flash':
      return { duty, use: 'no-start', effect: 'no-start' };
    case 'button':
    case 'sense':
      return stated(duty) ?? { duty, use: 'other', effect: 'disturbs' };
    case 'debug':
      return stated(duty);
    case 'select':
    case 'eeprom':
      return undefined;
  }
}

/** What the board's own use of a pin does to a terminal that is wired to it; nothing of reserved pins, which carry no wire at all, and of
 *  pins whose duties leave the terminal alone. */
export function pinTroubles(pin: BoardPin, part: PartSheet, terminal: PartTerminal): readonly PinTrouble[] {
  if (pin.grade === 'reserved') return [];
  // An analog input with an on-board divider is described in the sheet and free.
  const own = (pin.duties ?? []).flatMap((duty) => (pin.grade === 'free' && !duty.effect ? [] : (troubleOf(duty, part, terminal) ?? [])));
  return actsAtStart(pin, terminal) ? [...own, { duty: { note: pin.atReset ?? '' }, use: 'acts', effect: 'acts' }] : own;
}

/** Whether a pin is one of caution for a terminal: one with a consequence that the sheet states, for this use of it. */
export function isCautionFor(pin: BoardPin, terminal: PartTerminal): boolean {
  const line = PIN_ROLES[terminal.role]?.line;
  const stated = line ? isCautionForLine(pin, line.kind, line.line) : pin.grade === 'caution' && !isHarmlessFor(pin, terminal);
  return stated || actsAtStart(pin, terminal);
}

/** Whether what the board uses a pin for does nothing to a signal of this kind: a hardware select is an output as any chip select is, and a
 *  chip select leaves a boot pin that the board pulls up where it is. */
function isHarmlessFor({ duties = [] }: BoardPin, { role }: PartTerminal): boolean {
  const drives = PIN_ROLES[role]?.output === true && PIN_ROLES[role]?.input !== true;
  const harmless = ({ duty, level }: PinDuty) =>
    (duty === 'select' && drives) || (duty === 'boot' && level === 'high' && role === 'spi.cs');
  return duties.length > 0 && duties.every(harmless);
}

/** Lines that the board drives. */
const DRIVEN = new Set(['sck', 'mosi', 'cs', 'tx', 'rts']);

/** As `isCautionFor`, for the line of a bus before it is known whose. */
export function isCautionForLine(pin: BoardPin, kind: ControllerKind, line: string): boolean {
  if (pin.grade !== 'caution') return false;
  const duties = pin.duties ?? [];
  const harmless = ({ duty }: PinDuty) => (duty === 'pull-up' && kind === 'i2c') || (duty === 'led' && DRIVEN.has(line));
  return duties.length === 0 || !duties.every(harmless);
}
