import { has, type With } from '../../collections/has';
import { atOrThrow, findOrThrow, getOrThrow } from '../../collections/orThrow';
import { busClock } from '../../electrics/reports/busClock';
import { spiReport } from '../../electrics/reports/spiReport';
import { addressesOf } from '../../nets/addresses';
import { type Bus, findBuses } from '../../nets/buses';
import { terminalsOf } from '../../nets/terminals';
import { boardOf } from '../../plan/edit';
import type { Plan } from '../../plan/plan';
import { PIN_ROLES } from '../../sheets/roles';
import { type IndexedBoard, partSheetOrThrow, type Sheets } from '../../sheets/sheetIndex';
import { openErrors, openErrorsLine } from '../openErrors';
import { pinNumber, pinOf } from './constantSet';
import { identifier, identifiers, inComment } from './names';

/** A string of a device tree source: quotes and backslashes are escaped, control characters left out; it may be UTF-8. */
const dtsString = (text: string): string => `"${text.replace(/\p{C}/gu, '').replace(/["\\]/g, '\\$&')}"`;

/** A node's name has at most 31 characters of few kinds. */
const nodeName = (name: string): string => identifier(name).replace(/_/g, '-').slice(0, 24).replace(/-+$/, '');

interface Node {
  readonly name: string;
  readonly what: string;
  /** What the kernel's drivers go by; undefined where no driver is known. */
  readonly compatible: string | undefined;
  readonly reg: number;
  readonly hz?: number | undefined;
}

/** A device tree node; without a known kernel driver it is a comment, because the node would only claim the device. */
function nodeLines({ name, what, compatible, reg, hz }: Node): readonly string[] {
  const lines = [
    `${nodeName(name)}@${reg.toString(16)} {`,
    `  compatible = ${dtsString(compatible ?? 'unknown')};`,
    `  label = ${dtsString(name)};`,
    `  reg = <0x${reg.toString(16)}>;`,
    ...(hz === undefined ? [] : [`  spi-max-frequency = <${Math.floor(hz)}>;`]),
    '};',
  ];
  const head = `  /* ${inComment(what)} */`;
  if (compatible !== undefined) return [head, ...lines.map((line) => `  ${line}`)];
  return [
    head,
    '  // No kernel driver is known: access it from a program through the bus.',
    ...lines.map((line) => `  // ${inComment(line)}`),
  ];
}

const i2cNodes = (plan: Plan, sheets: Sheets, bus: Bus): readonly Node[] =>
  bus.members.flatMap((member) =>
    addressesOf(plan, member, sheets).map(({ address, device }): Node => ({
      name: member.name,
      what: `${member.name}: ${device.chip}`,
      compatible: device.linux,
      reg: address,
    })),
  );

/** One node for everything that is selected together: a chain is one device. The selects as GPIO numbers, in the order of the nodes, where one
 *  of them is not the controller's own in that order. */
function spiNodes(
  plan: Plan,
  sheets: Sheets,
  board: IndexedBoard,
  bus: Bus,
): { readonly nodes: readonly Node[]; readonly selects: readonly number[] } {
  const { rows } = spiReport(plan, sheets, board, bus);
  const nodes = rows.map(({ head, chain, further, write }, reg): Node => {
    const placement = findOrThrow(plan.placements, (p) => p.id === head);
    const part = partSheetOrThrow(sheets, placement.sheet).sheet;
    return {
      name: further ? `${placement.name} ${further.id}` : placement.name,
      what: `${placement.name}: ${further ? further.chip : part.title}${chain.length > 1 ? `, ${chain.length} in a chain` : ''}`,
      compatible: further ? further.linux : part.bus.linux,
      reg,
      hz: write.hz,
    };
  });
  const pins = rows.map(({ select }) => (select ? pinOf(plan, sheets, board, select)?.pin : undefined));
  const numbers = pins.map((pin) => (pin === undefined ? undefined : pinNumber(board, pin)));
  const own = board.sheet.controllers.list.find((c) => c.id === bus.controller);
  const hardware = own && own.legal.rule === 'sets' ? own.legal.sets.map((set) => set['cs']) : [];
  const isOwn = pins.every((pin, at) => pin === undefined || hardware[at] === pin.id);
  return { nodes, selects: isOwn || numbers.some((n) => n === undefined) ? [] : (numbers as readonly number[]) };
}

/** A bus that the kernel makes on GPIO pins: the bindings i2c-gpio and spi-gpio. Flag 6 is an open-drain output, 1 is active low. */
function softwareBus(
  board: IndexedBoard,
  bus: With<Bus, 'controller'>,
  { nodes, selects }: ReturnType<typeof spiNodes>,
): readonly string[] {
  const gpio = (line: string, flags: number) => {
    const pin = board.pins.get(bus.pins[line] ?? '');
    return pin ? [`    ${line}-gpios = <&gpio ${pinNumber(board, pin)} ${flags}>;`] : [];
  };
  const lines =
    bus.kind === 'i2c'
      ? [...gpio('sda', 6), ...gpio('scl', 6), '    i2c-gpio,delay-us = <2>;']
      : [
          ...['sck', 'mosi', 'miso'].flatMap((line) => gpio(line, 0)),
          ...(selects.length > 0 ? [`    cs-gpios = ${selects.map((number) => `<&gpio ${number} 1>`).join(', ')};`] : []),
          `    num-chipselects = <${selects.length}>;`,
        ];
  return [
    '&{/} {',
    `  ${nodeName(bus.controller)} {`,
    `    compatible = "${bus.kind}-gpio";`,
    ...lines,
    '    #address-cells = <1>;',
    '    #size-cells = <0>;',
    ...nodes.flatMap(nodeLines).map((line) => `  ${line}`),
    '  };',
    '};',
    '',
  ];
}

/** A device tree overlay for a board with an operating system: its I2C and SPI controllers switched on at the plan's clocks, with a node
 *  for every part on them, and the GPIO numbers of everything else by name. Undefined for boards without an operating system. */
export function writeOverlay(plan: Plan, sheets: Sheets): string | undefined {
  const board = boardOf(plan, sheets);
  if (board?.sheet.system !== 'linux') return undefined;
  const buses = findBuses(plan, sheets)
    .filter(has('controller'))
    .filter((bus) => bus.kind !== 'uart');
  const fragments = buses.map((bus) => {
    const found = bus.kind === 'spi' ? spiNodes(plan, sheets, board, bus) : { nodes: i2cNodes(plan, sheets, bus), selects: [] };
    if (getOrThrow(board.controllers, bus.controller).software) return softwareBus(board, bus, found);
    return [
      `&${bus.controller} {`,
      '  status = "okay";',
      ...(bus.kind === 'spi' ? [] : [`  clock-frequency = <${Math.floor(busClock(plan, sheets, bus).hz)}>;`]),
      '  #address-cells = <1>;',
      '  #size-cells = <0>;',
      ...(found.selects.length > 0 ? [`  cs-gpios = ${found.selects.map((gpio) => `<&gpio ${gpio} 1>`).join(', ')};`] : []),
      ...found.nodes.flatMap(nodeLines),
      '};',
      '',
    ];
  });
  const loose = plan.placements.flatMap((placement) =>
    terminalsOf(plan, placement, sheets).flatMap((item) => {
      const role = PIN_ROLES[item.terminal.role];
      const found = role && !item.part.levelShifter ? pinOf(plan, sheets, board, item) : undefined;
      const number = found && (!role?.line || role.line.line === 'cs') ? pinNumber(board, found.pin) : undefined;
      return number === undefined ? [] : [{ name: `${placement.name} ${item.terminal.id}`, number }];
    }),
  );
  const errors = openErrors(plan, sheets);
  const names = identifiers(loose.map((one) => one.name.slice(0, 40)));
  return [
    `/* ${inComment(`${plan.name} on ${board.sheet.title}. Generated from the plan; do not edit.`)} */`,
    ...(errors.length > 0 ? [`/* ${inComment(openErrorsLine(errors))} */`] : []),
    '/dts-v1/;',
    '/plugin/;',
    '',
    ...fragments.flat(),
    '&{/} {',
    '  plan-pins {',
    `    compatible = "plan,pins";`,
    `    label = ${dtsString(plan.name)};`,
    ...loose.map(({ number }, at) => `    ${atOrThrow(names, at).replace(/_/g, '-').slice(0, 26).replace(/-+$/, '')}-${at} = <${number}>;`),
    '  };',
    '};',
    '',
  ].join('\n');
}
