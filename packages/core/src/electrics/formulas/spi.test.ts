import fc from 'fast-check';
import { shippedSheets } from '../../../tests/catalogue';
import { expectCheck, findingsOf, remedied } from '../../../tests/checkHarness';
import { add, edited, shield, stick, wire } from '../../../tests/makePlan';
import { findBuses } from '../../nets/buses';
import { controllerHz } from '../../nets/controllers';
import type { Edit } from '../../plan/edit';
import type { Plan } from '../../plan/plan';
import { constantSet } from '../../outputs/constants/constantSet';
import { boardOf } from '../../plan/edit';
import { clockAt, rowId, spiReport, wireHz } from '../reports/spiReport';
import { spiBits, spiTime } from './spiTime';

const sheets = shippedSheets();
const sheetOf = (plan: Plan) =>
  spiReport(
    plan,
    sheets,
    boardOf(plan, sheets)!,
    findBuses(plan, sheets).find((b) => b.kind === 'spi')!,
  );
const spi = (id: string, sheet: string, terminals: Record<string, string>): Edit[] => [
  add(id, sheet, id),
  ...Object.entries(terminals).map(([t, at]) => wire(`${id}:${t}`, at)),
];

test('a picture of 320×240 in 16 bits is 1.23 million bits: eight a second at 10 MHz, by hand', () => {
  const frame = [{ times: 1, write: 320 * 240 * 2, read: 0 }];
  expect(spiBits(frame)).toBe(1_228_800);
  expect(spiTime(10e6, spiBits(frame), 5)).toMatchObject({ seconds: 0.12288, share: 0.6144, mostPerSecond: 10e6 / 1_228_800 });
  expect(() => spiTime(0, 8, 1)).toThrow(RangeError);
});

test('a limit between two supplies lies on the line between their points, beyond them at the ends', () => {
  const points = [
    { volts: 5, maxHz: 3.6e6 },
    { volts: 2.7, maxHz: 1.35e6 },
  ];
  expect([clockAt(points, 2), clockAt(points, 2.7), clockAt(points, 3.85), clockAt(points, 5.5)]).toEqual([1.35e6, 1.35e6, 2.475e6, 3.6e6]);
  expect(clockAt([], 3)).toBeUndefined();
});

test('longer wires never carry a faster clock', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 500 }), fc.integer({ min: 0, max: 500 }), (a, b) => {
      expect(wireHz(Math.max(a, b))).toBeLessThanOrEqual(wireHz(Math.min(a, b)));
    }),
  );
});

test('a display with a touch chip on the same lines: each chip has its own clock and select', () => {
  const lines = { SCK: 'GP18', MOSI: 'GP19', MISO: 'GP16', T_CLK: 'GP18', T_DIN: 'GP19', T_DO: 'GP16' };
  const plan = edited(stick(), sheets, ...spi('d', 'tft-24-ili9341-touch', { ...lines, CS: 'GP17', T_CS: 'GP20' }));
  const { rows, commonMode } = sheetOf(plan);
  expect(rows.map((row) => [rowId(row), row.write.hz, row.write.by, row.select?.key])).toEqual([
    ['d', 10e6, 'part', 'd:CS'],
    ['d touch', 2e6, 'part', 'd:T_CS'],
  ]);
  expect(commonMode).toBe(0);
  // The chips of one module are no strangers to each other: neither a select to hold nor one that is missing.
  expect(findingsOf(plan, sheets).map((f) => f.code)).not.toEqual(expect.arrayContaining(['select-floating']));
  const constants = constantSet(plan, sheets)!.groups.find((group) => group.name === 'd')!.constants;
  expect(Object.fromEntries(constants.map(({ name, value }) => [name, value]))).toMatchObject({
    write_hz: { value: 10e6 },
    touch_hz: { value: 2e6 },
    touch_spi_mode: { value: 0 },
  });
});

test('past its crossbar a controller has its own clock, on other pins what the crossbar allows', () => {
  const c3 = sheets.boards.get('esp32-c3-stick-16')!;
  const spi2 = c3.controllers.get('spi2')!;
  expect([
    controllerHz(spi2, { sck: 'IO6', mosi: 'IO7', cs: 'IO3' }),
    controllerHz(spi2, { sck: 'IO4', miso: 'IO5', mosi: 'IO6', cs: 'IO7' }),
    controllerHz(sheets.boards.get('rp2040-stick-40')!.controllers.get('spi0')!, { sck: 'GP18' }),
  ]).toEqual([80e6, 40e6, 66.5e6]);
  // USB up and seen from the side of the chip, the supplies are at the right.
  const edge = (pin: string) => c3.pins.get(pin)!.header;
  expect([edge('5V'), edge('IO4'), edge('IO5'), edge('IO21')]).toEqual(['right', 'right', 'left', 'left']);
});

test('the card socket of a display counts as soon as one of its lines is wired, and needs its select then', () => {
  const shown = spi('d', 'tft-24-ili9341-spi', { SCK: 'GP18', MOSI: 'GP19', CS: 'GP17' });
  expect(sheetOf(edited(stick(), sheets, ...shown)).rows).toHaveLength(1);
  const open = edited(stick(), sheets, ...shown, wire('d:SD_SCK', 'GP18'), wire('d:SD_MOSI', 'GP19'));
  expectCheck('select-missing', open, sheets, [
    {
      message: 'chip',
      level: 'clash',
      title: 'd: no chip select for its SD card',
      remedies: [expect.stringMatching(/^Connect d SD_CS to GP/) as string],
    },
  ]);
  const { rows } = sheetOf(remedied('select-missing', open, sheets));
  expect(rows.map((row) => [rowId(row), row.select !== undefined])).toEqual([
    ['d', true],
    ['d card', true],
  ]);
});

describe('the sheet of a bus', () => {
  const card = spi('card', 'sd-card-3v3', { CLK: 'GP18', MOSI: 'GP19', MISO: 'GP16', CS: 'GP17', VCC: 'rail 3v3' });
  const picture = spi('pic', 'tft-28-ili9341-spi', { SCK: 'GP18', MOSI: 'GP19', CS: 'GP20' });

  test('each part has its own clock, and what holds it down is named', () => {
    const both = edited(stick(), sheets, ...card, ...picture);
    const { rows, commonMode, cardShares, controllerHz } = sheetOf(both);
    expect(rows.map((row) => [row.head, row.write, row.read?.hz])).toEqual([
      ['card', { hz: 20e6, by: 'wire' }, 20e6],
      ['pic', { hz: 10e6, by: 'part' }, undefined],
    ]);
    expect([commonMode, cardShares, controllerHz]).toEqual([0, 'card', 66.5e6]);
    expect(rows[0]!.held).toBe(true);
    expect(rows[1]!.time!.mostPerSecond).toBeCloseTo(10e6 / (8 * (153_600 + 11)), 6);
    expect(rows[1]!.bySoftware!.mostPerSecond).toBeLessThan(rows[1]!.time!.mostPerSecond);
    const long = edited(both, sheets, { kind: 'bus-settings', segment: 'spi0', settings: { wireCm: 80 } });
    expect(sheetOf(long).rows.map((row) => row.write)).toEqual([
      { hz: 2e6, by: 'wire' },
      { hz: 2e6, by: 'wire' },
    ]);
    const set = edited(both, sheets, { kind: 'bus-settings', segment: 'spi0', settings: { hz: 1e6 } });
    expect(sheetOf(set).rows[1]!.write).toEqual({ hz: 1e6, by: 'set' });
  });

  test('a converter is as fast as its supply lets it', () => {
    const adc = edited(shield(), sheets, ...spi('adc', 'adc-mcp3008', { CLK: 'D13', DIN: 'D11', DOUT: 'D12', CS: 'D10', VCC: 'rail 5v' }));
    // 4.5 V at least: between 1.35 MHz at 2.7 V and 3.6 MHz at 5 V.
    expect(sheetOf(adc).rows[0]!.write.hz).toBeCloseTo(1.35e6 + (2.25e6 * (4.5 - 2.7)) / 2.3, 0);
  });

  test('a chain is one row: n times the bits, one select, and the order of the wire', () => {
    const matrix = (id: string, from: string): Edit[] => spi(id, 'matrix-8x8-max7219', { DIN: from, CLK: 'GP18', CS: 'GP17' });
    const chain = edited(stick(), sheets, ...matrix('b', 'a:DOUT').slice(0, 1), ...matrix('a', 'GP19'), ...matrix('b', 'a:DOUT').slice(1));
    const [row] = sheetOf(chain).rows;
    expect([row!.chain, row!.chainBits, row!.latches]).toEqual([['a', 'b'], 32, true]);
    // Eight rows of 16 bits for each part.
    expect(row!.time!.bits).toBe(2 * 8 * 16);
  });

  test('parts that no mode serves have none in common; a part without a select has none', () => {
    const square = spi('sq', 'tft-13-st7789-spi-nocs', { SCL: 'GP18', SDA: 'GP19' });
    const mixed = sheetOf(edited(stick(), sheets, ...card, ...square));
    expect([mixed.commonMode, mixed.rows.map((row) => row.select?.key)]).toEqual([undefined, ['card:CS', undefined]]);
  });
});
