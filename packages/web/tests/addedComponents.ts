import { terminalText } from '@roof-chart/core/text/names';
import { feedOf, pullFeed } from '@roof-chart/core/electrics/reports/busInputs';
import { findBuses } from '@roof-chart/core/nets/buses';
import { segmentsOf } from '@roof-chart/core/nets/segments';
import { boardOf } from '@roof-chart/core/plan/edit';
import { type Driver, type Plan, splitKey, terminalKey, type TerminalKey } from '@roof-chart/core/plan/plan';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';

/** A component as it is read back, without the designators of its own and of others: those are looked at by themselves. */
export const nameless = (component: string): string => component.replace(/^[A-Z]+\d+: /u, '').replace(/\b[RQ]\d+\b/gu, '*');

const LEGS: { readonly [K in Driver['kind']]: readonly [string, string, string, string] } = {
  npn: ['NPN transistor', 'base', 'emitter', 'collector'],
  pnp: ['PNP transistor', 'base', 'emitter', 'collector'],
  nmos: ['N-MOSFET', 'gate', 'source', 'drain'],
  pmos: ['P-MOSFET', 'gate', 'source', 'drain'],
};

/** What a plan adds beside its parts, worked out from its own maps: "value, leg and leg". */
export function addedComponents(plan: Plan, sheets: Sheets): readonly string[] {
  const board = boardOf(plan, sheets)!;
  const say = (key: TerminalKey) => terminalText(plan, sheets, key);
  const partOf = (id: string): PartSheet => sheets.parts.get(plan.placements.find((p) => p.id === id)!.sheet.id)!.sheet;
  const railName = (id: string | undefined) => board.sheet.rails.list.find((rail) => rail.id === (id ?? board.sheet.logicRail))!.label;
  const fedBy = (id: string) => railName(feedOf(plan, sheets, board, id).rail);
  const first = (id: string, role: string, free = false): string | undefined => {
    const found = partOf(id).terminals.list.filter((t) => t.role === role);
    const one = free ? (found.find((t) => !t.volts) ?? found[0]) : found[0];
    return one && say(terminalKey(id, one.id));
  };
  const endOf = (key: TerminalKey): string | undefined => {
    const end = plan.wires[key]?.end;
    if (!end || end.to === 'trimmer' || end.to === 'divider') return undefined;
    if (end.to === 'terminal') return say(terminalKey(end.placement, end.terminal));
    if (end.to === 'ground') return 'GND';
    return end.to === 'rail' ? railName(end.rail) : board.pins.get(end.pin)!.label;
  };
  const pair = (value: number, a: string | undefined, b: string | undefined) => {
    const [one = 'nothing yet', other = 'nothing yet'] = a === undefined ? [b, undefined] : [a, b];
    return `${value}, ${one} and ${other}`;
  };
  const series = Object.entries(plan.series).map(([key, ohms]) => {
    const { placement, terminal } = splitKey(key);
    const driver = plan.drivers[key];
    if (partOf(placement).currentSet?.terminal === terminal) return pair(ohms, say(key), first(placement, 'supply.vcc', true));
    return pair(ohms, say(key), driver ? `* ${LEGS[driver.kind][3]}` : endOf(key));
  });
  const pulls = Object.entries(plan.pulls).map(([key, { ohms, to }]) => {
    const rail = to === 'ground' ? 'GND' : pullFeed(plan, sheets, key)?.rail;
    const near = plan.series[key] === undefined ? say(key) : (endOf(key) ?? say(key));
    return pair(ohms, near, rail === undefined || rail === 'GND' ? rail : railName(rail));
  });
  const drivers = Object.entries(plan.drivers).flatMap(([key, { kind, ohms }]) => {
    const [words, control, common, load] = LEGS[kind];
    const end = plan.wires[key]?.end;
    const own = feedOf(plan, sheets, board, splitKey(key).placement).rail;
    const fed = end?.to === 'terminal' ? feedOf(plan, sheets, board, end.placement).rail : undefined;
    const rest = kind.startsWith('p') ? railName(own ?? fed) : 'GND';
    const onward = plan.series[key] === undefined ? say(key) : '*';
    return [`${words}, ${control} to *, ${common} to ${rest}, ${load} to ${onward}`, pair(ohms, endOf(key), `* ${control}`)];
  });
  const dividers = Object.entries(plan.wires).flatMap(([key, { end }]) => {
    const supply = first(splitKey(key).placement, 'supply.vcc', true);
    if (end.to === 'trimmer') return [`${end.ohms}, ${supply} and GND wiper ${say(key)}`];
    return end.to === 'divider' ? [pair(end.topOhms, supply, say(key)), pair(end.bottomOhms, say(key), 'GND')] : [];
  });
  const ladders = Object.entries(plan.ladders).flatMap(([id, { pull, row }]) => {
    const { keys } = partOf(id);
    const { name } = plan.placements.find((p) => p.id === id)!;
    if (keys?.as !== 'ladder') return [];
    return [
      pair(pull, first(id, 'adc.in'), keys.leadTo === 'supply' ? 'GND' : fedBy(id)),
      ...row.map((ohms, n) => pair(ohms, `${name} key ${n + 1}`, `${name} key ${n + 2}`)),
    ];
  });
  const capacitors = Object.keys(plan.capacitors).flatMap((id) => {
    const { terminals, supply } = partOf(id);
    const isFed = terminals.list.some((t) => t.role === 'supply.vcc' && plan.wires[terminalKey(id, t.id)]);
    if (!isFed || plan.placements.find((p) => p.id === id)!.onBoard) return [];
    return (supply?.capacitors ?? []).map(({ farads }) => pair(farads, first(id, 'supply.vcc', true), first(id, 'ground') ?? 'GND'));
  });
  const buses = findBuses(plan, sheets).flatMap((bus) =>
    bus.kind !== 'i2c' || bus.controller === undefined
      ? []
      : segmentsOf(plan, sheets, bus).flatMap(({ id, members: [member], via }) => {
          const ohms = plan.busSettings[id]?.addedOhms;
          if (ohms === undefined) return [];
          return (['i2c.sda', 'i2c.scl'] as const).map((role) =>
            pair(
              ohms,
              (member && first(member.id, role)) ?? board.pins.get(bus.pins[role.slice(4)] ?? '')?.label,
              via && member ? fedBy(member.id) : railName(undefined),
            ),
          );
        }),
  );
  const diodes = plan.placements.flatMap(({ id }) =>
    partOf(id).terminals.list.flatMap(({ id: terminal, coil }) => {
      const end = coil && plan.wires[terminalKey(id, terminal)]?.end;
      const sinks = end?.to === 'terminal' ? partOf(end.placement).sinks : undefined;
      const isClamped = end?.to === 'terminal' && sinks?.clamp !== undefined && plan.wires[terminalKey(end.placement, sinks.clamp)];
      return end && !isClamped ? [`diode, cathode ${say(terminalKey(id, coil.other))}, anode ${say(terminalKey(id, terminal))}`] : [];
    }),
  );
  return [...diodes, ...series, ...pulls, ...drivers, ...dividers, ...ladders, ...capacitors, ...buses];
}
