import { firstOrThrow } from '../../collections/orThrow';
import { outputOfRail } from '../../plan/planRails';
import { freePins } from '../../assign/fit/freePins';
import { railsFor, refeed, strapVolts, supplyFault, supplyRange, tieLimit, tieRail } from '../../assign/fit/railFit';
import { partSide } from '../../electrics/reports/levelSides';
import { feedRail } from '../../nets/feedRail';
import { cathodeOf } from '../../nets/leds';
import { typical } from '../../quantity/range';
import type { Rail } from '../../sheets/boardSheet';
import { CONDITIONS } from '../../sheets/condition';
import { voltsUnder } from '../../sheets/conditions';
import { PIN_ROLES } from '../../sheets/roles';
import type { PlanTerminal } from '../../nets/terminals';
import { terminalKey } from '../../plan/plan';
import type { Check, CheckContext, Data, Datum, FindingDraft, Level, Remedy } from '../engine/check';
import { LEVEL_FROM } from '../engine/severity';
import { moveToFree, rewire } from '../fixes/remedyParts';

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
  return [{ ...onto(item, rail), edits: refeed(context.plan, item, item.terminal.id, rail) }];
}

const onto = (item: PlanTerminal, rail: Rail): Remedy =>
  rewire(item, { to: 'rail', rail: rail.id }, { label: 'to-rail', data: { rail: { is: 'rail', rail: rail.id } }, grade: 'safe' });

function toGround(item: PlanTerminal): readonly Remedy[] {
  return item.wire?.locked ? [] : [rewire(item, { to: 'ground' }, { label: 'to-ground', grade: 'safe' })];
}

function supplyVoltage(context: CheckContext, item: PlanTerminal, rail: Rail): FindingDraft[] {
  const { part, terminal } = item;
  const { board } = context;
  const found = supplyFault(board, part, terminal, rail);
  const range = supplyRange(part, terminal);
  if (!found || !range) return [];
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

/** Whether a supply comes round to the part that it feeds: nothing feeds it then. */
function isFedByItself({ board, nets }: CheckContext, item: PlanTerminal): boolean {
  const passed = new Set<string>();
  for (let rail = nets.byTerminal.get(item.key)?.rails[0]; rail !== undefined && !passed.has(rail);) {
    if (outputOfRail(rail)?.placement === item.placement.id) return true;
    passed.add(rail);
    const id: string = rail;
    rail = board.sheet.rails.list.find((one) => one.id === id)?.regulator?.from;
  }
  return false;
}

function examineSupply(context: CheckContext, item: PlanTerminal): FindingDraft[] {
  const net = context.nets.byTerminal.get(item.key);
  if (!net) return [];
  if (isFedByItself(context, item))
    return [
      draft(item, 'clash', 'fed-by-itself', {}, () =>
        toFittingRail(context, item, (rail) => outputOfRail(rail.id)?.placement !== item.placement.id),
      ),
    ];
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
  if (pin && cathodeOf(item.part) === item.terminal.id) {
    // The last LED of a string that a pin sinks is one of those with a supply at their other end.
    const anode = context.nets.byTerminal.get(terminalKey(item.placement.id, firstOrThrow(item.part.terminals.list).id));
    return anode?.pins.length ? [draft(item, 'hint', 'led-between-pins', { pin: { is: 'pin', pin } }, () => [])] : [];
  }
  return pin ? [draft(item, 'clash', 'ground-on-pin', { pin: { is: 'pin', pin } }, () => toGround(item))] : [];
}

/** An input that is tied to a rail: what is too much for it, and what is no high for it. */
function examineTied(context: CheckContext, item: PlanTerminal, rail: Rail): FindingDraft[] {
  const { plan, sheets, board } = context;
  const { part, placement, terminal } = item;
  const strap = strapVolts(part, terminal.id);
  const remedies = () => {
    const safe = tieRail({ plan, board }, { placement, part }, strap);
    return safe && safe.id !== rail.id && !item.wire?.locked && item.wire?.end.to === 'rail' ? [onto(item, safe)] : [];
  };
  const tieFinding = (level: Level, message: string, more: Data) =>
    draft(item, level, message, { rail: { is: 'rail', rail: rail.id }, ...more }, remedies);
  const tooHigh = (message: string, most: number) =>
    tieFinding('clash', message, { high: { is: 'volts', value: rail.volts.max }, most: { is: 'volts', value: most } });
  const stated = tieLimit(part, terminal.id);
  const feed = feedRail(plan, sheets, placement.id);
  // On the rail that feeds it an input is at its own supply, whatever that is.
  if (rail.volts.max > stated && (strap !== undefined || feed !== rail.id))
    return [tooHigh(strap === undefined ? 'tied-too-high' : 'strap-too-high', stated)];
  // What is behind a regulator is stated by the sheet alone.
  if (feed === undefined || feed === rail.id || part.supply?.regulator) return [];
  const { receiver } = partSide(context, item, false);
  const limit = receiver.toleratedVolts ?? receiver.feed.volts.min + receiver.above;
  if (rail.volts.max > limit + TINY) return [tooHigh('tied-too-high', limit)];
  const vihMin = 'volts' in receiver.vih ? receiver.vih.volts : receiver.vih.ratio * receiver.feed.volts.max;
  // What is dimmed is no logic input: it is only less bright.
  if (terminal.role === 'pwm.out' || rail.volts.min >= vihMin - TINY) return [];
  return [tieFinding('risk', 'tied-too-low', { low: { is: 'volts', value: rail.volts.min }, least: { is: 'volts', value: vihMin } })];
}

/** Volts within which two limits are the same. */
const TINY = 1e-9;

/** The tie that the sheet allows, for a terminal that has the other one. */
function tiedOtherwise({ plan, board }: CheckContext, item: PlanTerminal): readonly Remedy[] | undefined {
  const [tie] = item.terminal.ties ?? [];
  if ((tie !== 'ground' && tie !== 'supply') || item.wire?.locked) return undefined;
  if (tie === 'ground') return toGround(item);
  const rail = tieRail({ plan, board }, item, strapVolts(item.part, item.terminal.id));
  return rail && [onto(item, rail)];
}

function examineSignal(context: CheckContext, item: PlanTerminal): FindingDraft[] {
  const net = context.nets.byTerminal.get(item.key);
  const rail = railOf(context, item);
  // An LED from a supply to ground is lit as long as there is power; its current is checked like that of others.
  const isPowerLight = rail !== undefined && item.terminal.led !== undefined && cathodeOf(item.part) !== null;
  if (!net || isPowerLight || (!rail && !net.ground)) return [];
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
  // A rail of its own is no other source.
  const rail = net.rails.find((id) => id !== item.key);
  return rail === undefined ? [] : [draft(item, 'risk', 'output-on-rail', { rail: { is: 'rail', rail } }, remedies)];
}

function examineTerminal(context: CheckContext, item: PlanTerminal): FindingDraft[] {
  if (item.terminal.role === 'supply.vcc') return examineSupply(context, item);
  if (item.terminal.role === 'ground') return examineGround(context, item);
  if (item.terminal.role === 'supply.out') return examineOutput(context, item);
  return PIN_ROLES[item.terminal.role] ? examineSignal(context, item) : [];
}

const ABOVE =
  'Between the specified range and the absolute maximum a part usually works, but its data is not guaranteed. Warning: nominal voltage above the range, or usual voltage more than 3 % above it. Note: only at the extremes.';
const BELOW =
  'Below its range a part may stop working while other loads draw current. Warning: nominal voltage below the range, or usual voltage more than 3 % below it. Note: only at the extremes, such as a long cable, a weak port or a regulator at its limit.';

export const supplyWrong: Check = {
  code: 'supply-wrong',
  harm: true,
  question: 'Is every supply terminal within its voltage range and every ground at ground?',
  messages: {
    'too-high': {
      title: '{terminal}: over-voltage ({usualHigh}, maximum {most})',
      text: '{rail}: {nominal} nominal, {usualLow} to {usualHigh} usual, {low} to {high} extreme. Maximum supply voltage {most}.',
      why: 'VCC ≤ VCC(max): {usualHigh} (usual maximum of the rail) > {most}. The part is damaged or unreliable.',
    },
    'above-range': {
      title: '{terminal}: supply above the specified range',
      text: '{rail}: {nominal} nominal, {usualLow} to {usualHigh} usual, {low} to {high} extreme. Specified up to {most}, absolute maximum {absolute}.',
      why: ABOVE,
    },
    'above-range-only': {
      title: '{terminal}: supply above the specified range',
      text: '{rail}: {nominal} nominal, {usualLow} to {usualHigh} usual, {low} to {high} extreme. Specified up to {most}.',
      why: ABOVE,
    },
    'too-low': {
      title: '{terminal}: under-voltage ({nominal}, minimum {least})',
      text: '{rail}: {nominal} nominal, {usualLow} to {usualHigh} usual, {low} to {high} extreme. Minimum supply voltage {least}.',
      why: 'VCC ≥ VCC(min): {nominal} (nominal) is more than 5 % below {least}. The part does not start reliably.',
    },
    'sags-low': {
      title: '{terminal}: supply may drop below the specified {least}',
      text: '{rail}: {nominal} nominal, {usualLow} to {usualHigh} usual, {low} to {high} extreme. Minimum supply voltage {least}.',
      why: BELOW,
    },
    'not-logic': {
      title: '{terminal} must be at the logic supply',
      text: 'On {rail} its outputs or pull-ups reach {high}; the board’s I/O voltage is {logic}.',
      why: 'The outputs and pull-ups of this part are at its supply voltage, so it must be powered from the I/O voltage of the board.',
    },
    'supply-on-ground': {
      title: '{terminal}: supply terminal connected to ground',
      text: 'The part is not powered.',
      why: 'Both supply terminals are at ground.',
    },
    'fed-by-itself': {
      title: '{terminal}: powered from its own output',
      text: 'Nothing feeds the regulator, so its output stays at 0 V.',
      why: 'The input of a regulator must come from a rail that does not depend on its output.',
    },
    'fed-from-pin': {
      title: '{terminal}: powered from I/O pin {pin}',
      text: 'An I/O pin supplies little current and its voltage drops under load.',
      why: 'Connect supply terminals to a rail. A pin can power only parts that draw a few milliamperes.',
    },
    'ground-on-rail': {
      title: '{terminal}: ground terminal connected to {rail}',
      text: 'The part is reverse-powered or the rail is shorted.',
      why: 'Ground terminals must be at the board’s ground.',
    },
    'ground-on-pin': {
      title: '{terminal}: ground terminal connected to {pin}',
      text: 'Its reference moves with the signal.',
      why: 'Ground terminals must be at the board’s ground.',
    },
    'strap-too-high': {
      title: '{terminal}: strap voltage too high ({high}, maximum {most})',
      text: '{rail} reaches {high}; the strap tolerates {most}.',
      why: 'The strap connects directly to the chip, whose supply is lower than that of the module: {high} > {most}.',
    },
    'tied-too-high': {
      title: '{terminal}: tied above the supply of its part ({high}, maximum {most})',
      text: '{rail} reaches {high}; the input tolerates {most}.',
      why: 'VI ≤ VDD + 0.3 V: {high} > {most}. Above it, current flows through the protection diode into the supply.',
    },
    'tied-too-low': {
      title: '{terminal}: tied level too low ({low}, VIH {least})',
      text: '{rail} may drop to {low}; VIH is {least}.',
      why: 'VIH follows from the supply of the part. Worst case of both supplies: {low} < {least}.',
    },
    'led-between-pins': {
      title: '{terminal}: LED between two pins',
      text: 'Lit only while the pin of its anode is high and {pin} is low.',
      why: 'With both pins as outputs each of two LEDs in opposite directions can be lit (charlieplexing); the program must drive both pins.',
    },
    'fed-by-signal': {
      title: '{terminal} at ground: parasite power from the data line',
      text: 'Allowed by its sheet, but a pull-up resistor alone supplies too little during conversion.',
      why: 'In parasite-power mode the part stores charge from the data line; the program must apply a strong pull-up (a transistor) during conversion or EEPROM writes. With a supply wire this is not needed.',
    },
    'output-on-ground': {
      title: '{terminal}: supply output shorted to ground',
      text: 'Its regulator drives a short circuit.',
      why: 'A supply output at ground overheats or shuts down, and the part with it.',
    },
    'output-on-rail': {
      title: '{terminal}: supply output connected to {rail}',
      text: 'Two sources on one net: correct only if one of them is disabled.',
      why: 'The higher supply back-feeds the regulator of the lower one. Some modules have a jumper that makes this terminal an input.',
    },
    'output-on-pin': {
      title: '{terminal}: supply output connected to {pin}',
      text: 'A low output shorts the supply.',
      why: 'A pin can read this voltage, but nothing protects it once the program makes it an output.',
    },
    'signal-on-rail': {
      title: '{terminal}: signal connected to {to}',
      text: 'The part sheet does not allow this connection.',
      why: 'An output is shorted; an input never changes.',
    },
  },
  remedies: {
    'to-rail': 'Connect {terminal} to {rail}',
    'to-ground': 'Connect {terminal} to GND',
    'take-off': 'Disconnect {terminal}',
    move: 'Move {terminal} to {pin}',
  },
  otherwise: 'Power the part from a separate supply within its range, with common ground.',
  // Every terminal has one wire, so a net has one source at most: two rails cannot meet on a net.
  examine: (context) => context.terminals.flatMap((item) => examineTerminal(context, item)),
};
