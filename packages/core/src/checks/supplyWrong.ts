import { freePins } from '../allocate/freePins';
import { railsFor, strapRail, supplyRange } from '../allocate/railFit';
import type { Rail } from '../sheets/boardSheet';
import { PIN_ROLES } from '../sheets/roles';
import type { PlanTerminal } from '../nets/terminals';
import type { Check, CheckContext, Data, FindingDraft, Level, Remedy } from './check';
import { moveToFree, rewire } from './remedyParts';

const railOf = (context: CheckContext, item: PlanTerminal): Rail | undefined => {
  const id = context.nets.byTerminal.get(item.key)?.rails[0];
  return context.board.sheet.rails.list.find((rail) => rail.id === id);
};

function draft(item: PlanTerminal, level: Level, message: string, data: Data, remedies: FindingDraft['remedies']): FindingDraft {
  return {
    level,
    message,
    place: { terminals: [item.key], placements: [item.placement.id] },
    data: { terminal: { is: 'terminal', key: item.key }, ...data },
    source: item.part.supply?.source ?? item.part.terminals.source,
    remedies,
  };
}

/** @param accepts leaves out rails on which the same would be found again */
function toFittingRail(context: CheckContext, item: PlanTerminal, accepts: (rail: Rail) => boolean = () => true): readonly Remedy[] {
  const rail = railsFor(context.board, item.part, item.terminal).find(accepts);
  const here = item.wire?.end.to === 'rail' ? item.wire.end.rail : undefined;
  if (!rail || rail.id === here || item.wire?.locked) return [];
  return [rewire(item, { to: 'rail', rail: rail.id }, 'to-rail', { rail: { is: 'rail', rail: rail.id } }, 'safe')];
}

function toGround(item: PlanTerminal): readonly Remedy[] {
  return item.wire?.locked ? [] : [rewire(item, { to: 'ground' }, 'to-ground', {}, 'safe')];
}

function supplyVoltage(context: CheckContext, item: PlanTerminal, rail: Rail): FindingDraft[] {
  const range = supplyRange(item.part, item.terminal);
  if (!range) return [];
  const data: Data = {
    rail: { is: 'rail', rail: rail.id },
    least: { is: 'volts', value: range.min },
    most: { is: 'volts', value: range.max },
    low: { is: 'volts', value: rail.volts.min },
    high: { is: 'volts', value: rail.volts.max },
  };
  const remedies = () => toFittingRail(context, item);
  const absolute = item.terminal.volts ? undefined : item.part.supply?.absoluteMaxVolts;
  if (absolute !== undefined && rail.volts.max > range.max && rail.volts.max <= absolute)
    return [
      draft(item, 'risk', 'above-range', { ...data, absolute: { is: 'volts', value: absolute } }, () =>
        toFittingRail(context, item, (other) => other.volts.max <= range.max),
      ),
    ];
  if (rail.volts.max > range.max) return [draft(item, 'clash', 'too-high', data, remedies)];
  if (rail.volts.max < range.min) return [draft(item, 'clash', 'too-low', data, remedies)];
  if (rail.volts.min < range.min)
    return [draft(item, 'risk', 'sags-low', data, () => toFittingRail(context, item, (other) => other.volts.min >= range.min))];
  if (!item.part.supply?.mustMatchLogic || item.terminal.volts || rail.id === context.board.sheet.logicRail) return [];
  const logic: Data = { ...data, logic: { is: 'rail', rail: context.board.sheet.logicRail } };
  return [draft(item, 'clash', 'not-logic', logic, remedies)];
}

function examineSupply(context: CheckContext, item: PlanTerminal): FindingDraft[] {
  const net = context.nets.byTerminal.get(item.key);
  if (!net) return [];
  if (net.ground) return [draft(item, 'clash', 'supply-on-ground', {}, () => toFittingRail(context, item))];
  const pin = net.pins[0];
  if (pin) return [draft(item, 'risk', 'fed-from-pin', { pin: { is: 'pin', pin } }, () => toFittingRail(context, item))];
  const rail = railOf(context, item);
  return rail ? supplyVoltage(context, item, rail) : [];
}

function examineGround(context: CheckContext, item: PlanTerminal): FindingDraft[] {
  const net = context.nets.byTerminal.get(item.key);
  const rail = railOf(context, item);
  if (rail) return [draft(item, 'clash', 'ground-on-rail', { rail: { is: 'rail', rail: rail.id } }, () => toGround(item))];
  const pin = net?.pins[0];
  return pin ? [draft(item, 'clash', 'ground-on-pin', { pin: { is: 'pin', pin } }, () => toGround(item))] : [];
}

function examineStrap(context: CheckContext, item: PlanTerminal, rail: Rail): FindingDraft[] {
  const strap = item.part.bus.straps?.find((s) => (s.terminal ?? s.id) === item.terminal.id);
  const most = strap?.maxVolts;
  if (most === undefined || rail.volts.max <= most) return [];
  const safe = strapRail(context.board, most);
  const data: Data = {
    rail: { is: 'rail', rail: rail.id },
    high: { is: 'volts', value: rail.volts.max },
    most: { is: 'volts', value: most },
  };
  const remedies = () =>
    safe && !item.wire?.locked
      ? [rewire(item, { to: 'rail', rail: safe.id }, 'to-rail', { rail: { is: 'rail', rail: safe.id } }, 'safe')]
      : [];
  return [draft(item, 'clash', 'strap-too-high', data, remedies)];
}

function examineSignal(context: CheckContext, item: PlanTerminal): FindingDraft[] {
  const net = context.nets.byTerminal.get(item.key);
  const rail = railOf(context, item);
  if (!net || (!rail && !net.ground)) return [];
  if (item.terminal.role === 'strap') return rail ? examineStrap(context, item, rail) : [];
  if (item.terminal.ties?.includes(rail ? 'supply' : 'ground')) return [];
  const to: Data = { to: rail ? { is: 'rail', rail: rail.id } : { is: 'words', text: 'GND' } };
  const remedies = () => (freePins(context.board, context.nets, item).length > 0 ? moveToFree(context, item) : []);
  return [draft(item, 'clash', 'signal-on-rail', to, remedies)];
}

function examineTerminal(context: CheckContext, item: PlanTerminal): FindingDraft[] {
  if (item.terminal.role === 'supply.vcc') return examineSupply(context, item);
  if (item.terminal.role === 'ground') return examineGround(context, item);
  return PIN_ROLES[item.terminal.role] ? examineSignal(context, item) : [];
}

export const supplyWrong: Check = {
  code: 'supply-wrong',
  question: 'Does every supply terminal get a voltage it can take, and every ground go to ground?',
  messages: {
    'too-high': {
      title: '{terminal} gets too much voltage',
      text: '{rail} carries up to {high}; the part takes at most {most}.',
      why: 'Above its supply range the part is damaged or unreliable. Compared: highest rail voltage {high} against the sheet’s maximum {most}.',
    },
    'above-range': {
      title: '{terminal} may get more than its datasheet promises for',
      text: '{rail} may reach {high}; the part is specified to {most} and destroyed above {absolute}.',
      why: 'Between the top of its range and its absolute maximum a part usually works, but nobody promises it. Compared: highest rail voltage {high} against {most} and {absolute}.',
    },
    'too-low': {
      title: '{terminal} gets too little voltage',
      text: '{rail} carries at most {high}; the part needs at least {least}.',
      why: 'Below its supply range the part does not start. Compared: highest rail voltage {high} against the sheet’s minimum {least}.',
    },
    'sags-low': {
      title: '{terminal} may get too little voltage',
      text: '{rail} may fall to {low}; the part needs at least {least}.',
      why: 'At the low corner of the rail the part is outside its supply range. Compared: lowest rail voltage {low} against the sheet’s minimum {least}.',
    },
    'not-logic': {
      title: '{terminal} must get the logic supply',
      text: 'On {rail} its outputs or pull-ups reach {high}; the board’s pins work at {logic}.',
      why: 'This part passes its supply on to its signal lines, so it must have the voltage of the board’s pins.',
    },
    'supply-on-ground': {
      title: '{terminal} is a supply, wired to ground',
      text: 'The part gets no supply.',
      why: 'Both supply wires end on ground.',
    },
    'fed-from-pin': {
      title: '{terminal} is fed from {pin}',
      text: 'A signal pin gives little current, and its voltage sags.',
      why: 'Supply terminals belong on a rail. A pin can feed only parts that take a few milliamperes.',
    },
    'ground-on-rail': {
      title: '{terminal} is a ground, wired to {rail}',
      text: 'The part would be fed backwards or the rail shorted.',
      why: 'A ground terminal must be at the board’s ground.',
    },
    'ground-on-pin': {
      title: '{terminal} is a ground, wired to {pin}',
      text: 'Its reference would move with the signal.',
      why: 'A ground terminal must be at the board’s ground.',
    },
    'strap-too-high': {
      title: '{terminal} is strapped too high',
      text: '{rail} carries up to {high}; the strap takes at most {most}.',
      why: 'The strap leads straight to the chip, which has a lower supply than the module. Compared: {high} against {most}.',
    },
    'signal-on-rail': {
      title: '{terminal} is a signal, tied to {to}',
      text: 'The part sheet does not allow this tie.',
      why: 'A signal that the part drives would be shorted; one that it reads would never change.',
    },
  },
  remedies: {
    'to-rail': 'Wire {terminal} to {rail}',
    'to-ground': 'Wire {terminal} to GND',
    move: 'Move {terminal} to {pin}',
  },
  // Every terminal has one wire, so a net has one source at most: two rails cannot meet on a net.
  examine: (context) => context.terminals.flatMap((item) => examineTerminal(context, item)),
};
