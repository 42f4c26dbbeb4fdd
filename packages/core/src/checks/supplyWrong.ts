import { freePins } from '../allocate/freePins';
import { railsFor, refeed, strapVolts, supplyFault, supplyRange, tieLimit, tieRail } from '../allocate/railFit';
import { partSide } from '../electrics/levelSides';
import { feedRail } from '../nets/feedRail';
import { typical } from '../quantity/range';
import type { Rail } from '../sheets/boardSheet';
import { CONDITIONS } from '../sheets/condition';
import { voltsUnder } from '../sheets/conditions';
import { PIN_ROLES } from '../sheets/roles';
import type { PlanTerminal } from '../nets/terminals';
import type { Check, CheckContext, Data, Datum, FindingDraft, Level, Remedy } from './check';
import { LEVEL_FROM } from './severity';
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
  const { placement, part, terminal } = item;
  return [{ ...onto(item, rail), edits: refeed(context.plan, placement, part, terminal.id, rail) }];
}

const onto = (item: PlanTerminal, rail: Rail): Remedy =>
  rewire(item, { to: 'rail', rail: rail.id }, 'to-rail', { rail: { is: 'rail', rail: rail.id } }, 'safe');

function toGround(item: PlanTerminal): readonly Remedy[] {
  return item.wire?.locked ? [] : [rewire(item, { to: 'ground' }, 'to-ground', {}, 'safe')];
}

function supplyVoltage(context: CheckContext, item: PlanTerminal, rail: Rail): FindingDraft[] {
  const { part, terminal } = item;
  const { board } = context;
  const found = supplyFault(board, part, terminal, rail);
  if (!found) return [];
  const range = supplyRange(part, terminal)!;
  const usual = voltsUnder(rail, 'usual');
  const absolute = part.supply?.absoluteMaxVolts;
  const volts = (value: number): Datum => ({ is: 'volts', value });
  const data: Data = {
    rail: { is: 'rail', rail: rail.id },
    least: volts(range.min),
    most: volts(range.max),
    nominal: volts(typical(rail.volts)),
    usualLow: volts(usual.min),
    usualHigh: volts(usual.max),
    low: volts(rail.volts.min),
    high: volts(rail.volts.max),
    ...(found.trouble === 'not-logic' ? { logic: { is: 'rail', rail: board.sheet.logicRail } } : {}),
    ...(absolute === undefined ? {} : { absolute: volts(absolute) }),
  };
  const message = found.trouble === 'above-range' && absolute === undefined ? 'above-range-only' : found.trouble;
  const better = (other: Rail) => {
    const there = supplyFault(board, part, terminal, other);
    return !there || CONDITIONS.indexOf(there.from) > CONDITIONS.indexOf(found.from);
  };
  return [draft(item, LEVEL_FROM[found.from], message, data, () => toFittingRail(context, item, better))];
}

function examineSupply(context: CheckContext, item: PlanTerminal): FindingDraft[] {
  const net = context.nets.byTerminal.get(item.key);
  if (!net) return [];
  if (net.ground) {
    const lives = item.terminal.ties?.includes('ground');
    return [draft(item, lives ? 'risk' : 'clash', lives ? 'fed-by-signal' : 'supply-on-ground', {}, () => toFittingRail(context, item))];
  }
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

/** An input that is tied to a rail: what is too much for it, and what is no high for it. */
function examineTied(context: CheckContext, item: PlanTerminal, rail: Rail): FindingDraft[] {
  const { plan, sheets, board } = context;
  const { part, placement, terminal } = item;
  const strap = strapVolts(part, terminal.id);
  const remedies = () => {
    const safe = tieRail(plan, board, placement, part, strap);
    return safe && safe.id !== rail.id && !item.wire?.locked && item.wire?.end.to === 'rail' ? [onto(item, safe)] : [];
  };
  const told = (level: Level, message: string, more: Data) =>
    draft(item, level, message, { rail: { is: 'rail', rail: rail.id }, ...more }, remedies);
  const tooHigh = (message: string, most: number) =>
    told('clash', message, { high: { is: 'volts', value: rail.volts.max }, most: { is: 'volts', value: most } });
  const stated = tieLimit(part, terminal.id);
  const feed = feedRail(plan, sheets, placement.id);
  // On the rail that feeds it an input is at its own supply, whatever that is.
  if (rail.volts.max > stated && (strap !== undefined || feed !== rail.id))
    return [tooHigh(strap === undefined ? 'tied-too-high' : 'strap-too-high', stated)];
  // What is behind a regulator is stated by the sheet alone.
  if (feed === undefined || feed === rail.id || part.supply?.regulator) return [];
  const { receiver } = partSide(plan, sheets, board, item, false);
  const limit = receiver.stands ?? receiver.feed.volts.min + receiver.above;
  if (rail.volts.max > limit + TINY) return [tooHigh('tied-too-high', limit)];
  const asked = 'volts' in receiver.vih ? receiver.vih.volts : receiver.vih.ratio * receiver.feed.volts.max;
  // What is dimmed is no logic input: it is only less bright.
  if (terminal.role === 'pwm.out' || rail.volts.min >= asked - TINY) return [];
  return [told('risk', 'tied-too-low', { low: { is: 'volts', value: rail.volts.min }, least: { is: 'volts', value: asked } })];
}

/** Volts within which two limits are the same. */
const TINY = 1e-9;

/** The tie that the sheet allows, for a terminal that has the other one. */
function tiedOtherwise({ plan, board }: CheckContext, item: PlanTerminal): readonly Remedy[] | undefined {
  const [tie] = item.terminal.ties ?? [];
  if ((tie !== 'ground' && tie !== 'supply') || item.wire?.locked) return undefined;
  if (tie === 'ground') return toGround(item);
  const rail = tieRail(plan, board, item.placement, item.part, strapVolts(item.part, item.terminal.id));
  return rail && [onto(item, rail)];
}

function examineSignal(context: CheckContext, item: PlanTerminal): FindingDraft[] {
  const net = context.nets.byTerminal.get(item.key);
  const rail = railOf(context, item);
  if (!net || (!rail && !net.ground)) return [];
  if (item.terminal.ties?.includes(rail ? 'supply' : 'ground')) return rail ? examineTied(context, item, rail) : [];
  const to: Data = { to: rail ? { is: 'rail', rail: rail.id } : { is: 'words', text: 'GND' } };
  const remedies = () =>
    tiedOtherwise(context, item) ?? (freePins(context.board, context.nets, item).length > 0 ? moveToFree(context, item) : []);
  return [draft(item, 'clash', 'signal-on-rail', to, remedies)];
}

/** A supply that the part makes for others: it must meet no other source, and no short. */
function examineOutput(context: CheckContext, item: PlanTerminal): FindingDraft[] {
  const net = context.nets.byTerminal.get(item.key);
  if (!net) return [];
  const remedies = () =>
    item.wire && !item.wire.locked
      ? [
          {
            label: 'take-off',
            data: { terminal: { is: 'terminal' as const, key: item.key } },
            grade: 'offered' as const,
            edits: [{ kind: 'unwire' as const, placement: item.placement.id, terminal: item.terminal.id }],
          },
        ]
      : [];
  if (net.ground) return [draft(item, 'clash', 'output-on-ground', {}, remedies)];
  const [pin] = net.pins;
  if (pin !== undefined) return [draft(item, 'risk', 'output-on-pin', { pin: { is: 'pin', pin } }, remedies)];
  const rail = railOf(context, item);
  return rail ? [draft(item, 'risk', 'output-on-rail', { rail: { is: 'rail', rail: rail.id } }, remedies)] : [];
}

function examineTerminal(context: CheckContext, item: PlanTerminal): FindingDraft[] {
  if (item.terminal.role === 'supply.vcc') return examineSupply(context, item);
  if (item.terminal.role === 'ground') return examineGround(context, item);
  if (item.terminal.role === 'supply.out') return examineOutput(context, item);
  return PIN_ROLES[item.terminal.role] ? examineSignal(context, item) : [];
}

const ABOVE =
  'Between the top of its range and its absolute maximum a part usually works, but nobody promises it. A warning where the nominal voltage is above the range, or the usual one by more than 3 %; a note where only the extremes are.';
const BELOW =
  'Below its range a part may stop while something else draws current. A warning where the nominal voltage is below the range, or the usual one by more than 3 %: makers state ranges for supplies of round voltages with their tolerance. A note where only the extremes are: a long cable, a weak port, a regulator at its limit.';

export const supplyWrong: Check = {
  code: 'supply-wrong',
  harm: true,
  question: 'Does every supply terminal get a voltage it can take, and every ground go to ground?',
  messages: {
    'too-high': {
      title: '{terminal} gets too much voltage',
      text: '{rail}: {nominal} nominal, {usualLow} to {usualHigh} usual, {low} to {high} at the extremes. The part takes at most {most}.',
      why: 'Above its supply range the part is damaged or unreliable. Compared: usual rail voltage {usualHigh} against the sheet’s maximum {most}.',
    },
    'above-range': {
      title: '{terminal} may get more than its datasheet promises for',
      text: '{rail}: {nominal} nominal, {usualLow} to {usualHigh} usual, {low} to {high} at the extremes. The part is specified to {most} and destroyed above {absolute}.',
      why: ABOVE,
    },
    'above-range-only': {
      title: '{terminal} may get more than its datasheet promises for',
      text: '{rail}: {nominal} nominal, {usualLow} to {usualHigh} usual, {low} to {high} at the extremes. The part is specified to {most}.',
      why: ABOVE,
    },
    'too-low': {
      title: '{terminal} gets too little voltage',
      text: '{rail}: {nominal} nominal, {usualLow} to {usualHigh} usual, {low} to {high} at the extremes. The part needs at least {least}.',
      why: 'More than 5 % below its supply range a part does not start, or not reliably. Compared: nominal rail voltage {nominal} against the sheet’s minimum {least}.',
    },
    'sags-low': {
      title: '{terminal} may get too little voltage',
      text: '{rail}: {nominal} nominal, {usualLow} to {usualHigh} usual, {low} to {high} at the extremes. The part needs at least {least}.',
      why: BELOW,
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
    'tied-too-high': {
      title: '{terminal} is tied above its part’s supply',
      text: '{rail} carries up to {high}; the input takes at most {most}.',
      why: 'An input takes what its own supply is, and little more: above that, current flows through its protection into that supply. Compared: {high} against {most}.',
    },
    'tied-too-low': {
      title: '{terminal} is tied high, but not high enough',
      text: '{rail} may fall to {low}; for a high the input asks {least}.',
      why: 'What is high for an input follows from its part’s own supply. Compared at the worst corner of both: {low} against {least}.',
    },
    'fed-by-signal': {
      title: '{terminal} is at ground: the part lives on its signal line',
      text: 'Its sheet allows that. A resistor alone gives too little while it works.',
      why: 'Without a supply the part stores charge from its data line, which the program must pull up strongly (through a transistor) for as long as it converts or writes. With a supply wire nothing of this is needed.',
    },
    'output-on-ground': {
      title: '{terminal} is a supply that the part makes, shorted to ground',
      text: 'Its regulator feeds a short.',
      why: 'A supply output gives current to others. At ground it overheats or switches off, and the part with it.',
    },
    'output-on-rail': {
      title: '{terminal} is a supply that the part makes, wired to {rail}',
      text: 'Two sources feed one line: right only where one of them is switched off.',
      why: 'The higher of two supplies feeds the lower one backwards, through a regulator that was not made for it. Some modules have a jumper that turns the terminal into an input.',
    },
    'output-on-pin': {
      title: '{terminal} is a supply that the part makes, wired to {pin}',
      text: 'As soon as the pin gives a low it shorts that supply.',
      why: 'A pin can read such a voltage, but nothing protects it once a program makes it an output.',
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
    'take-off': 'Take the wire off {terminal}',
    move: 'Move {terminal} to {pin}',
  },
  otherwise: 'Feed the part from a supply of its own that is within its range, with the grounds joined.',
  // Every terminal has one wire, so a net has one source at most: two rails cannot meet on a net.
  examine: (context) => context.terminals.flatMap((item) => examineTerminal(context, item)),
};
