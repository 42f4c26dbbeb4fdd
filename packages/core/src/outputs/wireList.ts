import Papa from 'papaparse';
import { planTerminals, type PlanTerminal } from '../nets/terminals';
import { boardOf, type Edit } from '../plan/edit';
import { type Plan, sameEnd, type TerminalKey, WIRE_COLOURS, type WireColour, type WireEnd } from '../plan/plan';
import { PIN_ROLES } from '../sheets/roles';
import type { Sheets } from '../sheets/sheetIndex';

/** One wire of a list from elsewhere, as it stands there. */
export interface ListedWire {
  readonly line: number;
  readonly from: string;
  readonly to: string;
  readonly colour: WireColour | undefined;
  /** Number of the terminal along its part, where the list says it. */
  readonly number: number | undefined;
}

/** What a listed wire is in a plan. */
export interface MatchedWire {
  readonly listed: ListedWire;
  /** The terminals that it may begin at: one where that is clear. */
  readonly terminals: readonly TerminalKey[];
  readonly end: WireEnd | undefined;
  /** The plan has it already. */
  readonly there: boolean;
  /** Undefined where it is not clear what is meant. */
  readonly edit: Edit | undefined;
}

/** Longer lists are not read. */
export const LIST_LENGTH = 100_000;
const ARROW = /\s*(?:->|=>|→|—>|-->|\t|\s+to\s+|\s*[:=]\s*)\s*/i;

const columnOf = (header: readonly string[], pattern: RegExp): number => header.findIndex((cell) => pattern.test(cell.trim()));

function colourIn(text: string | undefined): WireColour | undefined {
  const word = text?.trim().toLowerCase().replace('gray', 'grey').replace('purple', 'violet');
  return WIRE_COLOURS.find((colour) => colour === word);
}

/** Rows of a table: with a header that names its columns, else part, terminal, to. */
function fromTable(rows: readonly (readonly string[])[], firstLine: number): readonly ListedWire[] {
  const header = rows[0] ?? [];
  const columns = [
    /^(part|module|device)$/i,
    /^(terminal|pin|label|signal)$/i,
    /^from$/i,
    /^(to|board|board pin|goes to)$/i,
    /^colou?r$/i,
    /^number$/i,
  ];
  const [part, terminal, from, to, colour, number] = columns.map((pattern) => columnOf(header, pattern));
  const named = to! >= 0 && (terminal! >= 0 || from! >= 0);
  const body = named ? rows.slice(1) : rows;
  return body.flatMap((row, at): ListedWire[] => {
    const cell = (n: number): string => (row[n] ?? '').trim().replace(/^'(?=[=+\-@])/, '');
    const begin = named
      ? [part! >= 0 ? cell(part!) : '', from! >= 0 ? cell(from!) : '', terminal! >= 0 ? cell(terminal!) : ''].filter(Boolean).join(' ')
      : row.length > 2
        ? `${cell(0)} ${cell(1)}`
        : cell(0);
    const end = named ? cell(to!) : cell(row.length > 2 ? 2 : 1);
    if (begin.trim() === '' || end === '') return [];
    return [
      {
        line: firstLine + at + (named ? 1 : 0),
        from: begin.trim(),
        to: end,
        colour: colourIn(colour! >= 0 ? cell(colour!) : undefined),
        number: number! >= 0 ? Number(cell(number!)) : undefined,
      },
    ];
  });
}

const unescape = (cell: string): string => cell.replace(/\\([\\|`*_<>[\]])/g, '$1');

/** A list of wires as people keep it: CSV or tabs with or without a header, a Markdown table, or a line for each wire such as
 *  "OLED SDA -> GP4". Lines that are no wire are left out. */
export function readWireList(text: string): readonly ListedWire[] {
  const lines = text.split(/\r?\n/);
  const table = lines
    .map((line, at) => ({ line, at }))
    .filter(({ line }) => /^\s*\|.*\|\s*$/.test(line) && !/^\s*\|[\s|:-]+\|\s*$/.test(line));
  if (table.length > 1) {
    const rows = table.map(({ line }) =>
      line
        .trim()
        .slice(1, -1)
        .split(/(?<!\\)\|/)
        .map((cell) => unescape(cell.trim())),
    );
    return fromTable(rows, table[0]!.at + 1);
  }
  const arrows = lines.filter((line) => /->|=>|→/.test(line)).length;
  const separated = lines.filter((line) => /[,;\t].*\S/.test(line)).length;
  if (arrows === 0 && separated > lines.filter((line) => line.trim() !== '').length / 2) {
    const { data } = Papa.parse<string[]>(text.trim(), { skipEmptyLines: false, delimiter: text.includes('\t') ? '\t' : '' });
    return fromTable(data, 1);
  }
  return lines.flatMap((line, at): ListedWire[] => {
    const bare = line.replace(/^[\s*•\d.)-]+(?=[A-Za-z])/, '').trim();
    const parts = bare.split(ARROW);
    if (parts.length < 2 || !parts[0] || !parts[1]) return [];
    const words = parts[1].trim();
    const colour = /[(,]\s*(\w+)\s*(?:wire)?\)?\s*$/.exec(words);
    const told = colourIn(colour?.[1]);
    return [
      { line: at + 1, from: parts[0].trim(), to: told ? words.slice(0, colour!.index).trim() : words, colour: told, number: undefined },
    ];
  });
}

/** Letters and digits only, small: what two ways of writing a name have in common. */
const bare = (text: string): string =>
  text
    .normalize('NFKD')
    .toLowerCase()
    .replace(/\+/g, 'plus')
    .replace(/(?<=^|[^a-z0-9])-(?=$|[^a-z0-9])/g, 'minus')
    .replace(/[^a-z0-9]/g, '');

/** How well a text names a terminal: by its part and label, by a usual name of the part, or by its label alone. */
function score(text: string, { placement, part, terminal }: PlanTerminal): number {
  const exact = (label: string) => text.trim().toLowerCase() === `${placement.name} ${label}`.toLowerCase();
  if (exact(terminal.id)) return 5;
  if (exact(terminal.label)) return 4;
  const wanted = bare(text);
  const labels = [terminal.label, terminal.id, ...(terminal.also ?? [])].map(bare).filter(Boolean);
  const ends = (name: string) => labels.some((label) => wanted === name + label);
  if (ends(bare(placement.name)) || ends(bare(placement.id))) return 3;
  if (
    [part.short, part.short.split(' ')[0]!, part.title, part.chip, part.family, ...(part.words ?? [])]
      .map(bare)
      .some((name) => name !== '' && ends(name))
  )
    return 2;
  return labels.includes(wanted) ? 1 : 0;
}

function terminalsFor(text: string, all: readonly PlanTerminal[]): readonly PlanTerminal[] {
  const scored = all.map((item) => ({ item, points: score(text, item) })).filter(({ points }) => points > 0);
  const most = Math.max(0, ...scored.map(({ points }) => points));
  return scored.filter(({ points }) => points === most).map(({ item }) => item);
}

/** The end that a text names: ground, a rail, a pin of the board, or a terminal of a part. */
function endFor(plan: Plan, sheets: Sheets, text: string, all: readonly PlanTerminal[]): WireEnd | undefined {
  const board = boardOf(plan, sheets);
  if (!board) return undefined;
  const wanted = bare(text.replace(/\b(?:pin|gpio|board)\b\s*/gi, ' '));
  const whole = bare(text);
  const same = (name: string | undefined) => name !== undefined && (bare(name) === whole || bare(name) === wanted);
  if (/^(gnd|ground|0v|vss|minus)$/.test(whole)) return { to: 'ground' };
  const rail = board.sheet.rails.list.find((one) => same(one.label) || same(one.id));
  if (rail) return { to: 'rail', rail: rail.id };
  const pins = board.sheet.pins.list;
  const byName = (of: (pin: (typeof pins)[number]) => readonly (string | undefined)[]) =>
    pins.find((pin) => pin.kind === 'io' && of(pin).some(same));
  // What is printed goes before the chip's own name, which another pin may carry as its label.
  const pin = byName((one) => [one.label, one.id]) ?? byName((one) => [one.port, ...(one.also ?? [])]);
  if (pin) return { to: 'pin', pin: pin.sameAs ?? pin.id };
  const terminals = terminalsFor(text, all);
  return terminals.length === 1
    ? { to: 'terminal', placement: terminals[0]!.placement.id, terminal: terminals[0]!.terminal.id }
    : undefined;
}

/** Holds a list of wires against the parts of a plan. */
export function matchWires(plan: Plan, sheets: Sheets, list: readonly ListedWire[]): readonly MatchedWire[] {
  const all = planTerminals(plan, sheets).filter((item) => !item.placement.onBoard);
  return list.map((listed): MatchedWire => {
    // Several terminals of a part may be called alike; their number along the part tells them apart.
    const numbered = all.filter(({ terminal }) => listed.number === undefined || terminal.number === listed.number);
    const counted = terminalsFor(listed.from, numbered);
    const found = counted.length > 0 ? counted : terminalsFor(listed.from, all);
    const end = endFor(plan, sheets, listed.to, all);
    // Of several that are called alike the one is meant that can go there: a signal to a pin, a supply to a rail.
    const fitting = found.filter(({ terminal }) => (end?.to === 'pin' ? PIN_ROLES[terminal.role] !== undefined : true));
    const terminals = (fitting.length > 0 ? fitting : found).map((item) => item.key);
    const [item] = fitting.length === 1 ? fitting : found;
    const wire = terminals.length === 1 ? plan.wires[terminals[0]!] : undefined;
    const there = end !== undefined && sameEnd(wire?.end, end);
    const edit: Edit | undefined =
      terminals.length === 1 && end && !there
        ? {
            kind: 'wire',
            placement: item!.placement.id,
            terminal: item!.terminal.id,
            end,
            ...(listed.colour ? { colour: listed.colour } : {}),
          }
        : undefined;
    return { listed, terminals, end, there, edit };
  });
}
