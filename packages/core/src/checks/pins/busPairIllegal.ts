import { dequal } from 'dequal';
import { has } from '../../collections/has';
import { firstOrThrow, getOrThrow } from '../../collections/orThrow';
import { type Bus, findBuses } from '../../nets/buses';
import { controllersAt, legalControllers } from '../../nets/controllers';
import { areCrossed } from '../../nets/busControllers';
import { editsOnto, lineTerminals } from '../../assign/moveBus';
import { busLineOf } from '../../sheets/roles';
import type { Plan } from '../../plan/plan';
import type { Check, CheckContext, FindingDraft, Remedy } from '../engine/check';
import { busToLegal, bySoftware, SOFTWARE_BUS } from '../fixes/remedyParts';

/** Every line has some controller, yet no controller has them all. (A pin with none is `pin-cannot`.) */
function isSplit(context: CheckContext, bus: Bus): boolean {
  const lines = Object.entries(bus.pins);
  if (bus.controller || lines.length < 2 || legalControllers(context.board, bus.kind, bus.pins).length > 0) return false;
  return lines.every(([line, pin]) => controllersAt(context.board, pin, bus.kind, line).length > 0);
}

/** Buses on other pins that have the controllers which this one would need. */
function holdersOf(context: CheckContext, bus: Bus, wanted: readonly string[]): readonly Bus[] {
  return context.buses.filter((other) => other !== bus && other.controller !== undefined && wanted.includes(other.controller));
}

/** A finding about a bus, with its parts and pins. */
const draft = (
  { plan, sheets, board }: CheckContext,
  { kind, pins, members }: Bus,
  { data, ...rest }: Pick<FindingDraft, 'message' | 'data' | 'remedies'>,
): FindingDraft => ({
  ...rest,
  level: 'clash',
  place: { pins: Object.values(pins), terminals: lineTerminals(plan, sheets, members, kind).map((t) => t.key) },
  data: { members: { is: 'placements', ids: members.map((m) => m.id) }, ...data },
  source: board.sheet.controllers.source,
});

/** "Connect MEMBERS to PINS": the bus joins another one of its kind. Serial lines have one part at each end. */
function joinOther(context: CheckContext, bus: Bus, holders: readonly Bus[]): readonly Remedy[] {
  if (bus.kind === 'uart') return [];
  const items = lineTerminals(context.plan, context.sheets, bus.members, bus.kind);
  return holders.filter(has('controller')).flatMap(({ controller, pins, members }): Remedy[] => {
    const edits = editsOnto(context.board, context.nets, items, { controller, pins });
    if (!edits || edits.length === 0) return [];
    return [
      {
        label: 'join',
        data: {
          members: { is: 'placements', ids: members.map((m) => m.id) },
          pins: { is: 'pins', pins: items.flatMap((item) => pins[busLineOf(item.terminal.role).line] ?? []) },
        },
        grade: 'offered',
        edits,
      },
    ];
  });
}

/** Some lines are on the pins of another bus, and some are not. */
function half(context: CheckContext, bus: Bus): FindingDraft | null {
  const other = bus.controller
    ? undefined
    : context.buses.find((one) => one !== bus && one.kind === bus.kind && one.controller && areCrossed(one, bus));
  if (!other) return null;
  const shared = Object.entries(bus.pins).filter(([, pin]) => Object.values(other.pins).includes(pin));
  return draft(context, bus, {
    message: 'half',
    data: {
      others: { is: 'placements', ids: other.members.map((m) => m.id) },
      lines: { is: 'words', text: shared.map(([line]) => line.toUpperCase()).join(' and ') },
      pins: { is: 'pins', pins: shared.map(([, pin]) => pin) },
    },
    remedies: () => {
      const join = joinOther(context, bus, [other]);
      const isJoin = ({ edits }: Remedy) => join.some((one) => dequal(one.edits, edits));
      return [...join, ...busToLegal(context, bus, hasControllers(context, bus)).filter((move) => !isJoin(move))];
    },
  });
}

/** Whether a plan has a controller for every bus of these parts. */
const hasControllers =
  ({ sheets }: CheckContext, { kind, members }: Bus) =>
  (plan: Plan): boolean =>
    findBuses(plan, sheets)
      .filter((bus) => bus.kind === kind && bus.members.some(({ id }) => members.some((m) => m.id === id)))
      .every((bus) => bus.controller !== undefined);

/** Controllers are there for these pins, and each of them drives another bus. */
function taken(context: CheckContext, bus: Bus): FindingDraft | null {
  const wanted = bus.controller ? [] : legalControllers(context.board, bus.kind, bus.pins).map(({ id }) => id);
  const holders = holdersOf(context, bus, wanted);
  if (holders.length === 0) return null;
  const isOnItsOwn = (plan: Plan) =>
    findBuses(plan, context.sheets).some(
      ({ kind, controller, members }) =>
        kind === bus.kind &&
        controller !== undefined &&
        members.length === bus.members.length &&
        firstOrThrow(members).id === firstOrThrow(bus.members).id,
    );
  return draft(context, bus, {
    message: 'taken',
    data: {
      pins: { is: 'pins', pins: Object.values(bus.pins) },
      controllers: { is: 'words', text: wanted.map((id) => getOrThrow(context.board.controllers, id).title).join(' or ') },
      others: { is: 'placements', ids: [...new Set(holders.flatMap((one) => one.members.map((m) => m.id)))] },
    },
    remedies: () => [...joinOther(context, bus, holders), ...busToLegal(context, bus, isOnItsOwn), ...bySoftware(context, bus)],
  });
}

/** Every line has a controller of its own. */
function split(context: CheckContext, bus: Bus): FindingDraft {
  const { pins, controllers } = context.board;
  const belongs = Object.entries(bus.pins).map(([line, pin]) => {
    const titles = controllersAt(context.board, pin, bus.kind, line).map((id) => getOrThrow(controllers, id).title);
    return `${line.toUpperCase()} on ${getOrThrow(pins, pin).label}: ${titles.join(' or ')}`;
  });
  return draft(context, bus, {
    message: 'split',
    data: { pins: { is: 'pins', pins: Object.values(bus.pins) }, belongs: { is: 'words', text: belongs.join('; ') } },
    remedies: () => [...busToLegal(context, bus), ...bySoftware(context, bus)],
  });
}

export const busPairIllegal: Check = {
  code: 'bus-pair-illegal',
  planWide: true,
  question: 'Do all lines of a bus belong to one controller?',
  messages: {
    split: {
      title: '{pins} belong to different controllers',
      text: '{members}: no controller has all of these lines. {belongs}.',
      why: 'SDA and SCL (or SCK, MOSI and MISO) must come from one controller, on pins that its alternate functions allow.',
    },
    half: {
      title: '{members}: only some lines on the bus of {others}',
      text: '{lines} on {pins} is shared with {others}; the other lines are on pins of their own.',
      why: 'A pin belongs to one bus: parts share all lines of a bus or none.',
    },
    taken: {
      title: 'No controller left for {pins}',
      text: 'Only {controllers} can drive {members} on these pins, and it already drives other pins: {others}.',
      why: 'A controller connects each of its lines to one pin at a time: two buses need two controllers, or the same pins.',
    },
  },
  remedies: {
    join: 'Connect to the same bus as {members} ({pins})',
    software: SOFTWARE_BUS,
    'move-bus': 'Move the bus to {controller} ({pins})',
  },
  examine: (context) =>
    context.buses.flatMap((bus) => (isSplit(context, bus) ? [split(context, bus)] : (half(context, bus) ?? taken(context, bus) ?? []))),
};
