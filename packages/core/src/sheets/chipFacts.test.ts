import { logicNominal } from '../identify/identifyBoard';
import { shippedSheets } from '../../tests/catalogue';
import { findingsOf } from '../../tests/checkHarness';
import { settledPlan } from '../../tests/corruptedPlan';
import { spiReport } from '../electrics/reports/spiReport';
import { findBuses } from '../nets/buses';
import { boardFromTable } from './boardFromTable';
import type { BoardSheet } from './boardSheet';
import { boardOfChip } from './chipFacts';
import { readPinTable } from './pinTable';
import { readSheet } from './readSheet';
import { indexSheets } from './sheetIndex';

const sheets = shippedSheets();
const about = { id: 'my-board', title: 'My board', form: 'own board' };

/** A table as a builder writes it: positions, labels and ports, no functions. */
const tableOf = ({ pins }: BoardSheet) =>
  readPinTable(
    [
      'Pin\tName\tGPIO\tHeader',
      ...pins.list.filter((p) => p.header).map((p) => [p.position, p.label, p.port ?? '', p.header].join('\t')),
    ].join('\n'),
  ).rows;

const copyOf = (board: BoardSheet, logicVolts = board.electrical.vdd.typ!) =>
  boardFromTable({ ...about, chip: board.chip, logicVolts }, tableOf(board), boardOfChip(sheets, board.chip, logicNominal(board)));

test.each([
  ['ATmega328P-PU', 'ATmega328P'],
  ['atmega 2560', 'ATmega2560'],
  ['STM32F103C8T6', 'STM32F103C8'],
  ['ESP32-S3-WROOM-1', 'ESP32-S3'],
  ['ESP32', 'ESP32'],
])('%s is the chip %s', (named, chip) => expect(boardOfChip(sheets, named)?.chip).toBe(chip));

test.each(['ESP32-H2', 'ESP32-S', 'RP2', '', 'ATmega328PB', 'XC8'])('%j is no chip of the catalogue', (named) =>
  expect(boardOfChip(sheets, named)).toBeUndefined(),
);

test('a board that was made from a table is no source for the next one', () => {
  const own = boardFromTable({ ...about, chip: 'XC8', logicVolts: 3.3 }, tableOf(sheets.boards.get('rp2040-stick-40')!.sheet));
  expect(boardOfChip(indexSheets([own]), 'XC8')).toBeUndefined();
});

const boards = [...sheets.boards.values()].map(({ sheet }) => sheet);

test.each(boards.map((board) => [board.id, board] as const))('%s from its own pin table has the facts of its chip', (_, board) => {
  const own = copyOf(board);
  expect(readSheet(JSON.parse(JSON.stringify(own)))).toMatchObject({ ok: true });
  const known = boardOfChip(sheets, board.chip, logicNominal(board))!;
  const bare = ({ source: __, ...facts }: BoardSheet['electrical']) => facts;
  expect(bare(own.electrical)).toEqual(bare(known.electrical));
  expect(own.electrical.source.note).toContain(known.title);
  expect(own.memory.ramBytes).toBe(known.memory.ramBytes);
  const index = indexSheets([own]).boards.get('my-board')!;
  for (const pin of index.ioPins) {
    const there = known.pins.list.find((p) => p.kind === 'io' && !p.sameAs && p.header && (p.port ?? p.label) === (pin.port ?? pin.label));
    if (!there) continue;
    expect({ pin: pin.id, io: pin.io, adc: pin.adc, limits: pin.limits }).toEqual({
      pin: pin.id,
      io: there.io,
      adc: there.adc,
      limits: there.limits,
    });
    // What the board hangs on a pin is not the chip's; what the chip reads at its start is.
    expect((pin.duties ?? []).some(({ duty }) => duty === 'led' || duty === 'button')).toBe(false);
    expect((pin.duties ?? []).some(({ duty }) => duty === 'boot')).toBe((there.duties ?? []).some(({ duty }) => duty === 'boot'));
  }
  for (const controller of own.controllers.list) {
    const there = known.controllers.list.find((c) => c.id === controller.id);
    expect({ id: controller.id, maxHz: controller.maxHz }).toEqual({ id: controller.id, maxHz: there?.maxHz });
  }
});

test('at another voltage shares, currents and pulls hold; levels in volts do not', () => {
  const own = copyOf(sheets.boards.get('atmega328p-5v-shield')!.sheet, 3.3);
  expect(readSheet(JSON.parse(JSON.stringify(own)))).toMatchObject({ ok: true });
  const { electrical } = sheets.boards.get('atmega328p-5v-shield')!.sheet;
  expect(own.electrical).toMatchObject({
    vdd: { typ: 3.3 },
    vihMin: electrical.vihMin,
    pinMilliamps: electrical.pinMilliamps,
    pullUpOhms: electrical.pullUpOhms,
    vohMin: { volts: 2.64 },
    source: { trust: 'typical' },
  });
});

test('a display on an own board with a known chip runs at the clock of the chip, not at one that every chip reaches', () => {
  const own = copyOf(sheets.boards.get('esp32-s3-stick-44')!.sheet);
  const all = indexSheets([own, ...[...sheets.parts.values()].map((part) => part.sheet)]);
  const plan = settledPlan(all, own.id, ['tft-24-ili9341-spi', 'sd-card-3v3'], 500);
  const codes = findingsOf(plan, all).map((f) => f.code);
  expect(codes).not.toContain('bus-overloaded');
  expect(codes).not.toContain('bus-too-fast');
  const buses = findBuses(plan, all).filter(({ kind }) => kind === 'spi');
  expect(buses.every((bus) => spiReport(plan, all, all.boards.get(own.id)!, bus).controllerHz! >= 40e6)).toBe(true);
});
