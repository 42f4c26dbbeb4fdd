import { firstOrThrow } from '../../collections/orThrow';
import { nearestOf, valuesWithin } from '../../quantity/series';
import { PIN_ROLES } from '../../sheets/roles';
import type { Net } from '../../nets/nets';
import { isPulledUp } from '../../nets/pulled';
import type { PlanTerminal } from '../../nets/terminals';
import type { Check, CheckContext, FindingDraft, Remedy } from '../engine/check';
import { broughtHigh } from './shiftSegment';
import { I2C_SOURCE, type BusSegment, segmentDatum, busSegmentsOf, segmentPlace } from './busSegments';

function onBus(context: CheckContext, segment: BusSegment): FindingDraft {
  return {
    level: 'clash',
    message: 'bus',
    place: segmentPlace(segment),
    data: { bus: segmentDatum(segment) },
    source: I2C_SOURCE,
    remedies: () => broughtHigh(context, segment),
  };
}

/** Usual pull-up of a 1-Wire line, in ohms. */
const ONE_WIRE = 4700;

function resistorAt(context: CheckContext, item: PlanTerminal): readonly Remedy[] {
  const ohms = nearestOf(valuesWithin(context.plan.valuesOnHand, 1000, 10_000), ONE_WIRE);
  if (ohms === undefined) return [];
  return [
    {
      label: 'pull',
      data: { ohms: { is: 'quantity', value: ohms, unit: 'Ω' }, terminal: { is: 'terminal', key: item.key } },
      grade: 'offered',
      edits: [{ kind: 'pull', placement: item.placement.id, terminal: item.terminal.id, pull: { ohms, to: 'supply' } }],
    },
  ];
}

const dataOf = (net: Net): readonly PlanTerminal[] => net.terminals.filter((t) => t.terminal.role === 'onewire.data');

/** A line of 1-Wire parts that nothing pulls up. */
function onOneWire(context: CheckContext, net: Net): readonly FindingDraft[] {
  const parts = dataOf(net);
  const first = parts[0];
  if (!first || net.pins.length === 0 || net.terminals.some((item) => isPulledUp(context.plan, item))) return [];
  return [
    {
      level: 'clash',
      message: 'one-wire',
      place: { pins: [firstOrThrow(net.pins)], terminals: [first.key] },
      data: { pin: { is: 'pin', pin: firstOrThrow(net.pins) }, parts: { is: 'placements', ids: parts.map((t) => t.placement.id) } },
      source: first.part.terminals.source,
      remedies: () => resistorAt(context, first),
    },
  ];
}

const why =
  'Open-drain lines are only pulled low by the devices; a resistor pulls them high. Internal pull-ups (tens of kilohms, on only when the program enables them) are too weak to rely on.';

export const pullupMissing: Check = {
  code: 'pullup-missing',
  missing: 'resistor',
  question: 'Does every I2C and 1-Wire line have a pull-up resistor?',
  messages: {
    bus: { title: '{bus}: no pull-up resistors', text: 'The lines float; nothing pulls them high.', why },
    'one-wire': { title: '{pin}: no pull-up resistor', text: '{parts}: the 1-Wire line needs one resistor for all devices.', why },
  },
  remedies: {
    add: 'Add {ohms} pull-ups to each line',
    shift: 'Connect {parts} through a level shifter ({shifter})',
    pull: 'Add {ohms} from {terminal} to the supply',
  },
  examine: (context) => [
    ...busSegmentsOf(context)
      .filter(({ report }) => report.pullUps.verdict === 'missing')
      .map((segment) => onBus(context, segment)),
    ...context.nets.list
      .filter((net) => PIN_ROLES[firstOrThrow(net.terminals).terminal.role] && dataOf(net).length > 0)
      .flatMap((net) => onOneWire(context, net)),
  ],
};
