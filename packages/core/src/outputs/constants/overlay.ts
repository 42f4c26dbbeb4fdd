import { busClock } from '../../electrics/busClock';
import { addressesOf } from '../../nets/addresses';
import { findBuses } from '../../nets/buses';
import { terminalsOf } from '../../nets/terminals';
import { boardOf } from '../../plan/edit';
import type { Plan } from '../../plan/plan';
import { PIN_ROLES } from '../../sheets/roles';
import { partSheet, type Sheets } from '../../sheets/sheetIndex';
import { pinNumber, pinOf } from './constantSet';
import { identifier, identifiers, inComment } from './names';

/** A string of a device tree source: quotes and backslashes are escaped, and what is not plain ASCII is left out. */
const dtsString = (text: string): string => `"${text.replace(/[^\x20-\x7e]/g, '?').replace(/["\\]/g, '\\$&')}"`;

/** A node's name has at most 31 characters of few kinds. */
const nodeName = (name: string): string => identifier(name).replace(/_/g, '-').slice(0, 24).replace(/-+$/, '');

/** A device tree overlay for a board with an operating system: its I2C and SPI controllers switched on at the plan's clocks, with a node
 *  for every part on them, and the GPIO numbers of everything else by name. Undefined for boards without an operating system. */
export function writeOverlay(plan: Plan, sheets: Sheets): string | undefined {
  const board = boardOf(plan, sheets);
  if (board?.sheet.system !== 'linux') return undefined;
  const buses = findBuses(plan, sheets).filter((bus) => bus.controller !== undefined && bus.kind !== 'uart');
  const fragments = buses.map((bus) => {
    const spi = bus.kind === 'spi';
    const nodes = bus.members.flatMap((member, at) => {
      const part = partSheet(sheets, member.sheet)!.sheet;
      const places = spi
        ? [{ reg: at, hz: part.bus.maxWriteHz }]
        : addressesOf(plan, member, sheets).map((one) => ({ reg: one.address, hz: undefined }));
      return places.map(({ reg, hz }) => [
        `      /* ${inComment(`${member.name}: ${part.title}`)} */`,
        `      ${nodeName(member.name)}@${reg.toString(16)} {`,
        `        compatible = ${dtsString(`plan,${part.id}`)};`,
        `        label = ${dtsString(member.name)};`,
        `        reg = <0x${reg.toString(16)}>;`,
        ...(hz === undefined ? [] : [`        spi-max-frequency = <${Math.floor(hz)}>;`]),
        '      };',
      ]);
    });
    return [
      `&${bus.controller!} {`,
      '  status = "okay";',
      ...(spi ? [] : [`  clock-frequency = <${Math.floor(busClock(plan, sheets, bus).hz)}>;`]),
      '  #address-cells = <1>;',
      '  #size-cells = <0>;',
      ...nodes.flat().map((line) => line.slice(4)),
      '};',
      '',
    ];
  });
  const loose = plan.placements.flatMap((placement) =>
    terminalsOf(plan, placement, sheets).flatMap((item) => {
      const role = PIN_ROLES[item.terminal.role];
      const found = role && !item.part.passage ? pinOf(plan, sheets, board, item) : undefined;
      const number = found && (!role?.line || role.line.line === 'cs') ? pinNumber(board, found.pin) : undefined;
      return number === undefined ? [] : [{ name: `${placement.name} ${item.terminal.id}`, number }];
    }),
  );
  const names = identifiers(loose.map((one) => one.name.slice(0, 40)));
  return [
    `/* ${inComment(`${plan.name} on ${board.sheet.title}. Made from the plan; do not edit.`)} */`,
    '/dts-v1/;',
    '/plugin/;',
    '',
    ...fragments.flat(),
    '&{/} {',
    '  plan-pins {',
    `    compatible = "plan,pins";`,
    `    label = ${dtsString(plan.name)};`,
    ...loose.map(({ number }, at) => `    ${names[at]!.replace(/_/g, '-').slice(0, 26).replace(/-+$/, '')}-${at} = <${number}>;`),
    '  };',
    '};',
    '',
  ].join('\n');
}
