import { addressOptions } from '../allocate/addressOptions';
import { strapEdits } from '../allocate/strapEdits';
import { bestAdded } from '../electrics/calculations';
import {
  addedPullUp,
  busUsers,
  capacitanceOf,
  type CapacitanceParts,
  type ClockLimit,
  clockLimits,
  clockOf,
  type I2cLine,
  pullUpInput,
} from '../electrics/busInputs';
import { busPullUps, type PullUpInput, type PullUpResult } from '../electrics/busPullUps';
import { type BusTime, busTime } from '../electrics/i2cTime';
import type { Worked } from '../electrics/working';
import { addressesOf } from '../nets/addresses';
import type { Bus } from '../nets/buses';
import { boardOf, type Edit } from '../plan/edit';
import type { Plan } from '../plan/plan';
import { partSheet, type Sheets } from '../sheets/sheetIndex';

export interface AddressRow {
  readonly placement: string;
  /** Addresses that it answers on now, by its straps. */
  readonly now: readonly number[];
  /** Addresses that it answers on besides, whatever its straps say. */
  readonly also: readonly number[];
  /** What it could be given, each with the edits that do it. */
  readonly options: readonly { readonly addresses: readonly number[]; readonly edits: readonly Edit[] }[];
  /** Addresses it can be given, what it has now among them, in rising order: those that its straps move. */
  readonly steps: readonly number[];
  /** Addresses that somebody else on the bus answers on, too. */
  readonly shared: readonly number[];
}

/** Everything that is known of one I2C bus of a plan. */
export interface I2cSheet {
  readonly bus: Bus;
  readonly addresses: readonly AddressRow[];
  /** The line on which the pull-ups are worse. */
  readonly line: I2cLine;
  readonly input: PullUpInput;
  readonly pullUps: Worked<PullUpResult>;
  readonly capacitance: CapacitanceParts;
  readonly limits: readonly ClockLimit[];
  readonly time: Worked<BusTime>;
  /** What the board's pins take at most, in volts, and the parts that pull higher. */
  readonly restLimitVolts: number;
  readonly pullingHigher: readonly string[];
  /** Members of which no sheet says what they send and read. */
  readonly unknown: readonly string[];
  /** A preferred value to add where the pull-ups are missing or too weak, and adding one helps. */
  readonly add: number | undefined;
  /** Parts whose pull-ups to cut where they are too strong, as few as can be; empty where that does not help. */
  readonly cut: readonly string[];
}

function addressRows(plan: Plan, sheets: Sheets, bus: Bus): readonly AddressRow[] {
  const board = boardOf(plan, sheets)!;
  const claims = bus.members.map((member) => addressesOf(plan, member, sheets).map((a) => a.address));
  const count = new Map<number, number>();
  for (const address of claims.flat()) count.set(address, (count.get(address) ?? 0) + 1);
  return bus.members.map((member, at): AddressRow => {
    const part = partSheet(sheets, member.sheet)!.sheet;
    const besides = (part.bus.devices ?? []).flatMap((d) => (d.alsoAnswers ?? []).map((also) => also.address));
    const options = addressOptions(plan, board, member, part).flatMap(({ addresses, straps }) => {
      const edits = strapEdits(plan, board, member, part, straps) ?? [];
      return edits.length > 0 ? [{ addresses: addresses.filter((a) => !besides.includes(a)), edits }] : [];
    });
    const now = claims[at]!;
    // A device with a fixed address has it in every setting: there is nothing to step.
    const settings = [now, ...options.map((option) => option.addresses)];
    const steps = [...new Set(settings.flat())].filter((address) => settings.some((one) => !one.includes(address)));
    return {
      placement: member.id,
      now,
      also: besides,
      options,
      steps: steps.toSorted((a, b) => a - b),
      shared: now.filter((address) => count.get(address)! > 1),
    };
  });
}

const BADNESS: readonly PullUpResult['verdict'][] = ['good', 'too-weak', 'too-strong', 'both', 'missing'];

/** As few parts as can be whose pull-ups, cut, leave the rest neither too strong nor too weak; the strongest first. */
function toCut(input: PullUpInput): readonly string[] {
  const cut: string[] = [];
  let left = [...input.pullUps];
  while (left.length > 0 && busPullUps({ ...input, pullUps: left }).verdict === 'too-strong') {
    const modules = left.filter((p) => p.id !== 'board' && p.id !== 'added');
    const strongest = modules.toSorted((a, b) => a.ohms.min - b.ohms.min)[0];
    if (!strongest) return [];
    cut.push(strongest.id);
    left = left.filter((p) => p.id !== strongest.id);
  }
  return left.length > 0 && busPullUps({ ...input, pullUps: left }).verdict === 'good' ? cut : [];
}

/** The sheet of one I2C bus. Undefined where the plan's board is not known. */
export function i2cSheet(plan: Plan, sheets: Sheets, bus: Bus): I2cSheet | undefined {
  const board = boardOf(plan, sheets);
  if (!board) return undefined;
  const lines = (['sda', 'scl'] as const).map((line) => {
    const input = pullUpInput(plan, sheets, bus, line)!;
    return { line, input, pullUps: busPullUps(input) };
  });
  const worse = lines.reduce((a, b) => (BADNESS.indexOf(b.pullUps.verdict) > BADNESS.indexOf(a.pullUps.verdict) ? b : a));
  const { line, input, pullUps } = worse;
  const { users, unknown } = busUsers(plan, sheets, bus);
  const others = input.pullUps.filter((p) => p.id !== 'added');
  const helps = pullUps.verdict === 'missing' || pullUps.verdict === 'too-weak';
  const pin = board.pins.get(bus.pins[line] ?? '');
  // A pin that stands more than its supply says so; else the supply at its lowest and what the inputs take above it.
  const restLimitVolts = pin?.limits?.tolerantVolts ?? input.vdd.min + board.sheet.electrical.inputMaxAboveSupply;
  return {
    restLimitVolts,
    pullingHigher: input.pullUps.filter((p) => p.volts.max > restLimitVolts).map((p) => p.id),
    bus,
    addresses: addressRows(plan, sheets, bus),
    line,
    input,
    pullUps,
    capacitance: capacitanceOf(plan, board, bus),
    limits: clockLimits(sheets, board, bus),
    time: busTime(clockOf(plan, sheets, board, bus), users),
    unknown,
    add: helps ? bestAdded('E12', (ohms) => busPullUps({ ...input, pullUps: [...others, addedPullUp(ohms, input.vdd)] })) : undefined,
    cut: pullUps.verdict === 'too-strong' ? toCut(input) : [],
  };
}
