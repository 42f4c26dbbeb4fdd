import { TRANSISTOR_WORDS } from '@roof-chart/core/checks/transistors';
import { sayList, sayPlacement, sayTerminal } from '@roof-chart/core/checks/say';
import type { BoardPosition, BuildResistor, BuildWire } from '@roof-chart/core/outputs/buildList';
import type { BuildSection, BuildStep, BuiltChange } from '@roof-chart/core/outputs/buildSheet';
import type { Plan } from '@roof-chart/core/plan/plan';
import { capitalised, formatSi } from '@roof-chart/core/quantity/format';
import { boardSheet, type Sheets } from '@roof-chart/core/sheets/sheetIndex';
import { endWords } from '../../app/editWords';
import { resistorWords } from '../resistors/resistorWords';

const ORDINAL = ['th', 'st', 'nd', 'rd'] as const;

/** @example ordinal(22) // '22nd' */
export function ordinal(n: number): string {
  const teen = n % 100 > 10 && n % 100 < 14;
  return `${n}${teen ? 'th' : (ORDINAL[n % 10] ?? 'th')}`;
}

function positionWords(at: BoardPosition): string {
  const port = at.port && at.port !== at.label ? `, chip port ${at.port}` : '';
  const side = at.headerTitle.includes(at.side) ? '' : `, ${at.side} side`;
  return `${at.headerTitle}${side}, position ${at.position}, ${ordinal(at.fromEnd)} from the ${at.end}${port}`;
}

export function whereWords(wire: BuildWire): string {
  return wire.joined ? `at the joint; ${boardWords(wire)}` : boardWords(wire);
}

function boardWords(wire: Pick<BuildWire, 'at' | 'end' | 'placement'>): string {
  const [first, ...others] = wire.at;
  if (wire.end.to === 'terminal') return wire.end.placement === wire.placement ? 'on the same part' : 'from part to part';
  if (!first) return wire.end.to === 'pin' ? 'on no header of the board' : 'this rail is on no header of the board';
  if (wire.end.to === 'pin') return [positionWords(first), ...others.map((o) => `or ${positionWords(o)}`)].join('; ');
  if (others.length === 0) return positionWords(first);
  const headers = [...new Set(wire.at.map((at) => at.headerTitle))];
  const byHeader = headers.map(
    (title) =>
      `${title} ${wire.at
        .filter((at) => at.headerTitle === title)
        .map((at) => at.position)
        .join(', ')}`,
  );
  return `any of ${byHeader.join('; ')}`;
}

/** What sits in a wire: the plan's resistor, or what the sheet says must be there. */
export const throughWords = (wire: BuildWire): string => (wire.series === undefined ? (wire.through ?? '') : formatSi(wire.series, 'Ω'));

export const SECTION_WORDS: { readonly [S in BuildSection['id']]: string } = {
  safety: 'Before you begin',
  joints: 'Joints',
  grounds: 'Grounds',
  supplies: 'Supplies',
  straps: 'Jumpers',
  passives: 'Resistors, capacitors and what else stands beside the parts',
  wires: 'Wires',
  enabling: 'Settings',
  light: 'First power-up',
};

/** A step in words: what it is about, what to do, and what helps to do it. */
export interface StepWords {
  readonly head: string;
  readonly text: string;
  readonly detail?: string;
}

/** Where a pull-up or pull-down goes. */
function pullEnd(plan: Plan, sheets: Sheets, { to, rail }: Extract<BuildResistor, { do: 'pull' }>): string {
  if (to === 'ground') return 'ground';
  return rail === undefined ? 'its supply' : endWords(plan, sheets, { to: 'rail', rail });
}

function resistorStep(plan: Plan, sheets: Sheets, resistor: BuildResistor): StepWords {
  switch (resistor.do) {
    case 'cut':
      return {
        head: sayPlacement(plan, resistor.placement),
        text: `take its pull-ups of ${formatSi(resistor.ohms, 'Ω')} off the lines`,
        detail: resistor.how === 'jumper' ? 'cut or open their solder jumper' : 'unsolder the two resistors',
      };
    case 'ladder': {
      const [first, ...rest] = [resistor.ladder.pull, ...resistor.ladder.row].map(resistorWords);
      return {
        head: sayPlacement(plan, resistor.placement),
        text: `its ladder has ${first} at the pin`,
        ...(rest.length > 0 ? { detail: `then key by key ${rest.join(', ')}` } : {}),
      };
    }
    case 'driver': {
      const { kind, ohms } = resistor.driver;
      return {
        head: sayTerminal(plan, sheets, resistor.key),
        text: `${TRANSISTOR_WORDS[kind]} between it and its pin`,
        detail: `with ${resistorWords(ohms)} at its ${kind.endsWith('mos') ? 'gate' : 'base'}`,
      };
    }
    case 'series':
      return {
        head: sayTerminal(plan, sheets, resistor.key),
        text: `${resistorWords(resistor.ohms)} ${resistor.from === undefined ? 'in its wire' : `between it and ${resistor.from}`}`,
      };
    case 'pull':
      return {
        head: sayTerminal(plan, sheets, resistor.key),
        text: `${resistorWords(resistor.ohms)} to ${pullEnd(plan, sheets, resistor)}`,
      };
    case 'add': {
      const bus = boardSheet(sheets, plan.board)?.controllers.get(resistor.controller)?.title ?? resistor.controller;
      return {
        head: resistor.behind === undefined ? bus : `${bus} behind ${sayPlacement(plan, resistor.behind)}`,
        text: `${resistorWords(resistor.ohms)} from each of its two lines to their supply`,
      };
    }
  }
}

function wireStep(plan: Plan, sheets: Sheets, wire: BuildWire): StepWords {
  const through = throughWords(wire);
  const moved = wire.wasAt ? `. Moved since it was ticked: was at ${endWords(plan, sheets, wire.wasAt)}` : '';
  return {
    head: `${sayPlacement(plan, wire.placement)} ${wire.label}`,
    text: `${wire.colour} wire${through ? ` through ${through}` : ''} to ${endWords(plan, sheets, wire.end)}${wire.locked ? ' (locked)' : ''}`,
    detail: `terminal ${wire.number} of the part; ${whereWords(wire)}${moved}`,
  };
}

/** What a step says. */
export function stepWords(plan: Plan, sheets: Sheets, { what }: BuildStep): StepWords {
  switch (what.is) {
    case 'safety':
      return {
        head: 'Disconnect power',
        text: 'Unplug USB and every other supply.',
        detail: 'Stay unpowered until first power-up.',
      };
    case 'joint': {
      const { end, wires, at } = what.joint;
      const few = at.length === 1 ? 'the only position' : `${at.length} positions`;
      return {
        head: endWords(plan, sheets, end),
        text: `join its ${wires} wires on a breadboard row or in a terminal block, with one wire to the board.`,
        detail: `${capitalised(few)}: ${boardWords({ at, end, placement: '' })}`,
      };
    }
    case 'wire':
      return wireStep(plan, sheets, what.wire);
    case 'strap':
      return { head: sayPlacement(plan, what.strap.placement), text: what.strap.words };
    case 'resistor':
      return resistorStep(plan, sheets, what.resistor);
    case 'capacitor':
      return { head: sayPlacement(plan, what.placement), text: `${formatSi(what.farads, 'F')} at ${what.at}` };
    case 'idle':
      return {
        head: sayPlacement(plan, what.placement),
        text: `${what.labels.join(', ')} to ground, as nothing uses ${what.labels.length > 1 ? 'them' : 'it'}`,
      };
    case 'enable':
      return { head: boardSheet(sheets, plan.board)?.controllers.get(what.controller)?.title ?? what.controller, text: what.words };
    case 'setting':
      return {
        head: `To free ${sayList(what.pins.map((pin) => endWords(plan, sheets, { to: 'pin', pin })))}`,
        text: `${capitalised(what.words)}.`,
      };
    case 'tolerance':
      return {
        head: sayList(what.pins.map((pin) => endWords(plan, sheets, { to: 'pin', pin }))),
        text: `up to ${formatSi(what.volts, 'V')} come here, which ${what.pins.length === 1 ? 'the pin stands' : 'these pins stand'} unless ${what.unless}.`,
      };
    case 'look-over':
      return {
        head: 'Look it over',
        text: 'No wire bare beside another, no supply and ground exchanged; then plug the board in.',
        detail: 'If anything gets warm or smells, unplug it at once.',
      };
    case 'light':
      return { head: sayPlacement(plan, what.placement), text: what.see };
  }
}

/** What is to be done about a wire that has changed. */
export function changeWords({ do: what, name, from, to }: BuiltChange): string {
  if (what === 'remove') return `${name}: take off ${from}`;
  return what === 'move' ? `${name}: from ${from} to ${to}` : `${name}: new, to ${to}`;
}

/** The sheet as tab-separated lines, ready for a table elsewhere. */
export function asText(plan: Plan, sheets: Sheets, sections: readonly BuildSection[], errors: readonly string[]): string {
  const lines = sections.flatMap(({ id, steps }) =>
    steps.map((step) => {
      const { head, text, detail = '' } = stepWords(plan, sheets, step);
      return [SECTION_WORDS[id], head, text, detail, step.done ? 'done' : ''].join('\t');
    }),
  );
  const open = errors.map((title) => `Open error\t${title}\t\t\t`);
  return ['section\twhat\tdo\twhere\tdone', ...open, ...lines].join('\n');
}
