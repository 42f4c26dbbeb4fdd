import { has, type With } from '../collections/has';
import { headerPins } from './headerPins';
import { atOrThrow, beforeFirst, getOrThrow } from '../collections/orThrow';
import { typical } from '../quantity/range';
import { type BoardEnd, type BoardPin, type BoardSheet, choicesOf, ENABLED_FUNCTIONS, type Rail } from './boardSheet';
import type { PartSheet } from './partSheet';
import { currentSetFaults } from './currentSetFaults';
import { shapeFaults } from './shapeFaults';

/** A fact that contradicts another in the same sheet, with its place. */
export interface SheetFault {
  readonly path: string;
  readonly fault: string;
}

const fault = (path: string, text: string): SheetFault => ({ path, fault: text });

function repeated(ids: readonly string[], path: string): SheetFault[] {
  return ids.filter((id, at) => ids.indexOf(id) !== at).map((id) => fault(path, `${id} appears twice`));
}

function headerFaults(sheet: BoardSheet): SheetFault[] {
  return sheet.headers.list.flatMap(({ id, rows }) => {
    const positions = headerPins(sheet, id).map((pin) => pin.position);
    const low = Math.min(...positions);
    const whole = positions.toSorted((a, b) => a - b).every((position, at) => position === low + at);
    if (!whole) return [fault(`headers.${id}`, 'positions are not contiguous')];
    const paired =
      rows === undefined || (low === 1 && positions.length % 2 === 0 && positions.every((position, at) => position === at + 1));
    return paired ? [] : [fault(`headers.${id}.rows`, 'two rows need positions 1, 2, 3, … in order, and as many odd as even ones')];
  });
}

/** Lines that a pin must drive; SDA and SCL must be driven low, too. */
const DRIVEN = /\.(sda|scl|sck|mosi|cs|tx|rts)$/;

/** Abilities that contradict the pin's direction or limits. */
function abilityFaults(pin: BoardPin, path: string): SheetFault[] {
  const found: SheetFault[] = [];
  const functions = pin.functions ?? [];
  if (pin.io === 'in' && pin.pwm) found.push(fault(path, 'an input-only pin has no PWM output'));
  if (pin.io === 'in' && functions.some((name) => DRIVEN.test(name))) found.push(fault(path, 'an input-only pin cannot drive a bus line'));
  if ((pin.io === 'in' || pin.io === 'analog') && pin.dac) found.push(fault(path, 'an input-only pin has no analog output'));
  if (pin.io === 'analog' && (pin.pwm || pin.interrupts || pin.crossbar || functions.length > 0 || !pin.adc))
    found.push(fault(path, 'an analog-only pin has no other function'));
  if (pin.limits?.noOpenDrain && functions.some((name) => /\.(sda|scl)$/.test(name)))
    found.push(fault(path, 'a pin without open drain cannot be an I2C line'));
  if (pin.limits?.tolerantUnless && pin.limits.tolerantVolts === undefined)
    found.push(fault(path, 'states a condition but no maximum input voltage'));
  if (pin.starts && !pin.atReset) found.push(fault(path, 'states a level at reset but no reason'));
  if (pin.also?.includes(pin.label)) found.push(fault(path, `${pin.label} repeats its own label`));
  return found;
}

/** Whether the rails that a rail is made from lead back to it. */
function feedsItself(sheet: BoardSheet, rail: Rail): boolean {
  let at: Rail | undefined = rail;
  for (let step = 0; at && step <= sheet.rails.list.length; step += 1) {
    const { from }: { from?: string } = at.regulator ?? {};
    if (from === rail.id) return true;
    at = sheet.rails.list.find((other) => other.id === from);
  }
  return false;
}

function railFaults(sheet: BoardSheet): SheetFault[] {
  const rails = new Set(sheet.rails.list.map((r) => r.id));
  const outside = ({ volts, usual }: Rail) => {
    const typ = typical(volts);
    return usual && !(volts.min <= usual.min && usual.min <= typ && typ <= usual.max && usual.max <= volts.max);
  };
  const low = (rail: With<Rail, 'regulator'>): readonly SheetFault[] => {
    const { from, kind, dropVolts = 0 } = rail.regulator;
    const feed = sheet.rails.list.find((other) => other.id === from);
    // The output of a linear regulator or a diode cannot exceed its input; a converter, or an unstated kind, may step up.
    if (!feed || feed === rail || kind === undefined || kind === 'converter') return [];
    return typical(rail.volts) > typical(feed.volts) - dropVolts + 0.001
      ? [fault(`rails.${rail.id}.regulator`, `${typical(rail.volts)} V out of ${typical(feed.volts)} V less ${dropVolts} V`)]
      : [];
  };
  return [
    ...sheet.rails.list.filter(has('regulator')).flatMap(low),
    ...sheet.rails.list
      .filter((rail) => feedsItself(sheet, rail))
      .map((rail) => fault(`rails.${rail.id}.regulator`, 'forms a closed loop of regulators')),
    ...sheet.rails.list
      .filter(has('regulator'))
      .filter(({ regulator }) => !rails.has(regulator.from))
      .map(({ id, regulator }) => fault(`rails.${id}`, `${regulator.from} is not a rail`)),
    ...sheet.rails.list
      .filter(outside)
      .map((rail) => fault(`rails.${rail.id}.usual`, 'the normal range must contain the typical voltage and lie within the limits')),
  ];
}

function onBoardFaults(sheet: BoardSheet): SheetFault[] {
  const pins = new Set(sheet.pins.list.map((p) => p.id));
  const rails = new Set(sheet.rails.list.map((r) => r.id));
  const missing = (end: BoardEnd) =>
    end.to === 'pin' ? !pins.has(end.pin) && end.pin : end.to === 'rail' && !rails.has(end.rail) && end.rail;
  return [
    ...sheet.onBoard.list.filter((o) => !pins.has(o.pin)).map((o) => fault('onBoard', `${o.pin} is not a pin`)),
    ...(sheet.onBoard.parts ?? []).flatMap((part) =>
      Object.values(part.wires).flatMap((end) => {
        const id = missing(end);
        return id ? [fault(`onBoard.${part.name}`, `${id} is not a pin or rail`)] : [];
      }),
    ),
    ...(sheet.radio?.blocksAdc ?? [])
      .filter((unit) => !sheet.pins.list.some((pin) => pin.adc?.unit === unit))
      .map((unit) => fault('radio.blocksAdc', `no pin has an input of ${unit}`)),
    ...(sheet.enabling?.list ?? [])
      .filter((e) => !isEnabledFunction(e.controller) && !sheet.controllers.list.some((c) => c.id === e.controller))
      .map((e) => fault('enabling', `${e.controller} is not a controller`)),
    ...(sheet.enabling?.list ?? [])
      .flatMap((e) => [...Object.values(e.pins ?? {}), ...(e.claims ?? [])])
      .filter((pin) => !pins.has(pin))
      .map((pin) => fault('enabling', `${pin} is not a pin`)),
    ...chipCircuitFaults(sheet),
  ];
}

const isEnabledFunction = (id: string): boolean => ENABLED_FUNCTIONS.some((one) => one === id);

function chipCircuitFaults({ chipCircuit, pins: { list } }: BoardSheet): readonly SheetFault[] {
  const { components = [], connectors = [] } = chipCircuit ?? {};
  const pins = new Set(list.map((pin) => pin.id));
  const all = [
    ...components.map(({ name, ends }) => ({ name, ends })),
    ...connectors.map((one) => ({ name: one.name, ends: one.pins.flatMap(({ pin }) => pin ?? []) })),
  ];
  return all.flatMap(({ name, ends }, at) => [
    ...ends.filter((end) => !pins.has(end)).map((end) => fault(`chipCircuit.${name}`, `${end} is not a pin`)),
    ...(all.findIndex((other) => other.name === name) < at ? [fault(`chipCircuit.${name}`, 'designator used twice')] : []),
  ]);
}

function pinFaults(sheet: BoardSheet): SheetFault[] {
  const controllers = new Set(sheet.controllers.list.map((c) => c.id));
  const headers = new Set(sheet.headers.list.map((h) => h.id));
  const rails = new Set(sheet.rails.list.map((r) => r.id));
  const pins = new Map(sheet.pins.list.map((p) => [p.id, p]));
  return sheet.pins.list.flatMap((pin) => {
    const path = `pins.${pin.id}`;
    const found: SheetFault[] = [];
    for (const name of pin.functions ?? []) {
      if (!controllers.has(beforeFirst(name, '.'))) found.push(fault(path, `${name} belongs to an undeclared controller`));
    }
    if (pin.header && !headers.has(pin.header)) found.push(fault(path, `header ${pin.header} is not declared`));
    if (pin.rail && !rails.has(pin.rail)) found.push(fault(path, `rail ${pin.rail} is not declared`));
    if (pin.sameAs && (!pins.has(pin.sameAs) || getOrThrow(pins, pin.sameAs).sameAs))
      found.push(fault(path, `sameAs ${pin.sameAs} is not a first pin`));
    found.push(...abilityFaults(pin, path));
    return found;
  });
}

function setFaults(sheet: BoardSheet): SheetFault[] {
  const pins = new Map(sheet.pins.list.map((p) => [p.id, p]));
  return sheet.controllers.list.flatMap((controller) => {
    if (controller.legal.rule === 'membership') return [];
    const anyPin = controller.legal.rule === 'any-pin' ? controller.legal.lines : [];
    const reaches = (line: string, id: string) => {
      const pin = pins.get(id);
      return pin?.functions?.includes(`${controller.id}.${line}`) || (pin?.crossbar && anyPin.includes(line));
    };
    return choicesOf(controller).flatMap((set) =>
      Object.entries(set)
        .filter(([line, pin]) => !reaches(line, pin))
        .map(([line, pin]) => fault(`controllers.${controller.id}`, `${pin} does not carry ${controller.id}.${line}`)),
    );
  });
}

/** Contradictions within a board sheet beyond its schema; empty if it is valid. */
export function boardFaults(sheet: BoardSheet): readonly SheetFault[] {
  return [
    ...repeated(
      sheet.pins.list.map((p) => p.id),
      'pins',
    ),
    ...repeated(
      sheet.controllers.list.map((c) => c.id),
      'controllers',
    ),
    ...headerFaults(sheet),
    ...boardShapeFaults(sheet),
    ...pinFaults(sheet),
    ...setFaults(sheet),
    ...(sheet.rails.list.some((r) => r.id === sheet.logicRail) ? [] : [fault('logicRail', `${sheet.logicRail} is not a rail`)]),
    ...railFaults(sheet),
    ...usualFaults(sheet),
    ...onBoardFaults(sheet),
    ...memoryFaults(sheet),
    ...programPinFaults(sheet),
  ];
}

function boardShapeFaults({ shape, headers, pins }: BoardSheet): readonly SheetFault[] {
  const rowsOf = (id: string | undefined) => headers.list.find((header) => header.id === id)?.rows ?? 1;
  return shapeFaults(shape, {
    ids: headers.list.map(({ id }) => id),
    count: ({ header }) => Math.ceil(pins.list.filter((pin) => pin.header === header).length / rowsOf(header)),
  });
}

/** Usual buses are on pins of their controller, all of one legal set, and their selects at pins that can be outputs. */
function usualFaults({ usual, controllers, pins }: BoardSheet): readonly SheetFault[] {
  const pinOf = (id: string) => pins.list.find((pin) => pin.id === id);
  const isSignal = (id: string) => pinOf(id)?.kind === 'io' && !pinOf(id)?.sameAs;
  return (usual?.list ?? [])
    .flatMap(({ controller: id, pins: own, selects = [] }): readonly SheetFault[] => {
      const controller = controllers.list.find((one) => one.id === id);
      if (!controller) return [fault('usual', `${id} is not a controller`)];
      const { legal } = controller;
      const reaches = ([line, pin]: readonly [string, string]) =>
        pinOf(pin)?.functions?.includes(`${id}.${line}`) || (legal.rule === 'any-pin' && pinOf(pin)?.crossbar === true);
      const isSet = legal.rule !== 'sets' || legal.sets.some((set) => Object.entries(own).every(([line, pin]) => set[line] === pin));
      return [
        ...Object.entries(own)
          .filter((entry) => !isSignal(entry[1]) || !reaches(entry))
          .map(([line, pin]) => fault('usual', `${pin} is no ${line} pin of ${id}`)),
        ...(isSet ? [] : [fault('usual', `${Object.values(own).join(', ')}: no pin set of ${id}`)]),
        ...selects.filter((pin) => !isSignal(pin)).map((pin) => fault('usual', `${pin} is not a signal pin`)),
      ];
    })
    .concat((usual?.oneWire ?? []).filter((pin) => !isSignal(pin)).map((pin) => fault('usual.oneWire', `${pin} is not a signal pin`)));
}

/** Numbers are of pins that there are, and no two pins have the same. */
function programPinFaults({ pins, programPins }: BoardSheet): readonly SheetFault[] {
  const known = new Set(pins.list.map((pin) => pin.id));
  const numbers = Object.entries(programPins?.numbers ?? {});
  return [
    ...numbers.flatMap(([id]) => (known.has(id) ? [] : [fault('programPins.numbers', `${id} is not a pin`)])),
    ...repeated(
      numbers.map(([, number]) => String(number)),
      'programPins.numbers',
    ),
  ];
}

/** The runtime uses at most all of the memory. */
function memoryFaults({ memory }: BoardSheet): readonly SheetFault[] {
  const { ramBytes, flashBytes, runtimeRamBytes = 0, runtimeFlashBytes = 0 } = memory;
  // 0 bytes means unknown.
  const over = (bytes: number, of: number, path: string) => (of > 0 && bytes > of ? [fault(path, `${bytes} B of ${of} B`)] : []);
  return [...over(runtimeRamBytes, ramBytes, 'memory.runtimeRamBytes'), ...over(runtimeFlashBytes, flashBytes, 'memory.runtimeFlashBytes')];
}

function strapFaults(sheet: PartSheet): SheetFault[] {
  const terminals = new Set(sheet.terminals.list.map((t) => t.id));
  return (sheet.bus.straps ?? []).flatMap((strap) => {
    const path = `bus.straps.${strap.id}`;
    const found: SheetFault[] = [];
    if (strap.terminal && !terminals.has(strap.terminal)) found.push(fault(path, `${strap.terminal} is not a terminal`));
    if (!strap.states.some((s) => s.id === strap.default)) found.push(fault(path, `default ${strap.default} is not a state`));
    // Left open is a state, too, but only the one that an unwired terminal is in.
    if (strap.by === 'terminal' && strap.states.some((s) => !s.tie && s.id !== strap.default))
      found.push(fault(path, 'a state of a terminal strap has no tie'));
    return found;
  });
}

function deviceFaults(sheet: PartSheet): SheetFault[] {
  const straps = new Map((sheet.bus.straps ?? []).map((s) => [s.id, s]));
  return (sheet.bus.devices ?? []).flatMap((device) => {
    const path = `bus.devices.${device.id}`;
    const used = [...new Set(device.addresses.flatMap((a) => Object.keys(a.straps)))];
    const combinations = used.reduce((n, id) => n * (straps.get(id)?.states.length ?? 0), 1);
    const unknown = device.addresses.flatMap((a) =>
      Object.entries(a.straps)
        .filter(([id, state]) => !straps.get(id)?.states.some((s) => s.id === state))
        .map(([id, state]) => fault(path, `${id} ${state} is not a strap state`)),
    );
    if (device.addresses.length !== combinations)
      unknown.push(fault(path, `${combinations} strap combinations, ${device.addresses.length} addresses`));
    if (device.movable && device.movable.min > device.movable.max) unknown.push(fault(path, 'lowest address above the highest'));
    if (device.how === 'fixed' && device.addresses.length !== 1) unknown.push(fault(path, 'fixed, yet several addresses'));
    return unknown;
  });
}

const BUS_ROLES: { readonly [kind: string]: readonly string[] } = { i2c: ['i2c.sda', 'i2c.scl'], spi: ['spi.sck'], uart: [] };

function strangers(ids: readonly string[], sheet: PartSheet, path: string): SheetFault[] {
  return ids.filter((id) => !sheet.terminals.list.some((t) => t.id === id)).map((id) => fault(path, `${id} is not a terminal`));
}

/** What is given must come out of a supply output, once, and be made from a supply terminal. */
function suppliesFaults(sheet: PartSheet): SheetFault[] {
  const list = sheet.supplies?.list ?? [];
  const roleOf = (id: string) => sheet.terminals.list.find((t) => t.id === id)?.role;
  return [
    ...repeated(
      list.map(({ output }) => output),
      'supplies',
    ),
    ...list.flatMap(({ output, regulator }) => [
      ...(roleOf(output) === 'supply.out' ? [] : [fault('supplies', `${output} is not a supply output`)]),
      ...(regulator && roleOf(regulator.from) !== 'supply.vcc' ? [fault('supplies', `${regulator.from} is not a supply terminal`)] : []),
    ]),
  ];
}

function busFaults(sheet: PartSheet): SheetFault[] {
  const { bus } = sheet;
  const { list } = sheet.terminals;
  const found: SheetFault[] = [];
  const points = bus.clockPoints ?? [];
  const isBelow = (point: (typeof points)[number], before: typeof point) => point.volts <= before.volts || point.maxHz < before.maxHz;
  if (points.slice(1).some((point, at) => isBelow(point, atOrThrow(points, at))))
    found.push(fault('bus.clockPoints', 'points are not in rising order'));
  if (bus.kind === 'spi' && bus.hasSelect !== list.some((t) => t.role === 'spi.cs'))
    found.push(fault('bus.hasSelect', 'contradicts the terminals'));
  if (list.some((t) => t.chain === 'in') && !bus.chainBits) found.push(fault('bus.chainBits', 'a daisy chain without bits per part'));
  for (const { id, select, terminals } of bus.further ?? []) {
    if (terminals?.some((one) => !list.some((t) => t.id === one))) found.push(fault(`bus.further.${id}`, 'names an unknown terminal'));
    if (list.find((t) => t.id === select)?.role !== 'spi.cs') found.push(fault(`bus.further.${id}`, `${select} is not a chip select`));
  }
  for (const tie of bus.modeTies ?? [])
    if (!list.find((t) => t.id === tie.terminal)?.ties?.includes(tie.tie))
      found.push(fault('bus.modeTies', `${tie.terminal} may not be tied this way`));
  for (const terminal of list) {
    if (terminal.also?.includes(terminal.label)) found.push(fault(`terminals.${terminal.id}`, `${terminal.label} repeats its own label`));
    for (const line of ['sda', 'scl'] as const)
      if (terminal.ties?.includes(line) && !list.some((t) => t.role === `i2c.${line}`))
        found.push(fault(`terminals.${terminal.id}`, `tied to ${line.toUpperCase()}, which the part does not have`));
    if (terminal.role === 'strap' && !terminal.ties) found.push(fault(`terminals.${terminal.id}`, 'a strap that may not be tied'));
  }
  return found;
}

/** Contradictions within a part sheet beyond its schema; empty if it is valid. */
export function partFaults(sheet: PartSheet): readonly SheetFault[] {
  const { list } = sheet.terminals;
  const roles = new Set(list.map((t) => t.role));
  const pullUps = sheet.module.pullUps ?? [];
  return [
    ...repeated(
      list.map((t) => t.id),
      'terminals',
    ),
    ...(list.every((t, at) => t.number === at + 1) ? [] : [fault('terminals', 'numbers are not 1, 2, 3, ... in printed order')]),
    ...(BUS_ROLES[sheet.bus.kind] ?? [])
      .filter((role) => !roles.has(role as never))
      .map((role) => fault('terminals', `a ${sheet.bus.kind} part without ${role}`)),
    ...(roles.has('supply.vcc') && !sheet.supply ? [fault('supply', 'a supply terminal without supply facts')] : []),
    ...strangers(
      pullUps.flatMap((p) => [...p.terminals, ...(p.from === undefined ? [] : [p.from])]),
      sheet,
      'module.pullUps',
    ),
    ...strangers(
      (sheet.supply?.capacitors ?? []).flatMap(({ terminal }) => terminal ?? []),
      sheet,
      'supply.capacitors',
    ),
    ...strangers(sheet.module.levelShift?.terminals ?? [], sheet, 'module.levelShift'),
    ...strangers(sheet.encoder?.phases ?? [], sheet, 'encoder.phases'),
    ...shapeFaults(sheet.shape, { ids: list.map(({ id }) => id), count: ({ terminals = [] }) => terminals.length }),
    ...suppliesFaults(sheet),
    ...strangers(sheet.currentSet?.terminal === undefined ? [] : [sheet.currentSet.terminal], sheet, 'currentSet'),
    ...strangers(
      [...(sheet.sinks?.channels ?? []).flatMap((c) => [c.input, c.output]), ...(sheet.sinks?.clamp ? [sheet.sinks.clamp] : [])],
      sheet,
      'sinks',
    ),
    ...strangers([...(sheet.multiplex?.segments ?? []), ...(sheet.multiplex?.digits ?? [])], sheet, 'multiplex'),
    ...(sheet.currentSet?.rows ?? [])
      .filter((row) => row.kiloohms.length !== sheet.currentSet?.ledVolts.length)
      .map((row) => fault('currentSet.rows', `${row.milliamps} mA: one resistance per LED voltage required`)),
    ...currentSetFaults(sheet),
    ...strangers(
      [sheet.levelShifter ?? [], sheet.levelShifter?.channels ?? []].flat().flatMap(({ low, high }) => [low, high]),
      sheet,
      'levelShifter',
    ),
    ...strangers(
      (sheet.bus.modeTies ?? []).map((t) => t.terminal),
      sheet,
      'bus.modeTies',
    ),
    ...busFaults(sheet),
    ...strapFaults(sheet),
    ...deviceFaults(sheet),
  ];
}
