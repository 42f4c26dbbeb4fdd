import { orThrow } from '../../collections/orThrow';
import { memoizeByPair } from '../../memo/memoizeByPair';
import { cathodeOf } from '../../nets/leds';
import { findNets } from '../../nets/nets';
import { type PlanTerminal, planTerminals, terminalsOf } from '../../nets/terminals';
import { partOf } from '../../plan/edit';
import { type Plan, type TerminalKey, terminalKey, type WireEnd } from '../../plan/plan';
import type { Range } from '../../quantity/range';
import { partSheet, type Sheets } from '../../sheets/sheetIndex';

/** Single LEDs that one current flows through, one after another from the output to ground. */
export interface LedString {
  /** Their anodes, the driven one first. */
  readonly anodes: readonly PlanTerminal[];
  /** Sum of their forward voltages, in volts. */
  readonly forwardVolts: Range;
  /** Absolute maximum current of the weakest, in amperes. */
  readonly maxAmps: number;
}

const forwardOf = ({ terminal, part }: PlanTerminal): Range =>
  terminal.led?.forwardVolts ?? orThrow(part.polarity, 'forward voltage').forwardVolts;

const plus = (a: Range, b: Range): Range => ({ min: a.min + b.min, typ: (a.typ ?? a.max) + (b.typ ?? b.max), max: a.max + b.max });

/** The anodes that a cathode leads to, where it leads nowhere else. */
function behind(plan: Plan, sheets: Sheets, { placement, part }: PlanTerminal): readonly PlanTerminal[] {
  const cathode = cathodeOf(part);
  const net = cathode === null ? undefined : findNets(plan, sheets).byTerminal.get(terminalKey(placement.id, cathode));
  if (!net || net.ground || net.rails.length > 0 || net.pins.length > 0) return [];
  return net.terminals.filter((item) => item.terminal.led && item.placement.id !== placement.id && cathodeOf(item.part) !== null);
}

/** The string that begins at a driven anode: that LED alone where its cathode goes to ground. Of several LEDs that a cathode leads to, the
 *  first of the plan counts. */
export function ledString(plan: Plan, sheets: Sheets, first: PlanTerminal): LedString {
  const anodes = [first];
  for (let next = behind(plan, sheets, first)[0]; next && !anodes.includes(next); next = behind(plan, sheets, next)[0]) anodes.push(next);
  return {
    anodes,
    forwardVolts: anodes.map(forwardOf).reduce(plus),
    maxAmps: Math.min(...anodes.map(({ part }) => orThrow(part.polarity, 'maximum current').maxMilliamps / 1000)),
  };
}

/** The terminals behind an LED whose wires its current goes through: its cathode, and the cathodes that this one leads to. */
export function cathodeKeys(plan: Plan, sheets: Sheets, { placement, part }: PlanTerminal): readonly TerminalKey[] {
  const keys: TerminalKey[] = [];
  let at: { readonly id: string; readonly cathode: string | null } | undefined = { id: placement.id, cathode: cathodeOf(part) };
  while (at && at.cathode !== null && !keys.includes(terminalKey(at.id, at.cathode))) {
    const key: TerminalKey = terminalKey(at.id, at.cathode);
    keys.push(key);
    const end: WireEnd | undefined = plan.wires[key]?.end;
    const next = end?.to === 'terminal' ? partOf(plan, end.placement, sheets) : undefined;
    at =
      end?.to === 'terminal' && next && cathodeOf(next.sheet) === end.terminal ? { id: end.placement, cathode: end.terminal } : undefined;
  }
  return keys;
}

/** Where the current of an LED comes from: the end of its wire, followed through the LEDs before it; undefined without such an end. */
export function outputEnd(
  plan: Plan,
  sheets: Sheets,
  item: PlanTerminal,
  passed: ReadonlySet<TerminalKey> = new Set(),
): WireEnd | undefined {
  const end = item.wire?.end;
  if (end?.to !== 'terminal' || passed.has(item.key)) return end?.to === 'terminal' ? undefined : end;
  const there = terminalsOf(plan, { id: end.placement }, sheets);
  const target = there.find((t) => t.terminal.id === end.terminal);
  const isCathode = target !== undefined && target.terminal.id === cathodeOf(target.part);
  const before = target?.terminal.led ? target : isCathode ? there.find((t) => t.terminal.led) : undefined;
  return before ? outputEnd(plan, sheets, before, new Set([...passed, item.key])) : end;
}

/** LEDs side by side behind the resistor, or the cathode, of another. */
export interface SharedResistor {
  /** The anode whose wire has the resistor, or whose string the others branch off. */
  readonly at: PlanTerminal;
  /** The anodes that have no wire to the output of their own. */
  readonly others: readonly PlanTerminal[];
  /** Largest difference between their typical forward voltages, in volts. */
  readonly apartVolts: number;
}

/** The anode at which the wire of an LED ends, followed to the one that has a wire to an output. */
function sharedWith(
  plan: Plan,
  sheets: Sheets,
  item: PlanTerminal,
  passed: ReadonlySet<TerminalKey> = new Set(),
): PlanTerminal | undefined {
  const end = item.wire?.end;
  if (end?.to !== 'terminal' || passed.has(item.key)) return undefined;
  const target = terminalsOf(plan, { id: end.placement }, sheets).find((t) => t.terminal.id === end.terminal);
  if (!target) return undefined;
  if (target.terminal.led) return sharedWith(plan, sheets, target, new Set([...passed, item.key])) ?? target;
  // Several anodes at one cathode: the first goes on with the string, the others share its current.
  const [first] =
    findNets(plan, sheets)
      .byTerminal.get(target.key)
      ?.terminals.filter((t) => t.terminal.led) ?? [];
  return target.terminal.id === cathodeOf(target.part) && first && first.key !== item.key ? first : undefined;
}

/** Every group of LEDs that share one resistor in parallel. */
export const sharedResistors = memoizeByPair((plan: Plan, sheets: Sheets): readonly SharedResistor[] => {
  if (!plan.placements.some(({ sheet }) => partSheet(sheets, sheet)?.sheet.terminals.list.some((t) => t.led))) return [];
  const groups = new Map<TerminalKey, { readonly at: PlanTerminal; readonly others: PlanTerminal[] }>();
  for (const item of planTerminals(plan, sheets)) {
    const at = item.terminal.led && item.part.polarity ? sharedWith(plan, sheets, item) : undefined;
    // Wires in a circle lead back to where they began.
    if (!at?.part.polarity || at.key === item.key) continue;
    const group = groups.get(at.key);
    if (group) group.others.push(item);
    else groups.set(at.key, { at, others: [item] });
  }
  return [...groups.values()].map(({ at, others }) => {
    const volts = [at, ...others].map(forwardOf).map(({ typ, max }) => typ ?? max);
    return { at, others, apartVolts: Math.max(...volts) - Math.min(...volts) };
  });
});
