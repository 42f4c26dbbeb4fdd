import { headerPins } from '../sheets/headerPins';
import { atOrThrow, getOrThrow } from '../collections/orThrow';
import { boardOf } from '../plan/edit';
import type { Plan } from '../plan/plan';
import type { BoardPin } from '../sheets/boardSheet';
import type { IndexedBoard, Sheets } from '../sheets/sheetIndex';
import { terminalsOf } from '../nets/terminals';
import { drives, mayDrive, sheetAt, terminalPins } from './circuit';
import { scannedBuses } from './reconcile';
import { type Trial, trialsFor, WATCH } from './trials';

/** The questions of a bench test: by the probe alone, or with a user who acts and looks. */
export type Question =
  | { readonly ask: 'scan'; readonly sda: string; readonly scl: string }
  | { readonly ask: 'read'; readonly pin: string; readonly pull: 'up' | 'down' }
  /** Drives one pin low and reads the other through a pull-up. A part that moves or switches may be connected to the driven pin. */
  | { readonly ask: 'link'; readonly drive: string; readonly read: string; readonly moves?: true }
  /** Whether a pin keeps its level against a pull-up and a pull-down, whichever that is. */
  | { readonly ask: 'held'; readonly pin: string }
  | Trial;

/** Whether the probe can answer alone without moving anything. */
export const isForProbe = (question: Question): boolean =>
  question.ask !== 'watch' && question.ask !== 'turn' && question.ask !== 'sign' && !(question.ask === 'link' && question.moves);

/** The protocol words after the request number. Undefined if the probe has nothing to do. */
export function questionLine(question: Question): string | undefined {
  switch (question.ask) {
    case 'scan':
      return `scan ${question.sda} ${question.scl}`;
    case 'read':
      return `read ${question.pin} ${question.pull}`;
    case 'link':
      return `link ${question.drive} ${question.read}`;
    case 'watch':
      return `${question.analog ? 'span' : 'watch'} ${question.pin} ${WATCH}`;
    case 'turn':
      return `turn ${question.pins.join(' ')} ${WATCH}`;
    case 'held':
    case 'search':
      return `${question.ask} ${question.pin}`;
    default:
      return question.line;
  }
}

/** Minimum change of an ADC reading while the user operates the part, in per cent of full scale; less is noise. */
const MOVED = 5;

/** The answer in a reply of the probe.
 *  @param words behind `ok` or `no` */
export function heardAs(question: Question, words: string): string {
  if (question.ask === 'search') return /^[0-9a-f]{16}/.test(words) ? String(words.split(' ').length) : words;
  if (question.ask === 'watch' && question.analog) {
    const [low = NaN, high = NaN] = words.split(' ').map(Number);
    return high - low >= MOVED ? '1' : '0';
  }
  if (question.ask !== 'reply') return words;
  const bytes = (words.match(/[0-9a-f]{2}/g) ?? []).slice(question.after);
  const first = bytes.find((byte) => byte !== 'ff');
  return first !== undefined && parseInt(first, 16) === question.byte ? '1' : '0';
}

/** Pins of the headers that programs may use, by header in order. */
function freeRows(board: IndexedBoard): readonly (readonly BoardPin[])[] {
  return board.sheet.headers.list.filter((header) => header.side !== 'inside').map((header) => headerPins(board.sheet, header.id));
}

const isAskable = (pin: BoardPin): boolean =>
  pin.kind === 'io' && !pin.sameAs && pin.io !== 'analog' && pin.io !== 'out' && pin.grade !== 'reserved';

/** Neighbouring signal pins of the headers. */
export const neighbours = (board: IndexedBoard): readonly (readonly [string, string])[] =>
  freeRows(board).flatMap((row) =>
    row.slice(1).flatMap((pin, at) => (isAskable(pin) && isAskable(atOrThrow(row, at)) ? [[atOrThrow(row, at).id, pin.id] as const] : [])),
  );

/** Pins that are not driven (parts that move, heat or switch), pins driven by an output of a part, and pins whose level carries no
 *  information. */
function untouchable(plan: Plan, sheets: Sheets): { readonly [K in 'all' | 'driven' | 'unclear' | 'held']: ReadonlySet<string> } {
  const all = new Set<string>();
  const driven = new Set<string>();
  const unclear = new Set<string>();
  const held = new Set<string>();
  for (const { key, placement, pin } of terminalPins(plan)) {
    const part = sheetAt(plan, sheets, placement);
    if (part?.family === 'output' || plan.drivers[key]) all.add(pin);
    const item = terminalsOf(plan, { id: placement }, sheets).find((t) => t.key === key);
    // An LED keeps its forward voltage: neither high nor low.
    if (item?.terminal.led) unclear.add(pin);
    if (item && mayDrive(item)) {
      driven.add(pin);
      if (!item.terminal.idle) unclear.add(pin);
      if (drives(item)) held.add(pin);
    }
  }
  return { all, driven, unclear, held };
}

/** Everything to ask about a plan, in order: buses first, then pins, then neighbours, then part by part. */
export function questionsFor(plan: Plan, sheets: Sheets): readonly Question[] {
  const board = boardOf(plan, sheets);
  if (!board) return [];
  const { all, driven, unclear, held } = untouchable(plan, sheets);
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
  const near = [...new Set([...pairs.flat(), ...used])].filter((id) => !all.has(id) && isAskable(getOrThrow(board.pins, id)));
  // To empty a pin the probe drives it: not where an output of a part does.
  const hasDown = board.sheet.electrical.pullDownOhms !== undefined;
  const reads = near
    .filter((pin) => !unclear.has(pin))
    .flatMap((pin) => [
      ...(hasDown || !driven.has(pin) ? [{ ask: 'read', pin, pull: 'down' } as const] : []),
      { ask: 'read', pin, pull: 'up' } as const,
    ]);
  // Next to an output with unknown idle level: a pin shorted to it no longer follows its pull resistors.
  const beside = pairs.flatMap(([a, b]) => (driven.has(a) === driven.has(b) ? [] : [driven.has(a) ? b : a]));
  const steady = near
    .filter((pin) => (driven.has(pin) ? hasDown && held.has(pin) && unclear.has(pin) : beside.includes(pin) && !unclear.has(pin)))
    .map((pin): Question => ({ ask: 'held', pin }));
  const links = pairs
    .filter((pair) => !pair.some((pin) => driven.has(pin)))
    .map(([a, b]): Question & { readonly ask: 'link' } => {
      const [drive, read] = unclear.has(b) || all.has(b) ? [b, a] : [a, b];
      return { ask: 'link', drive, read, ...(all.has(drive) ? { moves: true } : {}) };
    })
    // A pull-up would turn on the connected part: such a pin is only driven low.
    .filter((link) => !unclear.has(link.read) && !all.has(link.read));
  const isMoving = (link: Question & { readonly ask: 'link' }) => link.moves === true;
  return [...scans, ...reads, ...steady, ...links.filter((l) => !isMoving(l)), ...trialsFor(plan, sheets), ...links.filter(isMoving)];
}
