import { headerPins } from '../sheets/headerPins';
import { beforeFirst, firstOrThrow } from '../collections/orThrow';
import Papa from 'papaparse';
import { TRADE_NAMES } from '../identify/matchLabels';
import { planTerminals, type PlanTerminal } from '../nets/terminals';
import { boardOf, type Edit } from '../plan/edit';
import { type Plan, sameEnd, splitKey, type TerminalKey, WIRE_COLOURS, type WireColour, type WireEnd } from '../plan/plan';
import { isSameNominal } from '../quantity/range';
import { PIN_ROLES } from '../sheets/roles';
import type { Sheets } from '../sheets/sheetIndex';

/** One wire of an imported list, as written. */
export interface ListedWire {
  readonly line: number;
  readonly from: string;
  readonly to: string;
  readonly colour: WireColour | undefined;
  /** Module pin number, if the list states it. */
  readonly number: number | undefined;
}

/** What a listed wire is in a plan. */
export interface MatchedWire {
  readonly listed: ListedWire;
  /** The terminals that it may begin at: one where that is clear. */
  readonly terminals: readonly TerminalKey[];
  readonly end: WireEnd | undefined;
  /** The list says that nothing is connected there. */
  readonly open: boolean;
  /** The plan has it already. */
  readonly there: boolean;
  /** Undefined where it is not clear what is meant. */
  readonly edit: Edit | undefined;
}

/** Longer lists are not read. */
export const LIST_LENGTH = 100_000;
/** What a list may have at most: lines, and characters in each. */
const LIMITS = { lines: 2000, characters: 400 } as const;
/** Blanks around it are trimmed afterwards: in the pattern they would make the time grow with their square and worse. */
const ARROW = /-->|->|=>|→|—>|\t|\bto\b|[:=]/i;
/** A colour at the end of a line, after a bracket or a comma; the line is trimmed. */
const COLOUR_AT_END = /[(,] *([a-z]{1,12})(?: +wire)? *\)?$/i;

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
    /^module pin$/i,
  ];
  const [part = -1, terminal = -1, from = -1, to = -1, colour = -1, number = -1] = columns.map((pattern) => columnOf(header, pattern));
  const named = to >= 0 && (terminal >= 0 || from >= 0);
  const body = named ? rows.slice(1) : rows;
  return body.flatMap((row, at): ListedWire[] => {
    const cell = (n: number): string => (row[n] ?? '').trim().replace(/^'(?=[=+\-@])/, '');
    const begin = named ? [part, from, terminal].map(cell).filter(Boolean).join(' ') : row.length > 2 ? `${cell(0)} ${cell(1)}` : cell(0);
    const end = named ? cell(to) : cell(row.length > 2 ? 2 : 1);
    if (begin.trim() === '' || end === '') return [];
    return [
      {
        line: firstLine + at + (named ? 1 : 0),
        from: begin.trim(),
        to: end,
        colour: colourIn(colour >= 0 ? cell(colour) : undefined),
        number: number >= 0 ? Number(cell(number)) : undefined,
      },
    ];
  });
}

/** A row of a Markdown table, but not the rule under its header. */
const isTableRow = (line: string): boolean => line.length > 1 && line.startsWith('|') && line.endsWith('|') && !/^[\s|:-]+$/.test(line);

const unescape = (cell: string): string => cell.replace(/\\([\\|`*_<>[\]])/g, '$1');

/** A list of wires as people keep it: CSV or tabs with or without a header, a Markdown table, or a line for each wire such as
 *  "OLED SDA -> GP4". Lines that are no wire are left out. */
export function readWireList(text: string): readonly ListedWire[] {
  const all = text
    .slice(0, LIST_LENGTH)
    .replace(/^\uFEFF/, '')
    .split(/\r?\n/);
  const long = all.flatMap((line, at) => (line.length > LIMITS.characters ? [tooLong(line, at)] : []));
  const lines = all.slice(0, LIMITS.lines).map((line) => (line.length > LIMITS.characters ? '' : line));
  return [...readLines(lines), ...long].sort((a, b) => a.line - b.line);
}

/** A line that cannot be read is listed, so that it is not overlooked. */
const tooLong = (line: string, at: number): ListedWire => ({
  line: at + 1,
  from: `${line.trim().slice(0, 40)}… (${line.length} characters, at most ${LIMITS.characters})`,
  to: '',
  colour: undefined,
  number: undefined,
});

function readLines(lines: readonly string[]): readonly ListedWire[] {
  const table = lines.map((line, at) => ({ line, at })).filter(({ line }) => isTableRow(line.trim()));
  if (table.length > 1) {
    const rows = table.map(({ line }) =>
      line
        .trim()
        .slice(1, -1)
        .split(/(?<!\\)\|/)
        .map((cell) => unescape(cell.trim())),
    );
    return fromTable(rows, firstOrThrow(table).at + 1);
  }
  const arrows = lines.filter((line) => /->|=>|→/.test(line)).length;
  const separated = lines.filter((line) => /[,;\t]/.test(line.trimEnd())).length;
  if (arrows === 0 && separated > lines.filter((line) => line.trim() !== '').length / 2) {
    const { data } = Papa.parse<string[]>(lines.join('\n').trim(), {
      skipEmptyLines: false,
      delimiter: lines.some((line) => line.includes('\t')) ? '\t' : '',
    });
    return fromTable(data, 1);
  }
  return lines.flatMap((line, at): ListedWire[] => {
    const item = line.replace(/^[\s*•-]*(?:\d{1,4}[.)]\s*)?[\s*•-]*(?=[A-Za-z\d])/, '').trim();
    const arrow = ARROW.exec(item);
    const [from, words] = arrow ? [item.slice(0, arrow.index).trim(), item.slice(arrow.index + arrow[0].length).trim()] : ['', ''];
    if (!from || !words) return [];
    const colour = COLOUR_AT_END.exec(words);
    const wireColour = colourIn(colour?.[1]);
    return [
      { line: at + 1, from, to: colour && wireColour ? words.slice(0, colour.index).trim() : words, colour: wireColour, number: undefined },
    ];
  });
}

/** Letters and digits only, lower case, to compare different spellings of a name. */
const bare = (text: string): string =>
  text
    .normalize('NFKD')
    .toLowerCase()
    .replace(/×/g, 'x')
    .replace(/\+/g, 'plus')
    .replace(/(?<=^|[^a-z0-9])-(?=$|[^a-z0-9])/g, 'minus')
    .replace(/[^a-z0-9]/g, '');

/** What people write for a role beside what modules print. */
const SPOKEN: { readonly [role: string]: readonly string[] } = {
  'i2c.sda': ['data', 'dat'],
  'i2c.scl': ['clock'],
  'spi.sck': ['clock'],
  'spi.mosi': ['data'],
  'spi.cs': ['ncs', 'select'],
  'supply.vcc': ['power'],
  ground: ['0v'],
  'onewire.data': ['dq', 'data', 'dat', 'out', 'signal', 's'],
};
/** The names of a terminal by its role alone: a list often has those of another module of the kind. */
const ROLE_LABELS = new Map(
  [...new Set([...Object.keys(TRADE_NAMES), ...Object.keys(SPOKEN)])].map((role) => [
    role,
    [...new Set([...(TRADE_NAMES[role] ?? []).map(bare), ...(SPOKEN[role] ?? [])])],
  ]),
);

/** The ways in which a terminal may be written, worked out once for a list. */
interface NamedTerminal {
  readonly item: PlanTerminal;
  readonly byId: string;
  readonly byLabel: string;
  /** Its label and other names alone. */
  readonly labels: ReadonlySet<string>;
  /** With the name of its part before it, and with a usual name of such a part. */
  readonly own: ReadonlySet<string>;
  readonly usual: ReadonlySet<string>;
  /** What other modules print at a terminal of this role, alone, and with the names of the part before it. */
  readonly byRole: ReadonlySet<string>;
  readonly partByRole: ReadonlySet<string>;
}

function nameTerminal(item: PlanTerminal): NamedTerminal {
  const { placement, part, terminal } = item;
  const labels = [terminal.label, terminal.id, ...(terminal.also ?? [])].map(bare).filter(Boolean);
  const usual = [part.short, beforeFirst(part.short, ' '), part.title, part.chip, part.family, ...(part.words ?? [])].map(bare);
  const roles = (ROLE_LABELS.get(terminal.role) ?? []).filter((label) => !labels.includes(label));
  const before = (names: readonly string[], ends: readonly string[] = labels) =>
    new Set(names.flatMap((name) => ends.map((end) => name + end)));
  const names = [bare(placement.name), bare(placement.id), ...usual.filter((name) => name !== '')];
  return {
    item,
    byId: `${placement.name} ${terminal.id}`.toLowerCase(),
    byLabel: `${placement.name} ${terminal.label}`.toLowerCase(),
    labels: new Set(labels),
    own: before([bare(placement.name), bare(placement.id)]),
    usual: before(usual.filter((name) => name !== '')),
    byRole: new Set(roles),
    partByRole: before(names, roles),
  };
}

/** How well a text names a terminal: by its part and label, by a usual name of the part, or by its label alone. */
function score(exact: string, wanted: string, named: NamedTerminal): number {
  if (exact === named.byId) return 5;
  if (exact === named.byLabel) return 4;
  if (named.own.has(wanted)) return 3;
  if (named.usual.has(wanted)) return 2;
  if (named.partByRole.has(wanted)) return 1.5;
  if (named.labels.has(wanted)) return 1;
  return named.byRole.has(wanted) ? 0.5 : 0;
}

function terminalsFor(text: string, all: readonly NamedTerminal[]): readonly PlanTerminal[] {
  const [exact, wanted] = [text.trim().toLowerCase(), bare(text)];
  const scored = all.map((named) => ({ item: named.item, points: score(exact, wanted, named) })).filter(({ points }) => points > 0);
  const most = Math.max(0, ...scored.map(({ points }) => points));
  return scored.filter(({ points }) => points === most).map(({ item }) => item);
}

const VOLTAGES = [
  { volts: 3.3, spellings: ['3v3', '3.3v', '3,3v', '+3.3v', '+3v3', '3v'] },
  { volts: 5, spellings: ['5v', '+5v', '5.0v', '5v0'] },
  { volts: 12, spellings: ['12v', '+12v'] },
] as const;

/** Nothing at all, as people write it. */
const OPEN = /^(?:open|nc|n\.?\/?c\.?|none|nothing|not connected|unconnected|no connection|not used|unused|floating|left open|-+|–|—)$/i;

/** The ends that a board has, by the ways in which they may be written; earlier names go before later ones. */
function boardEnds(plan: Plan, sheets: Sheets): ReadonlyMap<string, WireEnd> {
  const board = boardOf(plan, sheets);
  const ends = new Map<string, WireEnd>();
  const name = (text: string | undefined, end: WireEnd) => {
    if (text !== undefined && !ends.has(bare(text))) ends.set(bare(text), end);
  };
  for (const text of ['gnd', 'ground', '0v', 'vss', 'minus']) name(text, { to: 'ground' });
  for (const rail of board?.sheet.rails.list ?? []) for (const text of [rail.label, rail.id]) name(text, { to: 'rail', rail: rail.id });
  const pins = (board?.sheet.pins.list ?? []).filter((pin) => pin.kind === 'io');
  const end = (pin: (typeof pins)[number]): WireEnd => ({ to: 'pin', pin: pin.sameAs ?? pin.id });
  // A number alone is that of the printed D10, GPIO10, GP10 or IO10; of a header with two rows people count its positions.
  const twoRows =
    board?.sheet.headers.list.length === 1 && firstOrThrow(board.sheet.headers.list).rows === 2 ? board.sheet.headers.list[0] : undefined;
  for (const pin of board && twoRows ? headerPins(board.sheet, twoRows.id) : []) {
    const at: WireEnd | undefined =
      pin.kind === 'io'
        ? end(pin)
        : pin.kind === 'ground'
          ? { to: 'ground' }
          : pin.rail === undefined
            ? undefined
            : { to: 'rail', rail: pin.rail };
    if (at) for (const text of [`pin${pin.position}`, `physical${pin.position}`]) name(text, at);
  }
  // What is printed goes before the chip's own name, which another pin may carry as its label.
  for (const pin of pins) for (const text of [pin.label, pin.id]) name(text, end(pin));
  for (const pin of pins) for (const text of [pin.port, ...(pin.also ?? [])]) name(text, end(pin));
  if (!twoRows)
    for (const pin of pins) {
      const number = /^(?:D|GPIO|GP|IO)(\d{1,2})$/i.exec(pin.label)?.[1];
      if (number !== undefined) for (const text of [number, `pin${number}`, `d${number}`, `gpio${number}`]) name(text, end(pin));
    }
  // A voltage is the rail of the board that gives it.
  for (const { volts, spellings } of VOLTAGES) {
    const rail = board?.sheet.rails.list.find((one) => one.direction !== 'in' && isSameNominal(one.volts, { min: volts, max: volts }));
    if (rail) for (const text of spellings) name(text, { to: 'rail', rail: rail.id });
  }
  ends.delete('');
  return ends;
}

/** The end that a text names: ground, a rail, a pin of the board, or a terminal of a part. */
function endFor(text: string, ends: ReadonlyMap<string, WireEnd>, all: readonly NamedTerminal[]): WireEnd | undefined {
  const end = ends.get(bare(text)) ?? ends.get(bare(text.replace(/\b(?:pin|gpio|board|digital|analog|number|no)\b/gi, ' ')));
  if (end) return end;
  const terminals = terminalsFor(text, all);
  return terminals.length === 1
    ? { to: 'terminal', placement: firstOrThrow(terminals).placement.id, terminal: firstOrThrow(terminals).terminal.id }
    : undefined;
}

/** Holds a list of wires against the parts of a plan. */
export function matchWires(plan: Plan, sheets: Sheets, list: readonly ListedWire[]): readonly MatchedWire[] {
  const all = planTerminals(plan, sheets)
    .filter((item) => !item.placement.onBoard)
    .map(nameTerminal);
  const ends = boardEnds(plan, sheets);
  return list.map((listed): MatchedWire => {
    // Several terminals of a part may have the same label; the module pin number distinguishes them.
    const numbered = all.filter(({ item }) => listed.number === undefined || item.terminal.number === listed.number);
    const counted = terminalsFor(listed.from, numbered);
    const found = counted.length > 0 ? counted : terminalsFor(listed.from, all);
    const open = OPEN.test(listed.to.trim());
    const end = listed.to === '' || open ? undefined : endFor(listed.to, ends, all);
    // Of several with the same label the suitable one is meant: a signal for a pin, a supply for a rail.
    const fitting = found.filter(({ terminal }) => (end?.to === 'pin' ? PIN_ROLES[terminal.role] !== undefined : true));
    const terminals = (fitting.length > 0 ? fitting : found).map((item) => item.key);
    const only = fitting.length === 1 ? fitting[0] : found.length === 1 && fitting.length === 0 ? found[0] : undefined;
    const wire = only && plan.wires[only.key];
    const there = open ? only !== undefined && wire === undefined : end !== undefined && sameEnd(wire?.end, end);
    const at = only && { placement: only.placement.id, terminal: only.terminal.id };
    const taken: Edit | undefined = at && open && wire && !wire.locked ? { kind: 'unwire', ...at } : undefined;
    const edit: Edit | undefined =
      at && end && !there ? { kind: 'wire', ...at, end, ...(listed.colour ? { colour: listed.colour } : {}) } : taken;
    return { listed, terminals, end, open, there, edit };
  });
}

/** What is not clear about a listed wire, answered. */
export interface WireAnswer {
  readonly terminal?: TerminalKey;
  readonly end?: WireEnd;
}

/** The edit of a listed wire, with what the list leaves open answered. Undefined while something is missing, and where the plan has the wire
 *  already. */
export function answeredEdit(plan: Plan, match: MatchedWire, answer: WireAnswer): Edit | undefined {
  if (match.edit || match.there) return match.edit;
  const key = match.terminals.length === 1 ? match.terminals[0] : answer.terminal;
  const end = match.end ?? answer.end;
  if (key === undefined) return undefined;
  const { placement, terminal } = splitKey(key);
  if (match.open) return plan.wires[key] && !plan.wires[key].locked ? { kind: 'unwire', placement, terminal } : undefined;
  if (!end || sameEnd(plan.wires[key]?.end, end)) return undefined;
  return { kind: 'wire', placement, terminal, end, ...(match.listed.colour ? { colour: match.listed.colour } : {}) };
}

/** The ends on the board that a listed wire may be meant to have: ground, rails, and signal pins in physical order. */
export function boardEndChoices(plan: Plan, sheets: Sheets): readonly { readonly label: string; readonly end: WireEnd }[] {
  const board = boardOf(plan, sheets);
  if (!board) return [];
  return [
    { label: 'GND', end: { to: 'ground' } },
    ...board.sheet.rails.list.map(({ id, label }) => ({ label, end: { to: 'rail' as const, rail: id } })),
    ...board.ioPins.map(({ id, label }) => ({ label, end: { to: 'pin' as const, pin: id } })),
  ];
}
