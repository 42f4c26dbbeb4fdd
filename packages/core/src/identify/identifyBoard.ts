import { type HeaderPin, headerPins } from '../sheets/headerPins';
import { atOrThrow } from '../collections/orThrow';
import type { BoardPin, BoardSheet, Header } from '../sheets/boardSheet';
import { typical } from '../quantity/range';
import { LABEL_LIMITS, plainLabel, readLabels } from './labelForms';

/** A board that printed labels may be of. */
export interface BoardMatch {
  readonly board: BoardSheet;
  /** How well the labels match, 0 to 1. */
  readonly score: number;
  readonly matched: number;
  /** Labels that the board does not have, as typed. */
  readonly strange: readonly string[];
  /** Pairs of labels that are neighbours on an edge of the board, as in the text. */
  readonly inOrder: number;
}

/** What is counted of a label that is there, and of its place in a row. */
const WORTH = { label: 0.75, order: 0.25 } as const;
/** Below this share of labels a board is no answer. */
const LEAST = 0.4;

const printed = (pin: BoardPin): readonly string[] => [pin.label, ...(pin.also ?? [])].map(plainLabel).filter(Boolean);

/** The pins of a header in the order in which they are printed along an edge: in two rows, row by row. */
export function edgesOf(board: BoardSheet): readonly { readonly header: Header; readonly pins: readonly HeaderPin[] }[] {
  return board.headers.list.flatMap((header) => {
    if (header.side === 'inside') return [];
    const own = headerPins(board, header.id).toSorted((a, b) => a.position - b.position);
    const rows = header.rows === 2 ? [own.filter((p) => p.position % 2 === 1), own.filter((p) => p.position % 2 === 0)] : [own];
    return rows.map((list) => ({ header, pins: list }));
  });
}

/** Which pairs of names are neighbours on an edge, in either direction. */
function neighboursOf(board: BoardSheet): ReadonlySet<string> {
  const pairs = new Set<string>();
  for (const { pins } of edgesOf(board))
    for (const [at, pin] of pins.slice(1).entries())
      for (const a of printed(atOrThrow(pins, at))) for (const b of printed(pin)) pairs.add(`${a} ${b}`).add(`${b} ${a}`);
  return pairs;
}

/** The boards that labels printed at the edges may belong to, the best first. Boards that share most labels differ in the rest.
 *  @param text labels as printed along an edge, in any order and parted by anything: "D13 3V3 AREF A0 A1"
 *  @example identifyBoard(boards, 'D13 3V3 AREF A0')[0].board.form // '5 V, stick, 30 pins' */
export function identifyBoard(boards: readonly BoardSheet[], text: string): readonly BoardMatch[] {
  const labels = readLabels(text).slice(0, LABEL_LIMITS.labels);
  if (labels.length === 0) return [];
  return (
    boards
      .map((board): BoardMatch => {
        const free = new Map<string, number>();
        for (const pin of board.pins.list.filter(({ header }) => header !== undefined))
          for (const name of printed(pin)) free.set(name, (free.get(name) ?? 0) + 1);
        const strange = labels.filter((label) => {
          const name = plainLabel(label);
          const left = free.get(name) ?? 0;
          free.set(name, left - 1);
          return left <= 0;
        });
        const beside = neighboursOf(board);
        const inOrder = labels
          .slice(1)
          .filter((label, at) => beside.has(`${plainLabel(atOrThrow(labels, at))} ${plainLabel(label)}`)).length;
        const matched = labels.length - strange.length;
        const order = labels.length > 1 ? inOrder / (labels.length - 1) : 1;
        return { board, matched, strange, inOrder, score: WORTH.label * (matched / labels.length) + WORTH.order * order };
      })
      .filter(({ matched }) => matched >= LEAST * labels.length)
      // Of boards with the same labels the plain one first: "stick" before "radio stick".
      .toSorted((a, b) => b.score - a.score || a.board.title.length - b.board.title.length || a.board.title.localeCompare(b.board.title))
  );
}

/** Labels that only the first of two boards has, in printed order: where to look to tell them apart. */
export function onlyOn(board: BoardSheet, other: BoardSheet): readonly string[] {
  const names = new Set(other.pins.list.filter(({ header }) => header !== undefined).flatMap(printed));
  const own = edgesOf(board).flatMap(({ pins }) =>
    pins.filter((pin) => !printed(pin).some((name) => names.has(name))).map((pin) => pin.label),
  );
  return [...new Set(own)];
}

const words = (text: string): readonly string[] => text.toLowerCase().match(/[\p{L}\d]+(?:[.-][\p{L}\d]+)*/gu) ?? [];

/** What a board is found by: the beginning of any of these words. */
function wordsOf(board: BoardSheet): readonly string[] {
  const usb = board.traits?.usb?.toLowerCase();
  const { radio } = board;
  return [
    ...[board.chip, board.form, board.title, board.summary, board.id, radio?.kinds ?? '', ...(board.traits?.words ?? [])].flatMap(words),
    ...(usb ? [usb, 'usb', usb.replace('usb-', 'type-').replace('-usb', ''), usb.replace('-usb', '')] : []),
    ...(radio ? ['radio', 'wireless', 'wifi', 'ble'].filter((word) => word !== 'wifi' || /wi-fi/i.test(radio.kinds)) : []),
    board.system === 'linux' ? 'linux' : 'microcontroller',
  ];
}

/** Positions on the headers at the edges, which people count as the pins of a board. */
export const pinCount = ({ headers, pins }: BoardSheet): number =>
  pins.list.filter((pin) => headers.list.some(({ id, side }) => id === pin.header && side !== 'inside')).length;

/** Nominal voltage of the logic, in volts. */
export function logicNominal(board: BoardSheet): number {
  const rail = board.rails.list.find(({ id }) => id === board.logicRail);
  return typical(rail?.volts ?? board.electrical.vdd);
}

/** A board of 5 V behind a diode is a 5 V board. */
const SAME_VOLTS = 0.4;

/** Whether people call it a board of so many volts. */
export const hasLogicVolts = (board: BoardSheet, volts: number): boolean => Math.abs(logicNominal(board) - volts) <= SAME_VOLTS;

/** Whether people would count so many pins: at its edges, or as its form is called. */
const hasPins = (board: BoardSheet, count: number): boolean =>
  pinCount(board) === count ||
  new RegExp(`\\b${count}[ -]?(?:pin|pad)`, 'i').test([board.form, board.title, ...(board.traits?.words ?? [])].join(' '));

/** Whether the edges of a board are so many rows of so many pins: "2x20" for a double row of 40, or for two rows of 20. */
function isLaidOut(board: BoardSheet, rows: number, columns: number): boolean {
  const lengths = edgesOf(board).map(({ pins }) => pins.length);
  return lengths.length === rows && lengths.every((length) => length === columns);
}

/** From here on words that a board has as labels are taken as labels. */
const MANY_LABELS = 4;

/** The boards that everything in a text fits: chip, family, form, voltage ("3.3 V"), number of pins ("30 pins"), rows of pins ("2x20"), USB connector ("micro-usb"),
 *  radio, and printed labels. All of them by title for an empty text.
 *  @example searchBoards(boards, 'esp32 usb-c 16 pins') // the small stick with the C3 */
export function searchBoards(boards: readonly BoardSheet[], text: string): readonly BoardSheet[] {
  let rest = ` ${text.slice(0, 200).toLowerCase()} `;
  const take = (pattern: RegExp): number | undefined => {
    const found = pattern.exec(rest);
    if (found) rest = rest.replace(pattern, ' ');
    return found ? Number(atOrThrow(found, 1).replace(',', '.')) : undefined;
  };
  const layout = /\b(\d{1,2}) ?[x×] ?(\d{1,2})\b/.exec(rest);
  if (layout) rest = rest.replace(layout[0], ' ');
  const pins = take(/\b(\d{1,3})[ -]?pins?\b/);
  const volts = take(/\b(\d(?:[.,]\d)?) ?v(?:olts?)?\b/);
  const terms = words(rest);
  const whole = identifyBoard(boards, text);
  // Several labels that a board all has are a row of labels, also where one of them looks like a voltage.
  const count = readLabels(text).length;
  const row = count >= MANY_LABELS ? whole.filter(({ matched }) => matched === count) : [];
  if (row.length > 0) return row.map(({ board }) => board);
  const found = boards.filter((board) => {
    if (layout && !isLaidOut(board, Number(layout[1]), Number(layout[2]))) return false;
    if (pins !== undefined && !hasPins(board, pins)) return false;
    if (volts !== undefined && !hasLogicVolts(board, volts)) return false;
    const own = wordsOf(board);
    const labels = new Set(board.pins.list.flatMap(printed));
    return terms.every((term) => own.some((word) => word.startsWith(term)) || labels.has(plainLabel(term)));
  });
  if (found.length > 0) return found.toSorted((a, b) => a.title.localeCompare(b.title));
  // A row of printed labels: a label that the sheet does not have is no reason to find nothing.
  return count >= 3 ? whole.map(({ board }) => board) : [];
}
