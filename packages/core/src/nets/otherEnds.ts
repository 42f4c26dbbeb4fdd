import { PIN_ROLES } from '../sheets/roles';
import type { PartTerminal, Service } from '../sheets/partSheet';
import type { Sheets } from '../sheets/sheetIndex';
import { type Plan, type TerminalKey, terminalKey } from '../plan/plan';
import { feedRail } from './feedRail';
import { cathodeOf } from './leds';
import { BANK, canMultiplex, commonsOf, multiplexedOutput } from './multiplexed';
import { findNets, type Nets } from './nets';
import { flowsThrough, otherEnd } from './passThrough';
import { planTerminals, type PlanTerminal } from './terminals';

/** Why a wire may end at another part: its data goes on, a multiplexer or level shifter or port of a helper carries it, two lines may be
 *  one, a strap is tied to a bus line of its part, or an LED follows another in series. */
export type EndReason = 'chain' | 'channel' | 'shifter' | 'port' | 'join' | 'strap' | 'series' | 'segment' | 'digit' | 'sink';

export interface OtherEnd {
  readonly key: TerminalKey;
  readonly placement: string;
  readonly terminal: string;
  readonly reason: EndReason;
  /** The wire that the other end has to ground, and that must go: the cathode of an LED that another follows. */
  readonly ungrounds?: true;
}

/** What a port must be able to do for a terminal. */
function serving(terminal: PartTerminal): Service | undefined {
  if (terminal.role === 'adc.in') return 'analog';
  if (terminal.role === 'spi.cs') return 'select';
  if (terminal.role === 'gpio.out') return 'output';
  return terminal.role === 'gpio.in' ? 'input' : undefined;
}

/** What a switch to ground can drive: the low end of a coil, or the common cathode of a digit. */
const isLowSide = ({ part, terminal }: PlanTerminal): boolean =>
  terminal.coil !== undefined || (part.polarity?.common === 'cathode' && commonsOf(part).some((t) => t.id === terminal.id));

function reasonFor(item: PlanTerminal, target: PlanTerminal): EndReason | undefined {
  const { terminal } = item;
  const other = target.terminal;
  if (terminal.chain === 'in' && other.chain === 'out') return 'chain';
  if (cathodeOf(item.part) !== null && terminal.led && cathodeOf(target.part) === other.id)
    return target.wire === undefined || (target.wire.end.to === 'ground' && !target.wire.locked && !target.placement.onBoard)
      ? 'series'
      : undefined;
  const output = multiplexedOutput(target.part, other.id);
  if (output) {
    if (!canMultiplex(target.part, item.part)) return undefined;
    const isCommon = commonsOf(item.part).some((t) => t.id === terminal.id);
    return output.is === 'segment' ? (terminal.led ? 'segment' : undefined) : isCommon ? 'digit' : undefined;
  }
  if (target.part.sinks?.channels.some((c) => c.output === other.id)) return isLowSide(item) ? 'sink' : undefined;
  const line = PIN_ROLES[terminal.role]?.line?.line;
  if (other.channel) return other.channel.line === line ? 'channel' : undefined;
  if (otherEnd(target.part, other.id) !== undefined)
    return PIN_ROLES[terminal.role] && !item.part.levelShifter && flowsThrough(target.part, other.id, terminal) ? 'shifter' : undefined;
  // A decoder brings one output low at a time: one digit of common cathodes is lit.
  if (terminal.digit && item.part.polarity?.common === 'cathode' && other.serves?.includes('select')) return 'port';
  const does = serving(terminal);
  if (does && (other.serves?.includes(does) || (does === 'select' && other.serves?.includes('output')))) return 'port';
  if (terminal.line && terminal.line === other.line && (terminal.line !== 'clock' || item.part.chip === target.part.chip)) return 'join';
  return undefined;
}

/** A bus line of its own part that an address strap may be tied to. */
function strapsTo({ terminal }: PlanTerminal, { key, placement, terminal: own }: PlanTerminal): OtherEnd[] {
  const isLine = (own.role === 'i2c.sda' && terminal.ties?.includes('sda')) || (own.role === 'i2c.scl' && terminal.ties?.includes('scl'));
  return isLine ? [{ key, placement: placement.id, terminal: own.id, reason: 'strap' }] : [];
}

/** Whether an end of a channel is on the side of another supply than a part's, where both are known. */
function isWrongSide(nets: Nets, rail: string | undefined, target: PlanTerminal): boolean {
  const { levelShifter } = target.part;
  // A logic buffer has one supply, and its inputs follow another: the levels say whether that goes.
  if (!levelShifter || levelShifter.kind === 'drive') return false;
  const side = levelShifter.channels.some((c) => c.low === target.terminal.id) ? levelShifter.low : levelShifter.high;
  const there = nets.byTerminal.get(terminalKey(target.placement.id, side))?.rails[0];
  return rail !== undefined && there !== undefined && rail !== there;
}

/** The terminals of other parts that a terminal's wire may end at, in the order of the plan. Ends that carry one signal each and have one
 *  already are left out; channels and level shifters take several lines of one kind. */
export function otherEnds(plan: Plan, sheets: Sheets, item: PlanTerminal): readonly OtherEnd[] {
  const taken = new Map<TerminalKey, string>();
  for (const [key, { end }] of Object.entries(plan.wires))
    if (key !== item.key && end.to === 'terminal') taken.set(terminalKey(end.placement, end.terminal), key);
  const all = planTerminals(plan, sheets);
  const nets = findNets(plan, sheets);
  const own = feedRail(plan, sheets, item.placement.id);
  const roleOf = (key: string | undefined) => all.find((t) => t.key === key)?.terminal.role;
  return all.flatMap((target): OtherEnd[] => {
    if (target.placement.id === item.placement.id) return strapsTo(item, target);
    const reason = reasonFor(item, target);
    if (!reason) return [];
    const user = taken.get(target.key);
    const shares =
      (reason === 'shifter' || reason === 'channel') && PIN_ROLES[item.terminal.role]?.shared && roleOf(user) === item.terminal.role;
    // Digits share segment outputs; a digit output belongs to one, or to one of each bank of segments.
    const multiplexed = reason === 'segment' || (reason === 'digit' && (target.part.multiplex?.segments.length ?? 0) > BANK);
    if (user !== undefined && reason !== 'join' && !shares && !multiplexed) return [];
    // The end of a shifter that already represents other terminals, or is wired, is the board side.
    if (reason === 'shifter' && (target.carries || target.wire || isWrongSide(nets, own, target))) return [];
    const ungrounds = reason === 'series' && target.wire ? ({ ungrounds: true } as const) : {};
    return [{ key: target.key, placement: target.placement.id, terminal: target.terminal.id, reason, ...ungrounds }];
  });
}
