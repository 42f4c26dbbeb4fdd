import { boardOf } from '../plan/edit';
import type { Plan } from '../plan/plan';
import type { BoardPin } from '../sheets/boardSheet';
import type { IndexedBoard, Sheets } from '../sheets/sheetIndex';
import { terminalsOf } from '../nets/terminals';
import { type BenchFault, type Circuit, circuitOf, drives, type Hold, PULL_OHMS, sheetAt, terminalPins, voltsAt } from './circuit';
import { scannedBuses } from './reconcile';

/** What a probe can be asked. */
export type Question =
  | { readonly ask: 'scan'; readonly sda: string; readonly scl: string }
  | { readonly ask: 'read'; readonly pin: string; readonly pull: 'up' | 'down' }
  /** Drives one pin low and reads the other through a pull-up. */
  | { readonly ask: 'link'; readonly drive: string; readonly read: string };

/** As it stands on the line: the words after the number of the request. */
export function questionLine(question: Question): string {
  if (question.ask === 'scan') return `scan ${question.sda} ${question.scl}`;
  return question.ask === 'read' ? `read ${question.pin} ${question.pull}` : `link ${question.drive} ${question.read}`;
}

/** Pins of the headers that programs may use, by header in order. */
function freeRows(board: IndexedBoard): readonly (readonly BoardPin[])[] {
  return board.sheet.headers.list
    .filter((header) => header.side !== 'inside')
    .map((header) => board.sheet.pins.list.filter((pin) => pin.header === header.id));
}

const isAskable = (pin: BoardPin): boolean =>
  pin.kind === 'io' && !pin.sameAs && pin.io !== 'analog' && pin.io !== 'out' && pin.grade !== 'reserved';

/** Neighbouring signal pins of the headers. */
export const neighbours = (board: IndexedBoard): readonly (readonly [string, string])[] =>
  freeRows(board).flatMap((row) =>
    row.slice(1).flatMap((pin, at) => (isAskable(pin) && isAskable(row[at]!) ? [[row[at]!.id, pin.id] as const] : [])),
  );

/** Pins that are left alone (something moves, heats or is switched there), those that an output of a part holds, and those whose level says
 *  nothing. */
function untouchable(plan: Plan, sheets: Sheets): { readonly [K in 'all' | 'driven' | 'unclear']: ReadonlySet<string> } {
  const all = new Set<string>();
  const driven = new Set<string>();
  const unclear = new Set<string>();
  for (const { key, placement, pin } of terminalPins(plan)) {
    const part = sheetAt(plan, sheets, placement);
    if (part?.family === 'output' || plan.drivers[key]) all.add(pin);
    const item = terminalsOf(plan, { id: placement }, sheets).find((t) => t.key === key);
    // An LED keeps its forward voltage: neither high nor low.
    if (item?.terminal.led) unclear.add(pin);
    if (item && drives(item)) {
      driven.add(pin);
      if (!item.terminal.idle) unclear.add(pin);
    }
  }
  return { all, driven, unclear };
}

/** Everything to ask about a plan, in order: buses first, then pins, then neighbours. */
export function questionsFor(plan: Plan, sheets: Sheets): readonly Question[] {
  const board = boardOf(plan, sheets);
  if (!board) return [];
  const { all, driven, unclear } = untouchable(plan, sheets);
  const used = new Set(terminalPins(plan).map((one) => one.pin));
  const scans = scannedBuses(plan, sheets).flatMap(({ pins: { sda, scl } }): Question[] =>
    sda && scl
      ? [
          { ask: 'scan', sda, scl },
          { ask: 'scan', sda: scl, scl: sda },
        ]
      : [],
  );
  const pairs = neighbours(board).filter(([a, b]) => used.has(a) || used.has(b));
  const near = [...new Set([...pairs.flat(), ...used])].filter((id) => !all.has(id) && isAskable(board.pins.get(id)!));
  // To empty a pin the probe drives it: not where an output of a part does.
  const hasDown = board.sheet.electrical.pullDownOhms !== undefined;
  const reads = near
    .filter((pin) => !unclear.has(pin))
    .flatMap((pin) => [
      ...(hasDown || !driven.has(pin) ? [{ ask: 'read', pin, pull: 'down' } as const] : []),
      { ask: 'read', pin, pull: 'up' } as const,
    ]);
  const links = pairs
    .filter((pair) => !pair.some((pin) => all.has(pin) || driven.has(pin)))
    .map(([a, b]): Question => (unclear.has(b) ? { ask: 'link', drive: b, read: a } : { ask: 'link', drive: a, read: b }))
    .filter((link) => link.ask === 'link' && !unclear.has(link.read));
  return [...scans, ...reads, ...links];
}

/** What the probe's own pins are like, in ohms. */
export interface ProbeOhms {
  readonly pull: number;
  readonly drive: number;
}
const NOMINAL: ProbeOhms = { pull: PULL_OHMS, drive: 25 };

/** What a circuit answers to a question: addresses in hexadecimal, `none`, a stuck line, or a level. */
export function answerOf(circuit: Circuit, question: Question, { pull, drive }: ProbeOhms = NOMINAL): string {
  const high = (pin: string, holds: readonly Hold[]) => (voltsAt(circuit, pin, holds) ?? 0) > circuit.volts / 2;
  if (question.ask === 'read')
    return high(question.pin, [
      question.pull === 'up'
        ? { pin: question.pin, ohms: pull, volts: circuit.volts }
        : { pin: question.pin, ohms: (circuit.downOhms * pull) / PULL_OHMS, volts: 0 },
    ])
      ? '1'
      : '0';
  if (question.ask === 'link') {
    const holds = [
      { pin: question.drive, ohms: drive, volts: 0 },
      { pin: question.read, ohms: pull, volts: circuit.volts },
    ];
    return high(question.read, holds) ? '1' : '0';
  }
  const { sda, scl } = question;
  if (!high(scl, [])) return 'scl-low';
  if (!high(sda, [])) return 'sda-low';
  const found = circuit.devices.filter((d) => d.sda === sda && d.scl === scl && d.sda !== d.scl).map((d) => d.address);
  const joined = circuit.shorts.some((pair) => pair.includes(sda) && pair.includes(scl));
  const list = [...new Set(joined ? [] : found)].sort((a, b) => a - b);
  return list.length === 0 ? 'none' : list.map((address) => address.toString(16).padStart(2, '0')).join(' ');
}

/** What a plan answers to every question when it is wired with these faults. */
export function answersOf(
  plan: Plan,
  sheets: Sheets,
  questions: readonly Question[],
  faults: readonly BenchFault[] = [],
): readonly string[] {
  const circuit = circuitOf(plan, sheets, faults);
  return circuit ? questions.map((question) => answerOf(circuit, question)) : [];
}
