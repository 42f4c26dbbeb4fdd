import { atOrThrow } from '../collections/orThrow';
/** Pin tables as people have them: pasted from a spreadsheet, a web page or a text file. */

export interface PinRow {
  /** Line of the text, from 1. */
  readonly line: number;
  readonly header: string;
  readonly position: number;
  readonly label: string;
  readonly port?: string;
  readonly kind: 'io' | 'ground' | 'supply' | 'control' | 'unconnected';
  readonly inputOnly: boolean;
  /** `i2c0.sda` */
  readonly functions: readonly string[];
  readonly adc?: number;
  readonly pwm?: string;
  readonly interrupt?: string;
  /** Unrecognised words. */
  readonly strange: readonly string[];
}

export interface TableFault {
  readonly line: number;
  readonly fault: string;
}

export type ColumnMeaning = 'position' | 'label' | 'port' | 'functions' | 'header' | 'ignored';

export interface PinTable {
  readonly columns: readonly { readonly title: string; readonly meaning: ColumnMeaning }[];
  readonly rows: readonly PinRow[];
  readonly faults: readonly TableFault[];
}

export const TABLE_LIMITS = { rows: 400, characters: 200_000, columns: 40, lineLength: 4000 } as const;

type Cells = readonly string[];

/** Cells of one line; quotes hold a cell together that has the separator in it. */
function splitQuoted(line: string, separator: string): Cells {
  const cells: string[] = [];
  let [cell, quoted] = ['', false];
  for (const letter of line) {
    if (letter === '"') quoted = !quoted;
    else if (letter === separator && !quoted) {
      cells.push(cell.trim());
      cell = '';
    } else cell += letter;
  }
  return [...cells, cell.trim()];
}

/** How the lines are parted into cells: tabs, semicolons, commas, or columns aligned with two blanks or more. */
function splitterFor(lines: readonly string[]): (line: string) => Cells {
  const most = (separator: string) => lines.filter((line) => line.includes(separator)).length > lines.length / 2;
  const found = ['\t', ';', '|', ','].find(most);
  if (!found) return (line) => line.trim().split(/\s{2,}/);
  if (found === '|') return (line) => splitQuoted(line.trim().replace(/^\||\|$/g, ''), '|');
  return (line) => splitQuoted(line, found);
}

const MEANINGS: readonly (readonly [RegExp, ColumnMeaning])[] = [
  [/^(pos(ition)?|pin( ?(no|number|#))?|no\.?|#|number)$/i, 'position'],
  [/^(label|name|pin ?name|silk(screen)?|marking|signal)$/i, 'label'],
  [/^(port|gpio|chip( ?(port|pin))?|mcu( ?pin)?)$/i, 'port'],
  [/^(functions?|alt(ernate)?( ?functions?)?|af|notes?|capabilit(y|ies)|special|remarks?|type|kind)$/i, 'functions'],
  [/^(header|row|side|connector|edge)$/i, 'header'],
];

const meaningOf = (title: string): ColumnMeaning => MEANINGS.find(([pattern]) => pattern.test(title.trim()))?.[1] ?? 'ignored';

/** Columns by their titles; without a title line by their content. */
function readColumns(first: Cells, widest: number): { readonly titled: boolean; readonly columns: PinTable['columns'] } {
  const titled = first.map((title) => ({ title, meaning: meaningOf(title) }));
  if (titled.filter((c) => c.meaning !== 'ignored').length >= 2 && titled.some((c) => c.meaning === 'label'))
    return { titled: true, columns: titled };
  const numbered = /^\d+$/.test(first[0] ?? '');
  return {
    titled: false,
    columns: Array.from({ length: widest }, (_, at) => {
      const place = numbered ? at : at + 1;
      return { title: `column ${at + 1}`, meaning: place === 0 ? 'position' : place === 1 ? 'label' : 'functions' };
    }),
  };
}

const SPI_LINES: { readonly [name: string]: string } = {
  SCK: 'sck',
  CLK: 'sck',
  SCLK: 'sck',
  MOSI: 'mosi',
  COPI: 'mosi',
  TX: 'mosi',
  MISO: 'miso',
  CIPO: 'miso',
  RX: 'miso',
  CS: 'cs',
  CSN: 'cs',
  SS: 'cs',
  NSS: 'cs',
};

interface Ability {
  readonly function?: string;
  readonly adc?: number;
  readonly pwm?: string;
  readonly interrupt?: string;
  readonly inputOnly?: true;
}

type Reader = (match: RegExpExecArray) => Ability;

const ABILITIES: readonly (readonly [RegExp, Reader])[] = [
  [/^(?:I2C|TWI|IIC)(\d*)[ _.-]?(SDA|SCL)$/, (m) => ({ function: `i2c${m[1] || '0'}.${atOrThrow(m, 2).toLowerCase()}` })],
  [/^(SDA|SCL)(\d*)$/, (m) => ({ function: `i2c${m[2] || '0'}.${atOrThrow(m, 1).toLowerCase()}` })],
  [
    /^SPI(\d*)[ _.-]?(SCK|CLK|SCLK|MOSI|COPI|MISO|CIPO|CSN|CS|NSS|SS|TX|RX)\d?$/,
    (m) => ({ function: `spi${m[1] || '0'}.${SPI_LINES[atOrThrow(m, 2)]}` }),
  ],
  [/^(SCK|SCLK|MOSI|COPI|MISO|CIPO|SS|NSS|CS)(\d*)$/, (m) => ({ function: `spi${m[2] || '0'}.${SPI_LINES[atOrThrow(m, 1)]}` })],
  [/^(?:UART|USART|SERIAL)(\d*)[ _.-]?(TX|RX|CTS|RTS)D?$/, (m) => ({ function: `uart${m[1] || '0'}.${atOrThrow(m, 2).toLowerCase()}` })],
  [/^(TX|RX)D?(\d*)$/, (m) => ({ function: `uart${m[2] || '0'}.${atOrThrow(m, 1).toLowerCase()}` })],
  [/^(?:ADC\d?[ _.-]?(?:CH|IN)?|AIN|A)(\d+)$/, (m) => ({ adc: Number(m[1]) })],
  [/^(?:PWM|TIM|OC)[ _.-]?([A-Z0-9_.]*)$/, (m) => ({ pwm: m[1] || 'PWM' })],
  [/^((?:EXT)?INT\d*|IRQ\d*)$/, (m) => ({ interrupt: atOrThrow(m, 1) })],
  [/^(?:INPUT[ -]?ONLY|IN[ -]?ONLY)$/, () => ({ inputOnly: true })],
];

/** Words that say nothing beyond what every signal pin can do. */
const PLAIN = /^(?:GPIO|IO|DIGITAL|D\d+|GP\d+|GPIO\d+|IO\d+|P[A-Z]?\d+|OUT(PUT)?|IN(PUT)?|-)$/;

function readAbilities(text: string): { readonly abilities: readonly Ability[]; readonly strange: readonly string[] } {
  const abilities: Ability[] = [];
  const strange: string[] = [];
  // The stroke of “I/O” divides nothing.
  const words = text
    .replaceAll(/\bI\/O\b/gi, 'IO')
    .split(/[,;/|]|\s{2,}/)
    .flatMap((phrase) => {
      const whole = phrase.trim().toUpperCase();
      // "I2C0 SDA" and "input only" are one word; "SDA SCK" are two.
      return ABILITIES.some(([pattern]) => pattern.test(whole)) ? [whole] : whole.split(/\s+/);
    });
  for (const word of words.filter(Boolean)) {
    const [found] = ABILITIES.flatMap(([pattern, read]) => {
      const match = pattern.exec(word);
      return match ? [read(match)] : [];
    });
    if (found) abilities.push(found);
    else if (!PLAIN.test(word)) strange.push(word);
  }
  return { abilities, strange };
}

const KINDS: readonly (readonly [RegExp, PinRow['kind']])[] = [
  [/^(A|D)?GND\d*$|^VSS[A\d]*$|^G$/i, 'ground'],
  [/^(\+?3V3|3\.3V?|\+?5V|VCC\w*|VDD\w*|VIN|VBUS|VSYS|VBAT|RAW|VUSB|AVDD|AVCC|IOREF|\+?12V)$/i, 'supply'],
  [/^(N?RST|RESET|N?RESET|EN|RUN|BOOT\d*|AREF|VREF|3V3_?EN|MCLR)$/i, 'control'],
  [/^(NC|N\/C|-|none)$/i, 'unconnected'],
];

const kindOf = (label: string): PinRow['kind'] => KINDS.find(([pattern]) => pattern.test(label.trim()))?.[1] ?? 'io';

function readRow(cells: Cells, columns: PinTable['columns'], line: number, nth: number): PinRow | TableFault {
  const cell = (meaning: ColumnMeaning) =>
    columns
      .flatMap((column, at) => (column.meaning === meaning ? [cells[at] ?? ''] : []))
      .join(' , ')
      .trim();
  const label = cell('label');
  const position = cell('position');
  if (!label) return { line, fault: 'no label' };
  if (label.length > 40) return { line, fault: `label of ${label.length} characters: at most 40` };
  if (position && !/^\d{1,3}$/.test(position)) return { line, fault: `position “${position.slice(0, 20)}” is not a number` };
  const kind = kindOf(label);
  const read = readAbilities(`${cell('functions')} , ${kind === 'io' ? cell('port') : ''}`);
  const own = kind === 'io' ? readAbilities(label).abilities : [];
  const all = [...read.abilities, ...own];
  const port = cell('port');
  if (all.some((a) => a.inputOnly) && all.some((a) => a.pwm !== undefined || (a.function && !/\.(miso|rx|cts)$/.test(a.function))))
    return { line, fault: `${label} is input-only but the table lists an output function` };
  const first = <K extends 'adc' | 'pwm' | 'interrupt'>(key: K) => all.find((a) => a[key] !== undefined)?.[key];
  const [adc, pwm, interrupt] = [first('adc'), first('pwm'), first('interrupt')];
  return {
    line,
    header: cell('header') || 'pins',
    position: position ? Number(position) : nth,
    label,
    ...(port ? { port } : {}),
    kind,
    inputOnly: all.some((a) => a.inputOnly),
    functions: kind === 'io' ? [...new Set(all.flatMap((a) => a.function ?? []))] : [],
    ...(adc === undefined ? {} : { adc }),
    ...(pwm === undefined ? {} : { pwm }),
    ...(interrupt === undefined ? {} : { interrupt }),
    strange: kind === 'io' ? read.strange : [],
  };
}

/** Duplicate positions and labels, and gaps between positions. */
function tableFaults(rows: readonly PinRow[]): readonly TableFault[] {
  const faults: TableFault[] = [];
  const seen = new Map<string, number>();
  const twice = (key: string, row: PinRow, what: string) => {
    const before = seen.get(key);
    if (before !== undefined) faults.push({ line: row.line, fault: `${what} is already on line ${before}` });
    else seen.set(key, row.line);
  };
  for (const row of rows) {
    twice(`p ${row.header} ${row.position}`, row, `position ${row.position}`);
    if (row.kind === 'io') twice(`l ${row.label}`, row, `pin ${row.label}`);
  }
  for (const header of new Set(rows.map((row) => row.header))) {
    const mine = rows.filter((row) => row.header === header).toSorted((a, b) => a.position - b.position);
    const gap = mine.find((row, at) => at > 0 && row.position > atOrThrow(mine, at - 1).position + 1);
    if (gap) faults.push({ line: gap.line, fault: `position ${gap.position - 1} of ${header} is missing` });
  }
  return faults;
}

const tooManyRows = (rows: number): string => `${rows} rows: a board has at most ${TABLE_LIMITS.rows} pins`;

/** The line at which a text is too large to be a table of pins. */
function tooLarge(lines: readonly { readonly line: string; readonly number: number }[]): TableFault | undefined {
  // A title line may precede the pins.
  const past = lines[TABLE_LIMITS.rows + 1];
  if (past) return { line: past.number, fault: tooManyRows(lines.length) };
  const long = lines.find(({ line }) => line.length > TABLE_LIMITS.lineLength);
  return long && { line: long.number, fault: `a line of ${long.line.length} characters: at most ${TABLE_LIMITS.lineLength}` };
}

/** A pasted table of pins: what was understood, row by row, and every fault with its line.
 *  It reads CSV, TSV, tables of bars, and text aligned with blanks, with or without a line of titles. */
export function readPinTable(text: string): PinTable {
  if (text.length > TABLE_LIMITS.characters)
    return {
      columns: [],
      rows: [],
      faults: [{ line: 1, fault: `the text has ${text.length} characters: at most ${TABLE_LIMITS.characters}` }],
    };
  const lines = text
    .split(/\r?\n/)
    .map((line, at) => ({ line, number: at + 1 }))
    .filter(({ line }) => line.trim() !== '' && !/^[\s|:=+-]+$/.test(line));
  const first = lines[0];
  if (!first) return { columns: [], rows: [], faults: [] };
  const refused = tooLarge(lines);
  if (refused) return { columns: [], rows: [], faults: [refused] };
  const split = splitterFor(lines.map(({ line }) => line));
  const { titled, columns } = readColumns(split(first.line), Math.max(...lines.map(({ line }) => split(line).length)));
  const body = titled ? lines.slice(1) : lines;
  const [over] = columns.length > TABLE_LIMITS.columns ? [first] : body.slice(TABLE_LIMITS.rows);
  if (over) {
    const what =
      columns.length > TABLE_LIMITS.columns ? `${columns.length} columns: at most ${TABLE_LIMITS.columns}` : tooManyRows(body.length);
    return { columns: [], rows: [], faults: [{ line: over.number, fault: what }] };
  }
  const rows: PinRow[] = [];
  const faults: TableFault[] = [];
  for (const [at, { line, number }] of body.entries()) {
    const cells = split(line);
    if (cells.length > columns.length) {
      faults.push({ line: number, fault: `${cells.length} cells, expected ${columns.length} columns` });
      continue;
    }
    const read = readRow(cells, columns, number, at + 1);
    if ('fault' in read) faults.push(read);
    else rows.push(read);
  }
  return { columns, rows, faults: [...faults, ...tableFaults(rows)].sort((a, b) => a.line - b.line) };
}
