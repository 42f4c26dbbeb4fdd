import { orThrow } from '../../collections/orThrow';
import { BETWEEN_BOARDS_MM } from '../../outputs/holes/breadboard';
import { TRANSISTOR_WORDS } from '../../checks/fixes/transistors';
import { listText, placementText } from '../names';
import type { BoardPosition } from '../../outputs/boardPosition';
import { type Component, isDivider } from '../../electrics/reports/components';
import type { BuildWire, Joint, OtherTerminal } from '../../outputs/buildList';
import { componentText, pointText } from '../../outputs/componentText';
import type { BuildSection, BuildStep, BuiltChange, StepWhat } from '../../outputs/buildSheet';
import type { ChipEnd, ChipSupply, PlacedComponent, PlacedConnector } from '../../outputs/chipCircuit';
import type { Plan } from '../../plan/plan';
import { capitalised, counted, formatSi } from '../../quantity/format';
import { headerEnd } from '../headerEnd';
import type { Sheets } from '../../sheets/sheetIndex';
import { holeOfChipPin, holesOfChipPins, holesOfComponent, holesOfWire, type StepHoles } from '../../outputs/holes/stepHoles';
import { enablingText } from '../enablingText';
import { wireEndText } from '../wireEndText';
import { resistorText } from '../resistorText';
import { columnsText, itemText, jumperText, leadText, plugText, railWireHead, rowText, stepHolesText } from './holeText';

const ORDINAL = ['th', 'st', 'nd', 'rd'] as const;

/** @example ordinal(22) // '22nd' */
export function ordinal(n: number): string {
  const teen = n % 100 > 10 && n % 100 < 14;
  return `${n}${teen ? 'th' : (ORDINAL[n % 10] ?? 'th')}`;
}

function positionWords(at: BoardPosition): string {
  const port = at.port && at.port !== at.label ? `, chip port ${at.port}` : '';
  const side = at.headerTitle.includes(at.side) ? '' : `, ${at.side} side`;
  const place = at.row === undefined ? `position ${at.position}` : `pin ${at.position}, ${at.row} row`;
  return `${at.headerTitle}${side}, ${place}, ${ordinal(at.fromEnd)} from ${headerEnd(at.end)}${port}`;
}

/** Where the board's end of a wire goes: a header position, the rail of the breadboard, or a junction. */
export function whereText(wire: BuildWire): string {
  if (wire.joined === 'supply rail') return `on the ${wire.end.to === 'ground' ? 'ground' : 'supply'} rail of the breadboard`;
  // Where the one wire of the junction goes is said once, with the junction.
  return wire.joined ? 'at the junction' : boardWords(wire);
}

function boardWords(wire: Pick<BuildWire, 'at' | 'end' | 'placement' | 'endNumber'>): string {
  const [first, ...others] = wire.at;
  if (wire.end.to === 'terminal' || wire.endNumber !== undefined) return `at module pin ${wire.endNumber ?? '?'}`;
  if (wire.end.to === 'trimmer' || wire.end.to === 'divider') return 'on the breadboard';
  if (!first) return wire.end.to === 'pin' ? 'not on a board header' : 'rail not on a board header';
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
  return wire.end.to === 'ground' ? `any GND (${byHeader.join('; ')})` : `any of ${byHeader.join('; ')}`;
}

/** What is between the ends of a wire: the plan's transistor and resistor, or what the sheet requires. */
export function throughText({ components, through = '' }: BuildWire): string {
  const within = components.filter((one) => !isDivider(one)).map(componentText);
  return within.length > 0 ? within.join(' and ') : components.length > 0 ? '' : through;
}

/** The end of a wire with the components that are there. */
export function buildWireEndText(plan: Plan, sheets: Sheets, { end, components }: BuildWire): string {
  const names = components.filter(isDivider).map(componentText);
  if (end.to === 'trimmer') return `the wiper of ${names.join()}`;
  return end.to === 'divider' ? `the junction of ${names.join(' and ')}` : wireEndText(plan, sheets, end);
}

export const SECTION_TEXT: { readonly [S in BuildSection['id']]: string } = {
  safety: 'Before you begin',
  breadboard: 'Breadboard',
  chip: 'Chip circuit',
  joints: 'Junctions',
  grounds: 'Grounds',
  supplies: 'Power',
  straps: 'Jumpers and straps',
  passives: 'Resistors, capacitors and transistors',
  wires: 'Signals',
  others: 'Unconnected and external terminals',
  enabling: 'Board settings',
  light: 'First power-up',
};

/** A step in words: what it is about, what to do, and what helps to do it. */
export interface StepText {
  readonly head: string;
  readonly text: string;
  readonly detail?: string;
  /** The holes of a planned breadboard. */
  readonly holes?: string;
}

/** A component leg by leg. */
function addedStep(plan: Plan, sheets: Sheets, component: Component): StepText {
  const { name: head, kind, value, ends, transistor, near, polar: isPolar } = component;
  const at = (n: number): string => (ends[n] ? pointText(plan, sheets, ends[n].at) : 'nothing yet');
  if (transistor) {
    const legs = ends.map(({ leg }, n) => `${leg} to ${at(n)}`);
    const order = transistor.legs && [...transistor.legs].join(', ');
    return {
      head,
      text: `${TRANSISTOR_WORDS[transistor.kind]}: ${legs.join(', ')}`,
      detail: order
        ? `Legs from left to right, flat side towards you: ${order}.`
        : 'The order of the legs differs between types: see the datasheet of the one on hand.',
    };
  }
  if (kind === 'diode')
    return {
      head,
      text: `flyback diode: cathode, the end with the ring, to ${at(0)}, anode to ${at(1)}`,
      detail: 'The wrong way round it is a short circuit.',
    };
  if (kind === 'trimmer') {
    const outer = ends.filter(({ leg }) => leg === undefined).map((_, n) => at(n));
    return {
      head,
      text: `${formatSi(orThrow(value, 'value'), 'Ω')} trimmer: outer legs to ${listText(outer)}, wiper to ${at(ends.length - 1)}`,
    };
  }
  if (kind === 'capacitor') {
    const polar = isPolar ? 'electrolytic capacitor, plus leg first, ' : 'capacitor ';
    return {
      head,
      text: `${formatSi(orThrow(value, 'value'), 'F')} ${polar}between ${at(0)} and ${at(1)}`,
      ...(near ? { detail: `At ${near}.` } : {}),
    };
  }
  return { head, text: `resistor ${resistorText(orThrow(value, 'value'))} between ${at(0)} and ${at(1)}` };
}

function wireStep(plan: Plan, sheets: Sheets, wire: BuildWire): StepText {
  const through = throughText(wire);
  const holes = holesText(plan, sheets, holesOfWire(plan, sheets, wire));
  const was = wire.wasAt ? wireEndText(plan, sheets, wire.wasAt) : wire.wasIn;
  const moved = was === undefined ? '' : ` · moved since it was marked done (was ${was})`;
  return {
    head: `${placementText(plan, wire.placement)} ${wire.label}`,
    text: `${wire.colour} wire to ${buildWireEndText(plan, sheets, wire)}${wire.locked ? ' (locked)' : ''}${through ? `, through ${through}` : ''}`,
    ...holes,
    detail: `module pin ${wire.number}${holes.holes === undefined ? ` · ${whereText(wire)}` : ''}${moved}`,
  };
}

/** @example chipEndWords({ label: 'VCC', at }) // 'VCC (left row, position 10)' */
const chipEndWords = ({ label, at }: ChipEnd): string => (at ? `${label} (${at.headerTitle}, position ${at.position})` : label);

function chipSupplyStep(plan: Plan, sheets: Sheets, { end, pins, feed }: ChipSupply): StepText {
  const rail = end.to === 'ground' ? 'the ground rail of the breadboard' : 'a supply rail of the breadboard';
  return {
    head: wireEndText(plan, sheets, end),
    text: `connect ${listText(pins.map(chipEndWords))} to ${rail}.`,
    detail: feed === undefined ? 'Negative terminal of the external supply.' : `Fed by: ${feed}`,
  };
}

const COMPONENT_WORDS: { readonly [K in PlacedComponent['kind']]: (value: number) => string } = {
  capacitor: (farads) => `${formatSi(farads, 'F')} capacitor`,
  resistor: (ohms) => `resistor ${resistorText(ohms)}`,
  crystal: (hertz) => `${formatSi(hertz, 'Hz')} crystal`,
};

function componentStep({ name, kind, value, ends, note }: PlacedComponent): StepText {
  return {
    head: name,
    text: `${COMPONENT_WORDS[kind](value)} between ${chipEndWords(ends[0])} and ${chipEndWords(ends[1])}`,
    ...(note === undefined ? {} : { detail: note }),
  };
}

function connectorStep({ name, title, pins }: PlacedConnector): StepText {
  const wired = pins.flatMap(({ number, label, end }) => (end ? [`pin ${number} ${label} to ${chipEndWords(end)}`] : []));
  const open = pins.filter(({ end }) => !end).map(({ number }) => `pin ${number}`);
  return { head: name, text: `${title}: ${[...wired, ...(open.length > 0 ? [`leave ${listText(open)} open`] : [])].join(' · ')}` };
}

/** The holes of a step, if the plan has a breadboard and they are on it. */
function holesText(plan: Plan, sheets: Sheets, holes: StepHoles | undefined): Pick<StepText, 'holes'> {
  const text = stepHolesText(plan, sheets, holes);
  return text === '' ? {} : { holes: capitalised(text) };
}

/** The text of a component's step with the holes of its legs. */
const withHoles = (plan: Plan, sheets: Sheets, step: StepText, component: string): StepText => ({
  ...step,
  ...holesText(plan, sheets, holesOfComponent(plan, sheets, component)),
});

/** The rows that the leads of a connector go to. */
function connectorHoles(plan: Plan, sheets: Sheets, { pins }: PlacedConnector): Pick<StepText, 'holes'> {
  const rows = pins.flatMap(({ number, end }) => {
    const hole = end && holeOfChipPin(plan, sheets, end);
    return hole && plan.breadboard ? [`pin ${number} in row ${rowText(plan.breadboard, hole.row)} ${columnsText(hole.half)}`] : [];
  });
  return rows.length === 0 ? {} : { holes: capitalised(listText(rows)) };
}

/** Where wires of one end are joined before they go on as one. */
function jointStep(plan: Plan, sheets: Sheets, { end, wires, at, endNumber }: Joint): StepText {
  const head = wireEndText(plan, sheets, end);
  if (endNumber !== undefined)
    return {
      head,
      text: `join ${counted(wires, 'wire')} on a breadboard row or in a terminal block; run one wire to the module.`,
      detail: `1 module pin: at module pin ${endNumber}`,
    };
  const few = counted(at.length, 'board position');
  return {
    head,
    text: `join ${counted(wires, 'wire')} on a breadboard row or in a terminal block; run one wire to the board.`,
    detail: `${capitalised(few)}: ${boardWords({ at, end, placement: '' })}`,
  };
}

type What<K extends StepWhat['is']> = Extract<StepWhat, { readonly is: K }>;

const STEP_TEXT: { readonly [K in StepWhat['is']]: (what: What<K>, plan: Plan, sheets: Sheets) => StepText } = {
  safety: () => ({
    head: 'Disconnect power',
    text: 'Unplug USB and every other supply.',
    detail: 'Stay unpowered until first power-up.',
  }),
  source: (what, plan) => ({
    head: placementText(plan, what.placement),
    text: 'switch it on before the board or together with it, and off after it.',
    detail: 'While it is off, signals from the board flow into parts without power. Its ground and that of the board are joined.',
  }),
  'side-by-side': () => ({
    head: 'Two breadboards',
    text: 'lay them side by side, B1 above B2; take the a–e rail strip off B2, so that one rail strip is left between them.',
    detail: `Columns over both boards assume ${BETWEEN_BOARDS_MM.toFixed(1)} mm from column j of B1 to column a of B2. Where yours lie closer, push them apart.`,
  }),
  plug: (what, plan, sheets) => ({ head: itemText(plan, sheets, what.item.id), text: plugText(plan, sheets, what.item) }),
  'rail-wire': (what, plan, sheets) => ({
    head: railWireHead(plan, sheets, what.wire),
    text:
      'from' in what.wire
        ? `${what.wire.colour} jumper ${jumperText(orThrow(plan.breadboard, 'breadboard'), what.wire)}`
        : leadText(plan, sheets, what.wire),
  }),
  'chip-supply': (what, plan, sheets) => ({
    ...chipSupplyStep(plan, sheets, what.supply),
    ...holesText(plan, sheets, holesOfChipPins(plan, sheets, what.supply.pins)),
  }),
  'chip-component': (what, plan, sheets) => withHoles(plan, sheets, componentStep(what.component), `chip:circuit.${what.component.name}`),
  'chip-connector': (what, plan, sheets) => ({ ...connectorStep(what.connector), ...connectorHoles(plan, sheets, what.connector) }),
  'chip-setting': (what) => ({ head: what.chip, text: what.words }),
  joint: ({ joint }, plan, sheets) => jointStep(plan, sheets, joint),
  wire: (what, plan, sheets) => wireStep(plan, sheets, what.wire),
  strap: (what, plan) => ({ head: placementText(plan, what.strap.placement), text: what.strap.words }),
  cut: (what, plan) => ({
    head: placementText(plan, what.cut.placement),
    text: `disconnect its ${formatSi(what.cut.ohms, 'Ω')} pull-ups`,
    detail: what.cut.how === 'jumper' ? 'Cut or open the solder jumper.' : 'Unsolder both resistors.',
  }),
  component: (what, plan, sheets) => withHoles(plan, sheets, addedStep(plan, sheets, what.component), what.component.id),
  idle: (what, plan) => ({
    head: placementText(plan, what.placement),
    text: `tie ${what.labels.join(', ')} to ground (unused ${what.labels.length > 1 ? 'inputs' : 'input'})`,
  }),
  others: (what, plan) => ({ head: placementText(plan, what.placement), text: otherText(what.terminals) }),
  enable: (what) => ({ head: what.title, text: enablingText(what) }),
  setting: (what, plan, sheets) => ({
    head: `Free ${listText(what.pins.map((pin) => wireEndText(plan, sheets, { to: 'pin', pin })))}`,
    text: `${capitalised(what.words)}.`,
  }),
  tolerance: (what, plan, sheets) => ({
    head: listText(what.pins.map((pin) => wireEndText(plan, sheets, { to: 'pin', pin }))),
    text: `up to ${formatSi(what.volts, 'V')} on ${what.pins.length === 1 ? 'this input' : 'these inputs'}; tolerated unless ${what.unless}.`,
  }),
  'look-over': () => ({
    head: 'Inspect',
    text: 'No bare wires touching, no supply swapped with ground. Then connect power.',
    detail: 'If anything gets hot or smells, disconnect power at once.',
  }),
  light: (what, plan) => ({ head: placementText(plan, what.placement), text: what.see }),
};

/** The text of a step. */
export function stepText(plan: Plan, sheets: Sheets, { what }: BuildStep): StepText {
  // The table pairs each kind with its own text; the compiler cannot follow the pairing through an index.
  const text = STEP_TEXT[what.is] as (what: StepWhat, plan: Plan, sheets: Sheets) => StepText;
  return text(what, plan, sheets);
}

/** Terminals without a wire: what their sheet says of each, terminals of one note together; the others are left open.
 *  @example otherWords([{ label: 'V-', note: 'To the load.' }, { label: 'NC', note: undefined }]) // 'V-: To the load · leave NC open' */
export function otherText(terminals: readonly OtherTerminal[]): string {
  const byNote = new Map<string, string[]>();
  for (const { label, note = '' } of terminals) byNote.set(note, [...(byNote.get(note) ?? []), label]);
  const open = byNote.get('');
  byNote.delete('');
  return [
    ...[...byNote].map(([note, labels]) => `${labels.join(', ')}: ${note.replace(/\.$/, '')}`),
    ...(open ? [`leave ${listText(open)} open`] : []),
  ].join(' · ');
}

/** What to do on the bench about a wire that has changed. */
export function changeText({ do: what, name, from, to }: BuiltChange): string {
  if (what === 'remove') return `${name}: remove from ${from}`;
  return what === 'move' ? `${name}: move from ${from} to ${to}` : `${name}: connect to ${to}`;
}

/** The sheet as tab-separated lines, ready for a table elsewhere. */
export function asText(plan: Plan, sheets: Sheets, sections: readonly BuildSection[], errors: readonly string[]): string {
  const lines = sections.flatMap(({ id, steps }) =>
    steps.map((step) => {
      const { head, text, detail, holes } = stepText(plan, sheets, step);
      const position = [holes, detail].filter((one) => one !== undefined).join(' · ');
      return [SECTION_TEXT[id], head, text, position, step.done ? 'done' : ''].join('\t');
    }),
  );
  const open = errors.map((title) => `Open error\t${title}\t\t\t`);
  return ['section\titem\tstep\tposition\tdone', ...open, ...lines].join('\n');
}
