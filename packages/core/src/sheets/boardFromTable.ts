import type { BoardPin, BoardSheet, Controller, Rail } from './boardSheet';
import type { PinRow } from './pinTable';
import { CONTROLLER_KINDS, type ControllerKind } from './roles';
import type { Source } from './source';

/** What a pin table does not say. */
export interface TableBoard {
  readonly id: string;
  readonly title: string;
  readonly chip: string;
  readonly form: string;
  /** Voltage of the signal pins, in volts. */
  readonly logicVolts: number;
}

const RAIL_VOLTS: readonly (readonly [RegExp, number])[] = [
  [/3V3|3\.3/i, 3.3],
  [/5V|VBUS|VUSB|VSYS/i, 5],
  [/12V/i, 12],
];

const factId = (text: string): string =>
  text
    .replace(/[^A-Za-z0-9+_.-]/g, '')
    .replace(/^[^A-Za-z0-9]+/, '')
    .slice(0, 28) || 'pin';

function railOf(label: string, logicVolts: number): { readonly id: string; readonly volts: number } {
  const volts = RAIL_VOLTS.find(([pattern]) => pattern.test(label))?.[1] ?? logicVolts;
  return { id: volts === logicVolts ? 'logic' : factId(label).toLowerCase(), volts };
}

function railsOf(rows: readonly PinRow[], logicVolts: number): readonly Rail[] {
  const rails = new Map<string, Rail>();
  const add = (label: string) => {
    const { id, volts } = railOf(label, logicVolts);
    if (rails.has(id)) return;
    const range = { min: Number((volts * 0.97).toFixed(3)), typ: volts, max: Number((volts * 1.03).toFixed(3)) };
    rails.set(id, { id, label, volts: range, feed: 'Not known yet: 3 % around nominal is assumed.', direction: 'both' });
  };
  for (const row of rows) if (row.kind === 'supply') add(row.label);
  if (!rails.has('logic')) add(logicVolts === 3.3 ? '3V3' : `${logicVolts}V`);
  return [...rails.values()].sort((a, b) => Number(b.id === 'logic') - Number(a.id === 'logic'));
}

const TITLES: { readonly [K in ControllerKind]: string } = { i2c: 'I2C', spi: 'SPI', uart: 'UART' };
/** Clocks that every controller of a kind reaches; the true limit is the datasheet's. */
const SAFE_HZ: { readonly [K in ControllerKind]: number } = { i2c: 100_000, spi: 1_000_000, uart: 115_200 };

function controllersOf(rows: readonly PinRow[]): readonly Controller[] {
  const ids = [...new Set(rows.flatMap((row) => row.functions.map((name) => name.split('.')[0]!)))].sort();
  return ids.map((id) => {
    const kind = CONTROLLER_KINDS.find((k) => id.startsWith(k))!;
    return {
      id,
      kind,
      title: `${TITLES[kind]}${id.slice(kind.length)}`,
      maxHz: SAFE_HZ[kind],
      legal: { rule: 'membership' },
      note: 'From a pasted table: that any two pins of it go together, and the clock, are assumed.',
    };
  });
}

function pinOf(row: PinRow, taken: Set<string>, logicVolts: number): BoardPin {
  let id = factId(row.label);
  if (taken.has(id)) id = `${id}_${row.position}`;
  while (taken.has(id)) id = `${id}x`;
  taken.add(id);
  const base = { id, header: headerId(row.header), position: row.position, label: row.label, kind: row.kind };
  if (row.kind === 'supply') return { ...base, rail: railOf(row.label, logicVolts).id };
  if (row.kind !== 'io') return base;
  return {
    ...base,
    ...(row.port ? { port: row.port } : {}),
    ...(row.inputOnly ? { io: 'in' as const } : {}),
    functions: row.functions,
    ...(row.adc === undefined ? {} : { adc: { unit: 'adc0', channel: row.adc } }),
    ...(row.pwm === undefined ? {} : { pwm: { timer: row.pwm, channel: row.pwm } }),
    ...(row.interrupt === undefined ? {} : { interrupts: [{ line: row.interrupt, shared: false }] }),
    grade: 'free',
  };
}

const headerId = (title: string): string => factId(title).toLowerCase();

/** A board sheet from the rows of a pin table. What a table does not say is filled with cautious, typical values and
 *  listed as unknown, for the builder to replace.
 *  @param rows rows without faults, in any order */
export function boardFromTable(board: TableBoard, rows: readonly PinRow[]): BoardSheet {
  const table: Source = { document: 'Pin table of the builder', trust: 'bench' };
  const typical: Source = {
    document: 'Typical CMOS values',
    trust: 'typical',
    note: 'Not from a datasheet: replace them before trusting levels and currents.',
  };
  const v = board.logicVolts;
  const taken = new Set<string>();
  const headers = [...new Set(rows.map((row) => row.header))];
  const ordered = headers.flatMap((header) => rows.filter((row) => row.header === header).toSorted((a, b) => a.position - b.position));
  const level = (share: number) => Number((v * share).toFixed(3));
  return {
    kind: 'board',
    schema: 1,
    id: board.id,
    version: 1,
    chip: board.chip,
    form: board.form,
    title: board.title,
    summary: `Own board, ${rows.filter((row) => row.kind === 'io').length} signal pins, ${v} V; made from a pin table.`,
    system: 'bare',
    logicRail: 'logic',
    headers: {
      source: table,
      list: headers.map((title, at) => ({
        id: headerId(title),
        title,
        ends: ['first pin', 'last pin'],
        side: at % 2 === 0 ? ('left' as const) : ('right' as const),
      })),
    },
    pins: { source: table, list: ordered.map((row) => pinOf(row, taken, v)) },
    controllers: { source: table, list: controllersOf(rows) },
    rails: { source: typical, list: railsOf(rows, v) },
    electrical: {
      source: typical,
      vdd: { min: level(0.97), typ: v, max: level(1.03) },
      vihMin: { ratio: 0.7 },
      vilMax: { ratio: 0.3 },
      vohMin: { volts: level(0.8), atMilliamps: 4 },
      volMax: { volts: level(0.2), atMilliamps: 4 },
      inputMaxAboveSupply: 0.3,
      pinMilliamps: 4,
      resetState: 'Not known: input is assumed.',
    },
    memory: { source: typical, ramBytes: 0, flashBytes: 0, eepromBytes: 0, runtimeNote: 'Not known.' },
    onBoard: { source: table, list: [] },
    unknown: [
      'Levels, currents and pulls of the pins: typical CMOS values stand in.',
      'Which pins the board uses for itself (boot, flash, USB, LED).',
      'Rails: voltages at 3 % and no budget are assumed.',
      'Memory.',
    ],
  };
}
