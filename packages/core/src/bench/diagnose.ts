import { has } from '../collections/has';
import { atOrThrow, orThrow } from '../collections/orThrow';
import { addressesOf } from '../nets/addresses';
import { terminalsOf } from '../nets/terminals';
import { boardOf } from '../plan/edit';
import { type Plan, sameEnd, type TerminalKey } from '../plan/plan';
import { PIN_ROLES } from '../sheets/roles';
import { partSheet, partSheetOrThrow, type Sheets } from '../sheets/sheetIndex';
import { type BenchFault, type Circuit, circuitOf, sheetAt, terminalPins, voltsAt } from './circuit';
import { answersOf } from './answers';
import { neighbours, type Question } from './questions';
import { scannedBuses } from './reconcile';

/** Addresses that a device can have besides the planned one. */
function wrongAddresses(plan: Plan, sheets: Sheets): readonly BenchFault[] {
  const open = new Set(scannedBuses(plan, sheets).flatMap((bus) => bus.members.map((m) => m.id)));
  return plan.placements
    .filter((p) => open.has(p.id))
    .flatMap((placement) =>
      addressesOf(plan, placement, sheets).flatMap(({ device, address }) =>
        [...new Set(device.addresses.map((a) => a.address))]
          .filter((other) => other !== address)
          .map((other): BenchFault => ({ kind: 'wrong-address', placement: placement.id, device: device.id, address: other })),
      ),
    );
}

/** Lines of one part that may have been exchanged: those beside each other in its row, and the two of its bus. */
function swaps(plan: Plan, sheets: Sheets): readonly BenchFault[] {
  return plan.placements
    .filter((p) => !p.onBoard)
    .flatMap((placement) => {
      const lines = terminalsOf(plan, placement, sheets)
        .filter(has('wire'))
        .filter((t) => PIN_ROLES[t.terminal.role] && (t.wire.end.to === 'pin' || PIN_ROLES[t.terminal.role]?.line?.kind === 'i2c'));
      // Two lines that end at one point are the same either way.
      return lines.slice(1).flatMap((item, at): BenchFault[] => {
        const before = atOrThrow(lines, at);
        return sameEnd(before.wire.end, item.wire.end) ? [] : [{ kind: 'swapped', a: before.key, b: item.key }];
      });
    });
}

/** Every single fault that a bench of this plan may have. */
export function possibleFaults(plan: Plan, sheets: Sheets): readonly BenchFault[] {
  const board = boardOf(plan, sheets);
  if (!board) return [];
  const soldered = new Set(plan.placements.filter((p) => p.onBoard).map((p) => p.id));
  const used = new Set(terminalPins(plan).map((one) => one.pin));
  const pairs = neighbours(board);
  const fed = plan.placements.filter((p) => !soldered.has(p.id) && partSheet(sheets, p.sheet)?.sheet.supply);
  const oneOff = terminalPins(plan)
    .filter(({ placement }) => !soldered.has(placement))
    .flatMap(({ key, pin }) =>
      pairs.flatMap(([a, b]): BenchFault[] =>
        a === pin ? [{ kind: 'one-off', key, pin: b }] : b === pin ? [{ kind: 'one-off', key, pin: a }] : [],
      ),
    );
  return [
    ...scannedBuses(plan, sheets).flatMap(({ controller, pins: lines }): BenchFault[] => {
      const fault: BenchFault = { kind: 'no-pull-up', controller };
      const bare = orThrow(circuitOf(plan, sheets, [fault]), 'board sheet');
      const full = orThrow(circuitOf(plan, sheets), 'board sheet');
      // Where the board's own pull-ups are left, or where there were none, nothing is missing.
      const isHigh = (circuit: Circuit, pin: string) => (voltsAt(circuit, pin, []) ?? 0) > circuit.volts / 2;
      return Object.values(lines).some((pin) => isHigh(full, pin) && !isHigh(bare, pin)) ? [fault] : [];
    }),
    ...wrongAddresses(plan, sheets),
    ...swaps(plan, sheets),
    ...fed.flatMap(({ id, sheet }): BenchFault[] => [
      // A MOSFET shifter works between its two supplies and needs no ground.
      ...(partSheetOrThrow(sheets, sheet).sheet.levelShifter?.kind === 'mosfet' ? [] : [{ kind: 'open-ground', placement: id } as const]),
      { kind: 'dead', placement: id },
    ]),
    ...pairs.filter(([a, b]) => used.has(a) || used.has(b)).map((pins): BenchFault => ({ kind: 'short', pins })),
    ...oneOff,
  ];
}

export interface Diagnosis {
  /** Questions that were answered. */
  readonly answered: number;
  /** Those whose answer is not the planned one, with both. */
  readonly different: readonly { readonly question: Question; readonly planned: string; readonly got: string }[];
  /** Single faults that explain the answers best and equally well, most common first. */
  readonly faults: readonly BenchFault[];
  /** They explain all of it. */
  readonly exact: boolean;
}

/** How far two answers are from each other: for scans by addresses, for what the user saw half where it was seen among other things,
 *  else one. */
function distance(question: Question, a: string, b: string): number {
  if (a === b) return 0;
  if (question.ask === 'sign' && (a === 'else' || b === 'else')) return 0.5;
  if (question.ask !== 'scan') return 1;
  const addresses = (text: string) => new Set(/low|none/.test(text) ? [] : text.split(' '));
  const only = (one: Set<string>, other: Set<string>) => [...one].filter((address) => !other.has(address)).length;
  const [left, right] = [addresses(a), addresses(b)] as const;
  return Math.max(1, only(left, right) + only(right, left));
}

type Answers = readonly (string | undefined)[];

const total = (questions: readonly Question[], a: Answers, b: readonly string[]): number =>
  questions.reduce((sum, question, at) => sum + (a[at] === undefined ? 0 : distance(question, a[at], atOrThrow(b, at))), 0);

/** What every single fault of a plan would answer: computed once, then compared with any bench. */
export interface FaultBook {
  readonly questions: readonly Question[];
  readonly planned: readonly string[];
  readonly tried: readonly { readonly fault: BenchFault; readonly answers: readonly string[] }[];
}

/** Precomputes the answers of every single fault of a plan. */
export function faultBook(plan: Plan, sheets: Sheets, questions: readonly Question[]): FaultBook {
  return {
    questions,
    planned: answersOf(plan, sheets, questions),
    tried: possibleFaults(plan, sheets).map((fault) => ({ fault, answers: answersOf(plan, sheets, questions, [fault]) })),
  };
}

/** What goes wrong on a bench, the usual first. */
const USUAL: readonly BenchFault['kind'][] = ['no-pull-up', 'swapped', 'open-ground', 'dead', 'wrong-address', 'one-off', 'short'];

/** Diagnoses a bench from the answers of its probe: the faults whose answers would be closest to the real ones.
 *  @param answers to the first questions, as far as they came; undefined for unanswered ones */
export function diagnose({ questions: all, planned, tried }: FaultBook, answers: Answers): Diagnosis {
  const questions = all.slice(0, answers.length);
  const different = questions.flatMap((question, at) => {
    const got = answers[at];
    return got === undefined || got === planned[at] ? [] : [{ question, planned: atOrThrow(planned, at), got }];
  });
  const answered = answers.reduce<number>((sum, answer) => sum + (answer === undefined ? 0 : 1), 0);
  if (different.length === 0) return { answered, different, faults: [], exact: true };
  const nothing = total(questions, answers, planned);
  const off = tried.map((one) => total(questions, answers, one.answers));
  const least = Math.min(nothing, ...off);
  const alike = least < nothing ? tried.filter((_, at) => off[at] === least).map((one) => one.fault) : [];
  const faults = alike.toSorted((a, b) => USUAL.indexOf(a.kind) - USUAL.indexOf(b.kind));
  return { answered, different, faults, exact: least === 0 };
}

/** Wires that are shown to be where the plan has them: all answers are the planned ones, and some would not be if the wire were on a position
 *  beside its own. */
export function sureWires({ planned, tried }: FaultBook, answers: Answers): readonly TerminalKey[] {
  if (answers.some((answer, at) => answer !== undefined && answer !== planned[at])) return [];
  const felt = new Map<TerminalKey, boolean>();
  for (const { fault, answers: other } of tried) {
    if (fault.kind !== 'one-off') continue;
    const differs = answers.some((answer, at) => answer !== undefined && answer !== other[at]);
    felt.set(fault.key, (felt.get(fault.key) ?? true) && differs);
  }
  return [...felt].flatMap(([key, isFelt]) => (isFelt ? [key] : []));
}

/** A name by which two faults are the same. */
export function faultKey(fault: BenchFault): string {
  switch (fault.kind) {
    case 'swapped':
      return `swapped ${[fault.a, fault.b].toSorted().join(' ')}`;
    case 'wrong-address':
      return `wrong-address ${fault.placement} ${fault.device} ${fault.address}`;
    case 'no-pull-up':
      return `no-pull-up ${fault.controller}`;
    case 'short':
      return `short ${[...fault.pins].toSorted().join(' ')}`;
    case 'one-off':
      return `one-off ${fault.key} ${fault.pin}`;
    default:
      return `${fault.kind} ${fault.placement}`;
  }
}

/** The part that a fault is about, where it is about one. */
export const faultPart = (plan: Plan, sheets: Sheets, fault: BenchFault): string | undefined => {
  if ('placement' in fault) return sheetAt(plan, sheets, fault.placement) ? fault.placement : undefined;
  if (fault.kind === 'swapped') return fault.a.slice(0, fault.a.indexOf(':'));
  return fault.kind === 'one-off' ? fault.key.slice(0, fault.key.indexOf(':')) : undefined;
};
