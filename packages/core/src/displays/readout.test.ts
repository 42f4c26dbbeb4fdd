import fc from 'fast-check';
import { shippedSheets } from '../../tests/catalogue';
import { expectCheck, findingsOf, remedied } from '../../tests/checkHarness';
import { add, edited, shield, stick, wire } from '../../tests/makePlan';
import { runs } from '../../tests/runs';
import type { Edit } from '../plan/edit';
import type { Plan } from '../plan/plan';
import { indexSheets } from '../sheets/sheetIndex';
import { digitCells, SEGMENTS, sevenSegments, starburstCells } from './glyphs';
import { layoutText, roundColumns } from './layout';
import { memoryLedger } from './memory';
import { segmentTable } from './segmentTable';

const sheets = shippedSheets();
const part = (id: string) => sheets.parts.get(id)!.sheet;
const shows = (placement: string, readout: Extract<Edit, { kind: 'readout' }>['readout']): Edit => ({
  kind: 'readout',
  placement,
  readout,
});

describe('memory', () => {
  const grey = edited(shield(), sheets, add('d', 'oled-15-ssd1327-i2c', 'Glass'));

  test('a picture of 128 × 128 with 4 bits each is 8 KiB, more than a board of 2 KiB has', () => {
    expect(memoryLedger(grey, sheets)).toMatchObject({ ramBytes: 2048, usedBytes: (128 * 128 * 4) / 8, leftBytes: 2048 - 250 - 8192 });
    expectCheck('memory-over', grey, sheets, [
      {
        message: 'over',
        level: 'clash',
        title: 'Frame buffers use 8 KiB of 1.8 KiB RAM',
        remedies: ['Use a partial frame buffer for Glass'],
      },
    ]);
    expect(memoryLedger(remedied('memory-over', grey, sheets), sheets)!.usedBytes).toBe(1024);
  });

  test('two plain displays crowd it; colour displays are drawn into unless the plan keeps their picture', () => {
    const two = edited(shield(), sheets, add('a', 'oled-096-ssd1306-i2c'), add('b', 'lcd-84x48-pcd8544'));
    expect(findingsOf(two, sheets).find((f) => f.code === 'memory-over')).toMatchObject({ level: 'risk', message: 'little' });
    const colour = edited(shield(), sheets, add('t', 'tft-18-st7735-spi'));
    expect(memoryLedger(colour, sheets)!.usedBytes).toBe(0);
    const kept = edited(colour, sheets, shows('t', { picture: 'whole' }));
    expect(memoryLedger(kept, sheets)!.usedBytes).toBe(128 * 160 * 2);
    expect(memoryLedger(edited(colour, sheets, shows('t', { picture: 'part' })), sheets)!.usedBytes).toBe(128 * 16 * 2);
    const strip = edited(shield(), sheets, add('s', 'strip-ws2812b'), { kind: 'load', placement: 's', load: { units: 60 } });
    expect(memoryLedger(strip, sheets)!.usedBytes).toBe(180);
  });
});

describe('text on a display', () => {
  test('is laid out on its columns and rows, and what is beyond is cut', () => {
    const lcd = layoutText(part('lcd-1602-pcf8574'), { text: 'Brood 34.5 °C, humid\nroof\nthird' })!;
    expect([lcd.columns, lcd.rows, lcd.lines.map((l) => l.length), lcd.cut, lcd.unknown]).toEqual([16, 2, [16, 4], 4 + 5, []]);
    const large = layoutText(part('oled-096-ssd1306-i2c'), { text: '34.5', scale: 4 })!;
    expect([large.columns, large.rows, large.cut]).toEqual([5, 2, 0]);
    expect(layoutText(part('button-push'), { text: 'x' })).toBeUndefined();
  });

  test('round glass is narrower at its top and bottom, as wide as the chord there', () => {
    const rows = 30;
    const widths = Array.from({ length: rows }, (_, row) => roundColumns(240, 1, row, rows));
    expect(widths).toEqual(widths.toReversed());
    expect(Math.max(...widths)).toBe(Math.floor((2 * Math.sqrt(120 ** 2 - 8 ** 2)) / 6));
    for (const [row, width] of widths.entries()) {
      // Both corners of the row's outer edge lie within the circle.
      const far = Math.max(Math.abs(row * 8 - 120), Math.abs(row * 8 + 8 - 120));
      expect((width * 3) ** 2 + far ** 2).toBeLessThanOrEqual(120 ** 2 + 1e-9);
    }
  });

  test('on round glass a text stands in the middle rows, as wide as they are', () => {
    const round = layoutText(part('tft-128-round-gc9a01'), { text: 'Ferry\nat quay\n12:05', scale: 4 })!;
    expect([round.rows, round.first, round.cut]).toEqual([7, 2, 0]);
    expect(layoutText(part('tft-128-round-gc9a01'), { text: 'x'.repeat(40), scale: 4 })!.lines[0]).toHaveLength(roundColumns(240, 4, 3, 7));
  });

  test('findings say what is cut and what has no form; smaller letters help where they do', () => {
    const plan = edited(stick(), sheets, add('d', 'oled-096-ssd1306-i2c', 'Glass'), shows('d', { text: 'Brood 34.5', scale: 4 }));
    expectCheck('readout-overflow', plan, sheets, [
      { message: 'cut', level: 'hint', title: 'Glass: 5 characters of the text cut off', remedies: ['Use smaller characters'] },
    ]);
    expect(remedied('readout-overflow', plan, sheets).readouts['d']!.scale).toBe(2);
    const digits = edited(stick(), sheets, add('d', 'digits-8-max7219', 'Score'), shows('d', { text: 'WARM 21.5' }));
    expectCheck('readout-glyph', digits, sheets, [{ message: 'unknown', level: 'hint', title: 'Score cannot show W M', remedies: [] }]);
  });

  test('a point goes to the digit before it, and no two to one', () => {
    expect(digitCells('21.5').map((c) => c.segments)).toEqual([0x5b, 0x06 | 0x80, 0x6d]);
    expect(digitCells('1..').map((c) => c.segments)).toEqual([0x06 | 0x80, 0x80]);
    expect(sevenSegments('B')).toBe(sevenSegments('b'));
    for (const letter of 'AEFLPSZ') expect(sevenSegments(letter.toLowerCase())).toBe(sevenSegments(letter));
    expect([sevenSegments('k'), sevenSegments('W')]).toEqual([undefined, undefined]);
    expect(starburstCells('1.5A.').map((c) => c.text)).toEqual(['1.', '5', 'A.']);
  });

  test('a colon belongs to the digit before it: 12:34 is four digits, and is shown where the module has a colon', () => {
    const clock = layoutText(part('digits-4-tm1637'), { text: '12:34' })!;
    expect([clock.cut, clock.unknown, clock.lines[0]!.map((c) => [c.text, c.colon])]).toEqual([
      0,
      [],
      [
        ['1', undefined],
        ['2:', true],
        ['3', undefined],
        ['4', undefined],
      ],
    ]);
    for (const text of ['1:234', '12:3:4', ':123']) expect(layoutText(part('digits-4-tm1637'), { text })!.unknown).toEqual([':']);
    expect(layoutText(part('digits-8-max7219'), { text: '12:34:56' })).toMatchObject({ cut: 0, unknown: [':'] });
  });
});

describe('the table of bare segments', () => {
  const outputs = ['QA', 'QB', 'QC', 'QD', 'QE', 'QF', 'QG', 'QH'];
  const wired = (kind: 'ca' | 'cc', order: readonly string[]): Plan =>
    edited(
      stick(),
      sheets,
      add('d', `seven-segment-1-${kind}`),
      add('r', 'shift-out-74hc595'),
      ...order.map((segment, at) => wire(`d:${segment}`, `r:${outputs[at]}`)),
    );

  test('straight order gives the usual bytes, an anode their complement', () => {
    const straight = segmentTable(wired('cc', SEGMENTS), sheets, 'd')!;
    expect(straight.glyphs.slice(0, 4).map((g) => g.byte)).toEqual([0x3f, 0x06, 0x5b, 0x4f]);
    const anode = segmentTable(wired('ca', SEGMENTS), sheets, 'd')!;
    expect([anode.activeLow, anode.glyphs[0]!.byte]).toEqual([true, 0xc0]);
  });

  test('in any order, sent to the register, exactly the segments of the glyph light', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray([...SEGMENTS], { minLength: 8 }), fc.constantFrom('ca' as const, 'cc' as const), (order, kind) => {
        const table = segmentTable(wired(kind, order), sheets, 'd')!;
        const lit = (byte: number) =>
          SEGMENTS.filter((segment) => {
            const high = ((byte >> order.indexOf(segment)) & 1) === 1;
            return kind === 'ca' ? !high : high;
          });
        for (const { glyph, byte } of table.glyphs)
          expect(lit(byte)).toEqual(SEGMENTS.filter((_, at) => (sevenSegments(glyph)! >> at) & 1));
        for (const { segment, byte } of table.walk) expect(lit(byte)).toEqual([segment]);
      }),
      { numRuns: runs(40) },
    );
  });

  test('there is none while a segment is open, or they are at several parts', () => {
    expect(segmentTable(wired('cc', SEGMENTS.slice(0, 7)), sheets, 'd')).toBeUndefined();
    const split = edited(wired('cc', SEGMENTS), sheets, wire('d:a', 'GP2'));
    expect(segmentTable(split, sheets, 'd')).toBeUndefined();
  });
});

test('larger letters on a display with a font of its own are told to be impossible; its own ones are the nearest', () => {
  const plan = edited(stick(), sheets, add('d', 'lcd-1602-pcf8574', 'Glass'), shows('d', { text: '34.5', scale: 3 }));
  expectCheck('readout-glyph', plan, sheets, [
    { message: 'font', level: 'hint', title: 'Glass has one character size', remedies: ['Use its built-in size'] },
  ]);
  expect(remedied('readout-glyph', plan, sheets).readouts['d']).toEqual({ text: '34.5' });
});

test('characters of one’s own: on a digit they take their segments, in the table of the wiring, too', () => {
  expect(digitCells('M.', { M: [0x15] })).toEqual([{ text: 'M.', shown: true, segments: 0x95 }]);
  const lcd = layoutText(part('lcd-1602-pcf8574'), { text: 'ö', glyphs: { ö: [1, 2, 3, 4, 5, 6, 7, 8] } })!;
  expect(lcd.unknown).toEqual([]);
});

test('a text that runs through is not cut; it takes its own width and the display’s until it is gone', () => {
  const chain = part('matrix-32x8-max7219');
  expect(layoutText(chain, { text: 'Ferry at quay', scroll: true })).toMatchObject({ cut: 0, scroll: { width: 78, steps: 110 } });
  expect(layoutText(chain, { text: 'Five', scroll: true })!.scroll).toBeUndefined();
  expect(layoutText(part('digits-8-max7219'), { text: '1234567890', scroll: true })).toMatchObject({ scroll: { width: 10, steps: 18 } });
});

describe('what selects the digits of bare segments', () => {
  const commons = ['DIG1', 'DIG2', 'DIG3', 'DIG4'];
  /** Four digits with their segments at a register, their commons as given. */
  const digits = (...more: readonly Edit[]) => {
    const outputs = ['QA', 'QB', 'QC', 'QD', 'QE', 'QF', 'QG', 'QH'];
    const bare = edited(stick(), sheets, add('d', 'seven-segment-4-cc'), add('r', 'shift-out-74hc595'));
    const plan = edited(bare, sheets, ...more, ...SEGMENTS.map((segment, at) => wire(`d:${segment}`, `r:${outputs[at]}`)));
    return segmentTable(plan, sheets, 'd')!.digits;
  };

  test('a pin of the board; one that is open or always on is selected by nothing', () => {
    expect(digits(wire('d:DIG1', 'GP5'), wire('d:DIG3', 'GP2'), wire('d:DIG4', 'ground'))).toEqual([
      { digit: 'DIG1', output: 'GP5', index: undefined },
      { digit: 'DIG3', output: 'GP2', index: undefined },
    ]);
  });

  test('an output of a register by its bit, of a decoder by the number that it decodes', () => {
    const register = [add('s', 'shift-out-74hc595'), ...commons.map((common, at) => wire(`d:${common}`, `s:Q${'DAHB'[at]}`))];
    expect(digits(...register).map(({ output, index }) => [output, index])).toEqual([
      ['QD', 3],
      ['QA', 0],
      ['QH', 7],
      ['QB', 1],
    ]);
    const decoder = [add('s', 'decoder-74hc138'), ...commons.map((common, at) => wire(`d:${common}`, `s:Y${'3052'[at]}`))];
    expect(digits(...decoder).map(({ output, index }) => [output, index])).toEqual([
      ['Y3', 3],
      ['Y0', 0],
      ['Y5', 5],
      ['Y2', 2],
    ]);
  });

  test('a digit output of a display driver by its register; what selects no digit has no number', () => {
    const driver = [add('m', 'driver-max7219-dip24'), ...commons.map((common, at) => wire(`d:${common}`, `m:DIG${'6014'[at]}`))];
    expect(digits(...driver).map(({ index }) => index)).toEqual([6, 0, 1, 4]);
    expect(digits(add('m', 'driver-max7219-dip24'), wire('d:DIG2', 'm:ISET'))).toEqual([
      { digit: 'DIG2', output: 'ISET', index: undefined },
    ]);
  });

  test('with segments at pins of the board the bits count in the order of the segments', () => {
    const pins = SEGMENTS.map((segment, at) => wire(`d:${segment}`, `GP${(at * 3 + 2) % 8}`));
    const table = segmentTable(edited(stick(), sheets, add('d', 'seven-segment-1-cc'), ...pins), sheets, 'd')!;
    expect(table.bits.map(({ segment, bit, output }) => [segment, bit, output])).toEqual(
      SEGMENTS.map((segment, at) => [segment, at, `GP${(at * 3 + 2) % 8}`]),
    );
  });
});

test('a text that is empty takes no line, and one with an empty line in it keeps its row', () => {
  const lcd = part('lcd-1602-parallel');
  expect(layoutText(lcd, { text: '' })).toMatchObject({ lines: [], cut: 0, unknown: [] });
  expect(layoutText(lcd, { text: '\nB' })!.lines.map((line) => line.length)).toEqual([0, 1]);
});

test('memory of a display that must be buffered is counted whole however it is drawn', () => {
  const oled = part('oled-096-ssd1306-i2c');
  const own = { ...oled, id: 'own-oled', memory: { ...oled.memory!, required: true } };
  const facts = indexSheets([...[...sheets.versions.values()].map(({ sheet }) => sheet), own]);
  const bytes = (id: string) =>
    memoryLedger(edited(stick(), facts, add('d', id), shows('d', { picture: 'part' })), facts)!.lines.map((line) => line.bytes);
  expect([bytes(oled.id), bytes(own.id)]).toEqual([[oled.memory!.frameBufferBytes / 8], [oled.memory!.frameBufferBytes]]);
});
