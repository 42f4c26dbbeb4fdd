import { findOrThrow, firstOrThrow } from '../../collections/orThrow';
import { busUsers, clockLimits, pullUpInput, USUAL_HZ } from '../../electrics/reports/busInputs';
import { busPullUps } from '../../electrics/formulas/busPullUps';
import { busTime } from '../../electrics/formulas/i2cTime';
import type { Bus } from '../../nets/buses';
import { partSheet, partSheetOrThrow } from '../../sheets/sheetIndex';
import type { Check, CheckContext, FindingDraft } from '../engine/check';
import { toBusOfItsOwn } from '../fixes/ownBus';

type Driven = Bus & { readonly controller: string };

/** Whether the lines at the board's pins rise in time for a clock. */
function risesFor({ plan, sheets }: CheckContext, bus: Driven, hz: number): boolean {
  const inputs = (['sda', 'scl'] as const).flatMap((line) => pullUpInput(plan, sheets, bus, { line, hz }) ?? []);
  return inputs.every((input) => !['missing', 'too-weak', 'both'].includes(busPullUps(input).verdict));
}

/** One slow part holds an I2C bus back: what the bus could do without it, and how much busier it is with it. */
function held(context: CheckContext, bus: Driven): readonly FindingDraft[] {
  const { plan, sheets, board } = context;
  const limits = clockLimits(plan, sheets, board, bus);
  const [slowest, next] = limits;
  const set = plan.busSettings[bus.controller]?.hz;
  if (!slowest || !next || slowest.id === 'board' || next.hz < 2 * slowest.hz || (set !== undefined && set < slowest.hz)) return [];
  const { users } = busUsers(plan, sheets, bus);
  const share = busTime(slowest.hz, users).share;
  const rest = users.filter((user) => user.id !== slowest.id);
  // A bus that has time enough loses nothing by a slow part; lines that rise too slowly for more gain nothing without it.
  if (share < 0.5 || !risesFor(context, bus, Math.min(next.hz, USUAL_HZ))) return [];
  return [
    {
      level: 'hint',
      message: 'held',
      place: { pins: Object.values(bus.pins), placements: [slowest.id], bus: bus.controller },
      data: {
        bus: { is: 'segment', controller: bus.controller },
        slow: { is: 'placement', id: slowest.id },
        hz: { is: 'quantity', value: slowest.hz, unit: 'Hz' },
        next: { is: 'quantity', value: next.hz, unit: 'Hz' },
        share: { is: 'share', value: share },
        without: { is: 'share', value: busTime(next.hz, rest).share },
      },
      source: partSheetOrThrow(sheets, findOrThrow(plan.placements, (p) => p.id === slowest.id).sheet).sheet.bus.source,
      remedies: () => (bus.members.some((m) => m.id === slowest.id) ? toBusOfItsOwn(context, slowest.id, 'i2c') : []),
    },
  ];
}

/** SPI parts that no one mode serves: the program must set the mode before it talks to each. */
function modes(context: CheckContext, bus: Driven): readonly FindingDraft[] {
  const known = bus.members.flatMap((member) => {
    const own = partSheet(context.sheets, member.sheet)?.sheet.bus.modes;
    return own && own.length > 0 ? [{ id: member.id, own }] : [];
  });
  if (known.length < 2 || [0, 1, 2, 3].some((mode) => known.every(({ own }) => own.includes(mode)))) return [];
  return [
    {
      level: 'hint',
      message: 'modes',
      place: { pins: Object.values(bus.pins), bus: bus.controller },
      data: {
        bus: { is: 'segment', controller: bus.controller },
        modes: { is: 'words', text: known.map(({ own }) => own.join(' or ')).join(', ') },
        parts: { is: 'placements', ids: known.map(({ id }) => id) },
      },
      source: partSheetOrThrow(context.sheets, firstOrThrow(bus.members).sheet).sheet.bus.source,
      remedies: () => [],
    },
  ];
}

export const busMixedModes: Check = {
  code: 'bus-mixed-modes',
  question: 'Does every bus run at the clock and mode that its devices support?',
  messages: {
    held: {
      title: '{slow} limits {bus} to {hz}',
      text: 'The other devices support {next}. Bus load {share}; without this device {without}.',
      why: 'Every device on an I2C bus sees every transfer, so fSCL must not exceed the lowest maximum of all of them.',
    },
    modes: {
      title: '{bus}: devices with different SPI modes',
      text: '{parts} use modes {modes}; the program must set the mode before each transfer.',
      why: 'The mode (CPOL, CPHA) sets the idle level of SCK and the edge on which data is sampled. It may change only while every chip select is high.',
    },
  },
  remedies: { 'own-bus': 'Move {placement} to {controller} ({pins})' },
  examine: (context) =>
    context.buses.flatMap((bus) => {
      const { controller } = bus;
      if (controller === undefined) return [];
      if (bus.kind === 'i2c') return held(context, { ...bus, controller });
      return bus.kind === 'spi' ? modes(context, { ...bus, controller }) : [];
    }),
};
