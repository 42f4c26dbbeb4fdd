import { shippedSheets } from '../../tests/catalogue';
import { withBoard, withPart, withRail } from '../../tests/facts';
import { add, edited, shield, stick, wire, wired } from '../../tests/makePlan';
import { busUsers } from '../electrics/reports/busInputs';
import { busTime } from '../electrics/formulas/i2cTime';
import { ledReports, loadsOf } from '../electrics/reports/ledReport';
import { railReports } from '../electrics/reports/railReport';
import { levelPairs } from '../electrics/reports/levels';
import { findBuses } from '../nets/buses';
import type { Edit } from '../plan/edit';
import { newPlan, type Plan } from '../plan/plan';
import { flashLedger } from '../displays/flash';
import { memoryLedger } from '../displays/memory';
import { findingsOf } from '../review/review';
import type { BoardSheet } from '../sheets/boardSheet';
import type { PartSheet } from '../sheets/partSheet';
import { sheetsUnder } from '../sheets/conditions';
import type { Sheets } from '../sheets/sheetIndex';

const sheets = shippedSheets();
const STICK = 'rp2040-stick-40';
const SHIELD = 'atmega328p-5v-shield';
const series = (placement: string, terminal: string, ohms: number): Edit => ({ kind: 'series', placement, terminal, ohms });
const supplied = (id: string, rail = '3v3'): Edit[] => [wire(`${id}:VCC`, `rail ${rail}`), wire(`${id}:GND`, 'ground')];
const rate = (placement: string, perSecond: number): Edit => ({ kind: 'rate', placement, perSecond });

/** Level and message of what a check finds, in order. */
const told = (code: string, plan: Plan, facts: Sheets = sheets): readonly string[] =>
  findingsOf(plan, facts).flatMap((finding) => (finding.code === code ? [`${finding.level} ${finding.message}`] : []));

const electrical = (id: string, facts: Partial<BoardSheet['electrical']>): Sheets =>
  withBoard(sheets, id, (board) => ({ ...board, electrical: { ...board.electrical, ...facts } }));
const memory = (facts: Partial<BoardSheet['memory']>): Sheets =>
  withBoard(sheets, SHIELD, (board) => ({ ...board, memory: { ...board.memory, ...facts } }));
const partFacts = (id: string, facts: Partial<PartSheet>): Sheets => withPart(sheets, id, (part) => ({ ...part, ...facts }));

const lamp = edited(stick(), sheets, add('l', 'led-red-5mm'), wire('l:A', 'GP2'), wire('l:K', 'ground'), series('l', 'A', 150));
const digits = edited(
  stick(),
  sheets,
  add('d', 'seven-segment-4-cc'),
  ...['a', 'b', 'c', 'd', 'e', 'f', 'g', 'dp'].flatMap((t, at) => [wire(`d:${t}`, `GP${2 + at}`), series('d', t, 220)]),
  ...[1, 2, 3, 4].map((n) => wire(`d:DIG${n}`, `GP${15 + n}`)),
);
/** Just below and just above a value that a limit is compared with. */
const BELOW = 1 - 1e-6;
const ABOVE = 1 + 1e-6;

describe('currents: at the limit is within it', () => {
  test('drive-over: the worst case above the limit is a warning, the nominal current above it an error', () => {
    const [load] = loadsOf(lamp, sheets);
    const at = (amps: number) => told('drive-over', lamp, electrical(STICK, { pinMilliamps: amps * 1000 }));
    expect(load!.nominalAmps).toBeLessThan(load!.amps);
    expect([at(load!.amps), at(load!.amps * BELOW)]).toEqual([[], ['risk over']]);
    expect([at(load!.nominalAmps), at(load!.nominalAmps * BELOW)]).toEqual([['risk over'], ['clash over']]);
  });

  test('led-over-current: the same with the current of the LED', () => {
    const [{ amps }] = ledReports(lamp, sheets) as [ReturnType<typeof ledReports>[number]];
    const polarity = sheets.parts.get('led-red-5mm')!.sheet.polarity!;
    const at = (limit: number) =>
      told('led-over-current', lamp, partFacts('led-red-5mm', { polarity: { ...polarity, maxMilliamps: limit * 1000 } }));
    expect([at(amps.max), at(amps.max * BELOW)]).toEqual([[], ['risk over']]);
    expect([at(amps.typ!), at(amps.typ! * BELOW)]).toEqual([['risk over'], ['clash over']]);
  });

  test('port-current-over: the sum of all pins, and that of a port by its direction', () => {
    const amps = loadsOf(lamp, sheets)[0]!.amps;
    const chip = (limit: number) => told('port-current-over', lamp, electrical(STICK, { totalMilliamps: limit * 1000 }));
    expect([chip(amps * ABOVE), chip(amps * BELOW)]).toEqual([[], ['risk chip']]);
    const five = edited(shield(), sheets, add('l', 'led-red-5mm'), wire('l:A', 'D2'), wire('l:K', 'ground'), series('l', 'A', 330));
    const most = loadsOf(five, sheets)[0]!.amps * 1000;
    const port = (sinkMilliamps: number, sourceMilliamps: number | undefined) =>
      told('port-current-over', five, electrical(SHIELD, { portSums: [{ ports: 'PD0-PD4', sinkMilliamps, sourceMilliamps }] } as never));
    expect([port(0.1, most * ABOVE), port(0.1, most * BELOW), port(0.1, undefined)]).toEqual([[], ['risk port'], []]);
  });

  test('package-current-over: the sum of the outputs, and a single one', () => {
    const register = edited(
      digits,
      sheets,
      add('r', 'shift-out-74hc595'),
      ...supplied('r'),
      ...['a', 'b', 'c'].map((t, at) => wire(`d:${t}`, `r:Q${'ABC'[at]}`)),
    );
    const loads = loadsOf(register, sheets).filter(({ driver }) => driver.by === 'part');
    const [sum, most] = [loads.reduce((all, { amps }) => all + amps, 0), Math.max(...loads.map(({ amps }) => amps))];
    const drive = sheets.parts.get('shift-out-74hc595')!.sheet.drive!;
    const at = (totalAmps: number, amps: number) =>
      told(
        'package-current-over',
        register,
        partFacts('shift-out-74hc595', { drive: { ...drive, totalMilliamps: totalAmps * 1000, milliamps: amps * 1000 } }),
      );
    expect(loads).toHaveLength(3);
    expect([at(sum, most), at(sum * BELOW, most), at(sum, most * BELOW)]).toEqual([[], ['clash all'], ['clash one']]);
  });

  test('digit-driver-missing: all segments at the pin of their digit', () => {
    const amps = ledReports(digits, sheets).reduce((sum, one) => sum + one.amps.max, 0);
    const at = (limit: number) => told('digit-driver-missing', digits, electrical(STICK, { pinMilliamps: limit * 1000 }));
    expect([at(amps * ABOVE), at(amps * BELOW)]).toEqual([[], ['clash bare']]);
  });

  test('led-dim: from half a milliampere in the worst case an LED is seen; without current it is dark', () => {
    const polarity = sheets.parts.get('led-red-5mm')!.sheet.polarity!;
    const at = (min: number, typ: number, max: number) =>
      told('led-dim', lamp, partFacts('led-red-5mm', { polarity: { ...polarity, forwardVolts: { min, typ, max } } }));
    // The supply at its lowest, and what the pin and the resistor (5 % above its value) take of it at 0.5 mA.
    const { supply, driveOhms } = { supply: 3.2, driveOhms: 170 };
    const worst = supply - 0.5e-3 * (150 * 1.05 + driveOhms);
    const typical = 3.3 - 0.5e-3 * (150 + driveOhms / 2);
    expect(ledReports(lamp, sheets)[0]!.supply).toMatchObject({ min: 3.2, typ: 3.3 });
    expect([at(1.7, 2, worst - 1e-4), at(1.7, 2, worst + 1e-4)]).toEqual([[], ['hint worst']]);
    expect([at(1.7, typical - 1e-3, 3.3), at(1.7, typical + 1e-3, 3.3)]).toEqual([['hint worst'], ['hint dim']]);
    expect([at(1.7, 3.3 - 1e-4, 3.4), at(1.7, 3.3, 3.4)]).toEqual([['hint dim'], ['clash dark']]);
  });

  test('led-shared-resistor: LEDs that are more than 0.4 V apart are of different types', () => {
    const two = edited(lamp, sheets, add('m', 'led-green-5mm'), wire('m:A', 'l:A'), wire('m:K', 'ground'));
    const red = sheets.parts.get('led-red-5mm')!.sheet.polarity!.forwardVolts.typ!;
    const polarity = sheets.parts.get('led-green-5mm')!.sheet.polarity!;
    const at = (apart: number) =>
      told(
        'led-shared-resistor',
        two,
        partFacts('led-green-5mm', { polarity: { ...polarity, forwardVolts: { min: 1.8, typ: red + apart, max: 2.8 } } }),
      );
    expect([at(0.4 - 1e-9), at(0.4 + 1e-9)]).toEqual([['risk uneven'], ['clash dark']]);
  });
});

describe('supplies', () => {
  const plan = edited(stick(), sheets, add('o', 'oled-15-ssd1327-i2c'), ...supplied('o'));
  const { typicalMilliamps, peakMilliamps } = railReports(plan, sheets).find(({ rail }) => rail.id === '3v3')!;
  const at = (budgetMilliamps: number) => told('supply-over', plan, withRail(sheets, STICK, '3v3', { budgetMilliamps }));

  test('supply-over: the peak is a note to 110 %, then a warning; the average a warning to 125 %, then an error', () => {
    expect(peakMilliamps).toBeGreaterThan(1.25 * typicalMilliamps);
    expect([at(peakMilliamps), at(peakMilliamps * BELOW)]).toEqual([[], ['hint peak']]);
    expect([at((peakMilliamps / 1.1) * ABOVE), at((peakMilliamps / 1.1) * BELOW)]).toEqual([['hint peak'], ['risk peak']]);
    expect([at(typicalMilliamps), at(typicalMilliamps * BELOW)]).toEqual([['risk peak'], ['risk average']]);
    expect([at((typicalMilliamps / 1.25) * ABOVE), at((typicalMilliamps / 1.25) * BELOW)]).toEqual([['risk average'], ['clash average']]);
  });

  test('regulator-hot: above 85 K', () => {
    const board = 'esp32-c3-stick-16';
    const hot = edited(newPlan('p', 'P', { id: board, version: 1 }), sheets, add('o', 'oled-15-ssd1351-spi'), ...supplied('o'));
    const { regulator } = sheets.boards.get(board)!.sheet.rails.list.find(({ id }) => id === '3v3')!;
    const now = railReports(hot, sheets).find(({ rail }) => rail.id === '3v3')!.regulator!;
    const kelvin = (value: number) =>
      told('regulator-hot', hot, withRail(sheets, board, '3v3', { regulator: { ...regulator!, kelvinPerWatt: value / now.watts } }));
    expect([kelvin(85 * BELOW), kelvin(85 * ABOVE)]).toEqual([[], ['risk hot']]);
  });
});

describe('memory', () => {
  const glass = edited(shield(), sheets, add('d', 'oled-096-ssd1306-i2c'), {
    kind: 'readout',
    placement: 'd',
    readout: { text: 'x', pictures: [{ name: 'p', width: 200, height: 120, bytes: 3000 }] },
  });
  const ram = memoryLedger(glass, sheets)!;
  const flash = flashLedger(glass, sheets)!;

  test('memory-over: to two thirds of what is left there is room for the program', () => {
    const at = (ramBytes: number) => told('memory-over', glass, memory({ ramBytes: ram.runtimeBytes + ramBytes }));
    expect([at(1.5 * ram.usedBytes), at(1.5 * ram.usedBytes - 1)]).toEqual([[], ['risk little']]);
    expect([at(ram.usedBytes), at(ram.usedBytes - 1)]).toEqual([['risk little'], ['clash over']]);
  });

  test('flash-over: the same with pictures and fonts', () => {
    const at = (flashBytes: number) => told('flash-over', glass, memory({ flashBytes: flash.runtimeBytes + flashBytes }));
    expect([at(Math.ceil(1.5 * flash.usedBytes)), at(Math.ceil(1.5 * flash.usedBytes) - 1)]).toEqual([[], ['risk little']]);
    expect([at(flash.usedBytes), at(flash.usedBytes - 1)]).toEqual([['risk little'], ['clash over']]);
  });
});

describe('buses', () => {
  const member = (id: string, sheet: string): Edit[] => [add(id, sheet), wire(`${id}:SDA`, 'GP4'), wire(`${id}:SCL`, 'GP5')];
  const settings = (own: Extract<Edit, { kind: 'bus-settings' }>['settings']): Edit => ({
    kind: 'bus-settings',
    segment: 'i2c0',
    settings: own,
  });
  const glass = edited(stick(), sheets, ...member('o', 'oled-096-ssd1306-i2c'), settings({ hz: 100_000, addedOhms: 4700 }));
  const seconds = (plan: Plan, hz: number) =>
    busTime(hz, busUsers(plan, sheets, findBuses(plan, sheets)[0]!).users).users.map(({ alonePerSecond }) => 1 / alonePerSecond);

  test('bus-overloaded: busy above 80 %, overloaded above 100 %', () => {
    const [each] = seconds(glass, 100_000);
    const at = (share: number) => told('bus-overloaded', edited(glass, sheets, rate('o', share / each!)));
    expect([at(0.8 * BELOW), at(0.8 * ABOVE), at(1 * BELOW), at(1 * ABOVE)]).toEqual([[], ['hint busy'], ['hint busy'], ['risk over']]);
  });

  test('frame-rate-low: a picture that takes an eighth of a second', () => {
    const [each] = seconds(glass, 100_000);
    // The clock at which the display alone could be sent eight times a second.
    const hz = 8 * each! * 100_000;
    const at = (clock: number) => told('frame-rate-low', edited(glass, sheets, settings({ hz: clock, addedOhms: 4700 })));
    expect([at(Math.ceil(hz)), at(Math.floor(hz * 0.999))]).toEqual([[], ['hint slow']]);
  });

  test('capacitance-over: 400 pF at 400 kHz, measured', () => {
    const at = (picofarads: number) => told('capacitance-over', edited(glass, sheets, settings({ hz: 400_000, picofarads })));
    expect([at(400), at(400.1)]).toEqual([[], ['risk measured']]);
  });

  test('pull-ups: the rise time of the mode and the current that the weakest device sinks, with resistors of 5 %', () => {
    const bare = edited(glass, sheets, { kind: 'cut-pull-ups', placement: 'o', cut: true });
    const at = (code: string, hz: number, addedOhms: number) =>
      told(code, edited(bare, sheets, settings({ hz, addedOhms, picofarads: 100 })));
    // UM10204: 1000 ns at 100 kHz and 300 ns at 400 kHz, from 0.3 to 0.7 VDD, for R · 1.05 and 100 pF.
    for (const [hz, seconds] of [
      [100_000, 1000e-9],
      [400_000, 300e-9],
    ] as const) {
      const ohms = seconds / (Math.log(7 / 3) * 100e-12) / 1.05;
      expect([hz, at('pullup-too-weak', hz, ohms * BELOW), at('pullup-too-weak', hz, ohms * ABOVE)]).toEqual([hz, [], ['risk weak']]);
    }
    // The OLED sinks 3 mA at 0.4 V (UM10204): from 3.4 V at most, through R · 0.95 and the 50 kΩ in the pins.
    const least = (3.4 - 0.4) / (3e-3 - (3.4 - 0.4) / 50e3) / 0.95;
    expect([at('pullup-too-strong', 100_000, least * ABOVE), at('pullup-too-strong', 100_000, least * BELOW)]).toEqual([
      [],
      ['hint strong'],
    ]);
  });

  test('bus-mixed-modes: from half of the time on, a part that is half as fast as the others holds them back', () => {
    const both = edited(glass, sheets, ...member('l', 'lcd-2004-pcf8574'), settings({ addedOhms: 2200 }));
    const own = sheets.parts.get('lcd-2004-pcf8574')!.sheet.bus;
    const at = (share: number, maxHz: number) => {
      const facts = partFacts('lcd-2004-pcf8574', { bus: { ...own, devices: own.devices!.map((chip) => ({ ...chip, maxHz })) } });
      const bus = findBuses(both, facts)[0]!;
      const { users } = busTime(maxHz, busUsers(edited(both, facts, rate('o', 1), rate('l', 1)), facts, bus).users);
      const [glassShare, textShare] = ['o', 'l'].map((id) => users.find((one) => one.id === id)!.share);
      return told('bus-mixed-modes', edited(both, facts, rate('o', (share - textShare!) / glassShare!), rate('l', 1)), facts);
    };
    expect([at(0.5 * BELOW, 100_000), at(0.5 * ABOVE, 100_000)]).toEqual([[], ['hint held']]);
    expect([at(0.6, 200_000), at(0.6, 200_001)]).toEqual([['hint held'], []]);
  });

  test('refresh-low: below 70 Hz', () => {
    expect([
      told('refresh-low', edited(digits, sheets, rate('d', 70))),
      told('refresh-low', edited(digits, sheets, rate('d', 69))),
    ]).toEqual([[], ['hint flickers']]);
  });
});

describe('levels: volts on either side of a threshold', () => {
  const MATRIX = 'matrix-8x8-max7219';
  const matrix = edited(stick(), sheets, ...wired('m', MATRIX, { VCC: 'rail vbus', GND: 'ground', DIN: 'GP3', CS: 'GP5', CLK: 'GP2' }));
  const { levels } = sheets.parts.get(MATRIX)!.sheet;
  const of = (condition: 'extreme' | 'usual' | 'nominal') =>
    levelPairs(matrix, condition === 'extreme' ? sheets : sheetsUnder(sheets, condition)).find(({ key }) => key === 'm:DIN')!;
  const at = (vih: number, vil: number) =>
    told('level-no-margin', matrix, partFacts(MATRIX, { levels: { ...levels!, vihMin: { volts: vih }, vilMax: { volts: vil } } }));
  const TINY = 1e-6;

  test('a high level: thin below a tenth of the supply, a note at the extremes, a warning at usual tolerances, an error below the middle', () => {
    const [extreme, usual, nominal] = [of('extreme').highVolts, of('usual').highVolts, of('nominal').highVolts];
    expect([extreme < usual, usual < nominal]).toEqual([true, true]);
    // The supply of the part is 5 V: a tenth is half a volt.
    expect([at(extreme - 0.5 - TINY, 0.8), at(extreme - 0.5 + TINY, 0.8)]).toEqual([[], ['hint thin-high-to-part']]);
    expect([at(extreme, 0.8), at(extreme + TINY, 0.8)]).toEqual([['hint thin-high-to-part'], ['hint high-to-part']]);
    expect([at(usual, 0.8), at(usual + TINY, 0.8)]).toEqual([['hint high-to-part'], ['risk high-to-part']]);
    expect([at(2 * nominal - 0.8 - TINY, 0.8), at(2 * nominal - 0.8 + TINY, 0.8)]).toEqual([['risk high-to-part'], ['clash high-to-part']]);
  });

  test('a low level: the same from the other side', () => {
    const { lowVolts } = of('extreme');
    expect(lowVolts).toBeCloseTo((0.5 / 4e-3) * 100e-6, 12);
    expect([at(2.4, lowVolts + 0.5 + TINY), at(2.4, lowVolts + 0.5 - TINY)]).toEqual([[], ['hint thin-low-to-part']]);
    expect([at(2.4, lowVolts), at(2.4, lowVolts - TINY)]).toEqual([['hint thin-low-to-part'], ['risk low-to-part']]);
  });

  test('levels of a part at the board’s inputs: VOH against VIH, VOL against VIL', () => {
    const ECHO = 'distance-ultrasonic-3v3';
    const plan = edited(stick(), sheets, ...wired('e', ECHO, { VCC: 'rail 3v3', GND: 'ground', TRIG: 'GP2', ECHO: 'GP3' }));
    const own = sheets.parts.get(ECHO)!.sheet.levels;
    const pair = levelPairs(plan, sheets).find(({ key, way }) => key === 'e:ECHO' && way === 'to-board')!;
    const out = (high: number, low: number) =>
      told(
        'level-no-margin',
        plan,
        partFacts(ECHO, {
          levels: { ...own!, vohMin: { volts: high, atMilliamps: 0.1 }, volMax: { volts: low, atMilliamps: 0.1 } },
        }),
      );
    expect([pair.vihVolts, pair.vilVolts]).toEqual([2, 0.8]);
    // VOH is stated at the nominal supply: at its minimum of 3.2 V it is 0.1 V less.
    expect([out(2.1, 0.1), out(2.1 - TINY, 0.1)]).toEqual([[], ['hint high-to-board']]);
    expect([out(3.2, 0.8), out(3.2, 0.8 + TINY)]).toEqual([[], ['risk low-to-board']]);
    expect([out(3.2, 1.4 - TINY), out(3.2, 1.4 + TINY)]).toEqual([['risk low-to-board'], ['clash low-to-board']]);
  });
});

test('address-reserved: 0x08 to 0x77 are free to use; the ranges on either side are named by what they are kept for', () => {
  const GAS = 'air-sgp30';
  const { bus } = sheets.parts.get(GAS)!.sheet;
  const plan = edited(stick(), sheets, add('g', GAS), wire('g:SDA', 'GP4'), wire('g:SCL', 'GP5'));
  const at = (address: number) => {
    const facts = partFacts(GAS, {
      bus: { ...bus, devices: bus.devices!.map((chip) => ({ ...chip, addresses: [{ address, straps: {} }] })) },
    });
    return findingsOf(plan, facts).flatMap(({ code, data }) =>
      code === 'address-reserved' && data['purpose']?.is === 'words' ? [data['purpose'].text] : [],
    );
  };
  expect([at(0x07), at(0x08), at(0x77)]).toEqual([['general call, START byte, CBUS and high-speed mode'], [], []]);
  expect([at(0x78), at(0x7b)]).toEqual([['the first byte of 10-bit addresses'], ['the first byte of 10-bit addresses']]);
  expect(at(0x7c)).toEqual(['the device ID']);
});

describe('supply-wrong: the range of a part against its rail, at its nominal voltage, its usual tolerance and its extremes', () => {
  const OLED = 'oled-096-ssd1306-i2c';
  const plan = edited(stick(), sheets, add('o', OLED), ...supplied('o'));
  const supply = sheets.parts.get(OLED)!.sheet.supply!;
  const rail = sheets.boards.get(STICK)!.sheet.rails.list.find(({ id }) => id === '3v3')!;
  const at = (min: number, max: number, absoluteMaxVolts?: number) => {
    const { absoluteMaxVolts: _, ...rest } = supply;
    const facts = { ...rest, volts: { min, max }, ...(absoluteMaxVolts === undefined ? {} : { absoluteMaxVolts }) };
    return told('supply-wrong', plan, partFacts(OLED, { supply: facts }));
  };
  const TINY = 1e-6;

  test('too high: a note at the extremes, a warning at the nominal voltage, an error 3 % above it or above the absolute maximum', () => {
    const [most, usual] = [rail.volts.max, rail.usual!.max];
    expect([most, usual]).toEqual([3.4, 3.37]);
    expect([at(1, most), at(1, most - TINY)]).toEqual([[], ['hint above-range-only']]);
    expect([at(1, 3.3), at(1, 3.3 - TINY)]).toEqual([['hint above-range-only'], ['risk above-range-only']]);
    expect([at(1, usual / 1.03 + TINY), at(1, usual / 1.03 - TINY)]).toEqual([['risk above-range-only'], ['clash too-high']]);
    expect([at(1, 3, most), at(1, 3, most - TINY)]).toEqual([['risk above-range'], ['risk too-high']]);
    expect([at(1, 3, usual), at(1, 3, usual - TINY)]).toEqual([['risk too-high'], ['clash too-high']]);
  });

  test('too low: a note at the extremes, a warning at the nominal voltage, an error 5 % below the range', () => {
    const least = rail.volts.min;
    expect(least).toBe(3.2);
    expect([at(least, 5), at(least + TINY, 5)]).toEqual([[], ['hint sags-low']]);
    expect([at(3.3, 5), at(3.3 + TINY, 5)]).toEqual([['hint sags-low'], ['risk sags-low']]);
    expect([at(3.3 / 0.95 - TINY, 5), at(3.3 / 0.95 + TINY, 5)]).toEqual([['risk sags-low'], ['clash too-low']]);
  });
});

test('bus-too-fast: a clock that is set above what a device follows', () => {
  const glass = edited(stick(), sheets, ...wired('o', 'oled-096-ssd1306-i2c', { SDA: 'GP4', SCL: 'GP5' }));
  const at = (hz: number) =>
    told('bus-too-fast', edited(glass, sheets, { kind: 'bus-settings', segment: 'i2c0', settings: { hz, addedOhms: 2200 } }));
  expect([at(400_000), at(400_001)]).toEqual([[], ['risk one']]);
});

test('level-damage: the highest level of a part against what the board’s inputs stand above their supply', () => {
  const plan = edited(
    stick(),
    sheets,
    ...wired('e', 'distance-ultrasonic-3v3', { VCC: 'rail vbus', GND: 'ground', TRIG: 'GP2', ECHO: 'GP3' }),
  );
  // VBUS reaches 5.25 V while the pins are fed with 3.2 V; 5.25 V in usual operation while they have 3.23 V.
  const at = (volts: number) => told('level-damage', plan, electrical(STICK, { inputMaxAboveSupply: volts }));
  const [extreme, usual] = [5.25 - 3.2, 5.25 - 3.23];
  expect([at(extreme + 1e-6), at(extreme - 1e-6)]).toEqual([[], ['risk to-board']]);
  expect([at(usual + 1e-6), at(usual - 1e-6)]).toEqual([['risk to-board'], ['clash to-board']]);
});

test('shifter-too-slow: a limit below a quarter of what the display follows is told', () => {
  const SHIFTER = 'shifter-mosfet-4';
  const plan = edited(
    stick(),
    sheets,
    ...wired('x', SHIFTER, { LV: 'rail 3v3', HV: 'rail vbus', GND: 'ground', LV1: 'GP19', LV2: 'GP18', LV3: 'GP17' }),
    ...wired('m', 'matrix-8x8-max7219', { VCC: 'rail vbus', GND: 'ground', DIN: 'x:HV1', CLK: 'x:HV2', CS: 'x:HV3' }),
  );
  const { bus } = sheets.parts.get(SHIFTER)!.sheet;
  const at = (hz: number) => told('shifter-too-slow', plan, partFacts(SHIFTER, { bus: { ...bus, maxWriteHz: hz, maxReadHz: hz } }));
  // The MAX7219 is clocked at up to 10 MHz.
  expect([at(2_500_000), at(2_500_001)]).toEqual([['hint holds'], []]);
});
