import { beforeFirst, findOrThrow } from '../collections/orThrow';
import type { BoardPin, BoardSheet, Controller, Rail } from './boardSheet';
import { chipControllers, chipFacts, type ChipFacts, takenFrom } from './chipFacts';
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
    rails.set(id, { id, label, volts: range, feed: 'Unknown; ±3 % assumed.', direction: 'both' });
  };
  for (const row of rows) if (row.kind === 'supply') add(row.label);
  if (!rails.has('logic')) add(logicVolts === 3.3 ? '3V3' : `${logicVolts}V`);
  return [...rails.values()].sort((a, b) => Number(b.id === 'logic') - Number(a.id === 'logic'));
}

const TITLES: { readonly [K in ControllerKind]: string } = { i2c: 'I2C', spi: 'SPI', uart: 'UART' };
/** Clocks that every controller of a kind reaches; the true limit is the datasheet's. */
const SAFE_HZ: { readonly [K in ControllerKind]: number } = { i2c: 100_000, spi: 1_000_000, uart: 115_200 };

/** The controllers that pins name: the chip's own where it is known, the others with what every one can do. */
function controllersOf(pins: readonly BoardPin[], chip: ChipFacts | undefined): readonly Controller[] {
  const known = chip ? chipControllers(chip.board, pins) : [];
  const ids = [...new Set(pins.flatMap((pin) => (pin.functions ?? []).map((name) => beforeFirst(name, '.'))))].sort();
  const others = ids.filter((id) => known.every((controller) => controller.id !== id));
  return [
    ...known,
    ...others.map((id): Controller => {
      const kind = findOrThrow(CONTROLLER_KINDS, (k) => id.startsWith(k));
      return {
        id,
        kind,
        title: `${TITLES[kind]}${id.slice(kind.length)}`,
        maxHz: SAFE_HZ[kind],
        legal: { rule: 'membership' },
        note: 'From a pasted table; clock and free combination of the pins are assumed.',
      };
    }),
  ];
}

function pinOf(row: PinRow, taken: Set<string>, logicVolts: number, chip: ChipFacts | undefined): BoardPin {
  let id = factId(row.label);
  if (taken.has(id)) id = `${id}_${row.position}`;
  while (taken.has(id)) id = `${id}x`;
  taken.add(id);
  const base = { id, header: headerId(row.header), position: row.position, label: row.label, kind: row.kind };
  if (row.kind === 'supply') return { ...base, rail: railOf(row.label, logicVolts).id };
  if (row.kind !== 'io') return base;
  const known = chip?.pinOf(row);
  if (chip && known) {
    const drives = known.io === undefined || known.io === 'both' || known.io === 'out';
    // A label such as TX1 is no second port of a chip that has one.
    const further = row.functions.filter((name) => chip.board.controllers.list.some(({ id }) => name.startsWith(`${id}.`)));
    return { ...base, ...known, functions: [...new Set([...(known.functions ?? []), ...(drives ? further : [])])] };
  }
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

const TYPICAL: Source = {
  document: 'Typical CMOS values',
  trust: 'typical',
  note: 'Not from a datasheet: replace before relying on levels and currents.',
};

/** Levels and currents of the pins. At another voltage than that of the known board its levels in volts do not hold; shares of the supply,
 *  currents and pulls do. */
function electricalOf(volts: number, chip: ChipFacts | undefined): BoardSheet['electrical'] {
  const level = (share: number) => Number((volts * share).toFixed(3));
  const cmos: BoardSheet['electrical'] = {
    source: TYPICAL,
    vdd: { min: level(0.97), typ: volts, max: level(1.03) },
    vihMin: { ratio: 0.7 },
    vilMax: { ratio: 0.3 },
    vohMin: { volts: level(0.8), atMilliamps: 4 },
    volMax: { volts: level(0.2), atMilliamps: 4 },
    inputMaxAboveSupply: 0.3,
    pinMilliamps: 4,
    resetState: 'Unknown; input assumed.',
  };
  if (!chip) return cmos;
  const { electrical } = chip.board;
  const source = takenFrom(electrical.source, chip.board);
  if (chip.sameVolts) return { ...electrical, source };
  const { vihMin, vilMax, outputOhms: _, driveSettings: __, vohMin: ___, volMax: ____, ...others } = electrical;
  return {
    ...others,
    source: { ...source, trust: 'typical', note: `${source.note} Levels are typical CMOS values because the supply differs.` },
    vdd: cmos.vdd,
    vihMin: 'ratio' in vihMin ? vihMin : cmos.vihMin,
    vilMax: 'ratio' in vilMax ? vilMax : cmos.vilMax,
    vohMin: cmos.vohMin,
    volMax: cmos.volMax,
  };
}

/** What programs and the radio make of the chip. */
function ofTheProgram(
  known: BoardSheet | undefined,
  pins: readonly BoardPin[],
): Pick<Partial<BoardSheet>, 'programPins' | 'software' | 'radio'> {
  if (!known) return {};
  const { programPins, software, radio } = known;
  const units = new Set(pins.map((pin) => pin.adc?.unit));
  return {
    // A board's own numbers are another matter than those of its chip.
    ...(programPins && programPins.numbering !== 'board'
      ? { programPins: { source: takenFrom(programPins.source, known), numbering: programPins.numbering } }
      : {}),
    ...(software ? { software: { ...software, source: takenFrom(software.source, known) } } : {}),
    ...(radio
      ? { radio: { ...radio, source: takenFrom(radio.source, known), blocksAdc: radio.blocksAdc.filter((unit) => units.has(unit)) } }
      : {}),
  };
}

/** A board sheet from the rows of a pin table. Missing facts are filled with conservative typical values and listed as unknown, for the
 *  user to replace.
 *  @param rows rows without faults, in any order
 *  @param known a board with the same chip, whose chip facts are copied; see `boardOfChip` */
export function boardFromTable(board: TableBoard, rows: readonly PinRow[], known?: BoardSheet): BoardSheet {
  const table: Source = { document: 'User’s pin table', trust: 'bench' };
  const v = board.logicVolts;
  const chip = known && chipFacts(known, v);
  const taken = new Set<string>();
  const headers = [...new Set(rows.map((row) => row.header))];
  const ordered = headers.flatMap((header) => rows.filter((row) => row.header === header).toSorted((a, b) => a.position - b.position));
  const pins = ordered.map((row) => pinOf(row, taken, v, chip));
  return {
    kind: 'board',
    schema: 1,
    id: board.id,
    version: 1,
    chip: board.chip,
    form: board.form,
    title: board.title,
    summary: `Own board, ${rows.filter((row) => row.kind === 'io').length} signal pins, ${v} V; created from a pin table.`,
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
    pins: { source: table, list: pins },
    controllers: {
      source: known ? takenFrom(known.controllers.source, known) : table,
      list: controllersOf(pins, chip),
    },
    rails: { source: TYPICAL, list: railsOf(rows, v) },
    electrical: electricalOf(v, chip),
    ...(known?.analog && chip?.sameVolts ? { analog: { ...known.analog, source: takenFrom(known.analog.source, known) } } : {}),
    memory: known
      ? { ...known.memory, source: takenFrom(known.memory.source, known) }
      : { source: TYPICAL, ramBytes: 0, flashBytes: 0, eepromBytes: 0, runtimeNote: 'Unknown.' },
    ...ofTheProgram(known, pins),
    onBoard: { source: table, list: [] },
    unknown: [
      ...(chip?.sameVolts ? [] : [`Levels${known ? '' : ', currents and internal pulls'} of the pins: typical CMOS values assumed.`]),
      'Pins used by the board itself (USB, LED, button, console).',
      'Rails: ±3 % and no current limit assumed.',
      known ? `External flash size: that of ${known.title} assumed.` : 'Memory.',
    ],
  };
}
