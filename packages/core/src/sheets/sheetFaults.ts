import type { BoardSheet } from './boardSheet';
import type { PartSheet } from './partSheet';

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
  return sheet.headers.list.flatMap(({ id }) => {
    const positions = sheet.pins.list.filter((pin) => pin.header === id).map((pin) => pin.position!);
    const low = Math.min(...positions);
    const whole = positions.toSorted((a, b) => a - b).every((position, at) => position === low + at);
    return whole ? [] : [fault(`headers.${id}`, 'positions are not contiguous')];
  });
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
      if (!controllers.has(name.split('.')[0]!)) found.push(fault(path, `${name} belongs to no declared controller`));
    }
    if (pin.header && !headers.has(pin.header)) found.push(fault(path, `header ${pin.header} is not declared`));
    if (pin.rail && !rails.has(pin.rail)) found.push(fault(path, `rail ${pin.rail} is not declared`));
    if (pin.sameAs && (!pins.has(pin.sameAs) || pins.get(pin.sameAs)!.sameAs))
      found.push(fault(path, `sameAs ${pin.sameAs} is not a first pin`));
    if (pin.io === 'in' && pin.pwm) found.push(fault(path, 'an input-only pin cannot give PWM'));
    return found;
  });
}

function setFaults(sheet: BoardSheet): SheetFault[] {
  const pins = new Map(sheet.pins.list.map((p) => [p.id, p]));
  return sheet.controllers.list.flatMap((controller) => {
    if (controller.legal.rule !== 'sets') return [];
    return controller.legal.sets.flatMap((set) =>
      Object.entries(set)
        .filter(([line, pin]) => !pins.get(pin)?.functions?.includes(`${controller.id}.${line}`))
        .map(([line, pin]) => fault(`controllers.${controller.id}`, `${pin} does not carry ${controller.id}.${line}`)),
    );
  });
}

/** Contradictions within a board sheet that its shape allows; empty when it is sound. */
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
    ...pinFaults(sheet),
    ...setFaults(sheet),
    ...(sheet.rails.list.some((r) => r.id === sheet.logicRail) ? [] : [fault('logicRail', `${sheet.logicRail} is no rail`)]),
    ...sheet.onBoard.list.filter((o) => !sheet.pins.list.some((p) => p.id === o.pin)).map((o) => fault('onBoard', `${o.pin} is no pin`)),
  ];
}

function strapFaults(sheet: PartSheet): SheetFault[] {
  const terminals = new Set(sheet.terminals.list.map((t) => t.id));
  return (sheet.bus.straps ?? []).flatMap((strap) => {
    const path = `bus.straps.${strap.id}`;
    const found: SheetFault[] = [];
    if (strap.terminal && !terminals.has(strap.terminal)) found.push(fault(path, `${strap.terminal} is no terminal`));
    if (!strap.states.some((s) => s.id === strap.default)) found.push(fault(path, `default ${strap.default} is no state`));
    if (strap.by === 'terminal' && strap.states.some((s) => !s.tie)) found.push(fault(path, 'a state of a terminal strap has no tie'));
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
        .map(([id, state]) => fault(path, `${id} ${state} is no strap state`)),
    );
    if (device.addresses.length !== combinations)
      unknown.push(fault(path, `${combinations} strap combinations, ${device.addresses.length} addresses`));
    if (device.how === 'fixed' && device.addresses.length !== 1) unknown.push(fault(path, 'fixed, yet several addresses'));
    return unknown;
  });
}

const BUS_ROLES: { readonly [kind: string]: readonly string[] } = { i2c: ['i2c.sda', 'i2c.scl'], spi: ['spi.sck'], uart: [] };

/** Contradictions within a part sheet that its shape allows; empty when it is sound. */
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
    ...pullUps
      .flatMap((p) => p.terminals)
      .filter((id) => !list.some((t) => t.id === id))
      .map((id) => fault('module.pullUps', `${id} is no terminal`)),
    ...strapFaults(sheet),
    ...deviceFaults(sheet),
  ];
}
