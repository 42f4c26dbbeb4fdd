import { catalogueFiles, shippedSheets } from '../../tests/catalogue';
import { controllersAt } from '../nets/controllers';
import type { BoardSheet } from './boardSheet';
import type { PartSheet } from './partSheet';
import { readSheet } from './readSheet';
import { PIN_ROLES } from './roles';
import type { Source } from './source';

const sheets = shippedSheets();
const stick = sheets.boards.get('rp2040-stick-40')!;
const shield = sheets.boards.get('atmega328p-5v-shield')!;

test('every file is a sound sheet under its own id', () => {
  for (const [name, document] of catalogueFiles()) {
    expect({ name, ...readSheet(document) }).toMatchObject({ ok: true });
    expect(name).toMatch(new RegExp(`/${(document as { id: string }).id}\\.json$`));
  }
});

test('every group of facts has a source', () => {
  const groups = [...catalogueFiles().values()].flatMap((document) =>
    Object.entries(document as Record<string, unknown>).filter(
      ([, value]) => value !== null && typeof value === 'object' && !Array.isArray(value),
    ),
  );
  expect(groups.length).toBeGreaterThan(50);
  for (const [name, group] of groups)
    expect({ name, source: (group as { source?: unknown }).source }).toEqual({ name, source: expect.anything() });
});

test('what stands for a datasheet names the section that states it; a part with a supply tells its levels, or that they are unknown', () => {
  const { parts, boards } = shippedSheets();
  for (const { sheet } of [...parts.values(), ...boards.values()])
    for (const group of Object.values(sheet as object)) {
      const source = (group as { source?: Source } | null)?.source;
      if (source?.trust === 'datasheet')
        expect([sheet.id, source.document, source.section ?? '']).toEqual([sheet.id, source.document, expect.stringMatching(/./)]);
    }
  const silent = [...parts.values()].filter(
    ({ sheet }) =>
      sheet.supply &&
      !sheet.levels &&
      !sheet.polarity &&
      sheet.unknown.length === 0 &&
      sheet.terminals.list.some(({ role }) => PIN_ROLES[role]?.output || (PIN_ROLES[role]?.input && role !== 'adc.in')),
  );
  // Contacts and LEDs have no levels of their own.
  expect(silent.map(({ sheet }) => sheet.id).sort()).toEqual(['encoder-rotary-switch', 'joystick', 'shifter-mosfet-4']);
});

test('no synonym of a terminal is also the label of another terminal of its part', () => {
  for (const { sheet } of sheets.parts.values()) {
    for (const terminal of sheet.terminals.list) {
      const others = sheet.terminals.list.filter((t) => t !== terminal).map((t) => t.label);
      expect((terminal.also ?? []).filter((label) => others.includes(label))).toEqual([]);
    }
  }
});

describe('RP2040 stick, against the datasheet’s rules', () => {
  const gpio = stick.sheet.pins.list.filter((pin) => pin.port?.startsWith('GPIO')).map((pin) => ({ n: Number(pin.port!.slice(4)), pin }));

  test('all thirty ports are there, 26 of them on headers', () => {
    expect(gpio.map(({ n }) => n).sort((a, b) => a - b)).toEqual(Array.from({ length: 30 }, (_, n) => n));
    expect(stick.ioPins).toHaveLength(26);
    expect(gpio.filter(({ pin }) => !pin.header).map(({ n }) => n)).toEqual([23, 24, 25, 29]);
  });

  test('I2C by n mod 4, SPI by groups of eight, PWM slice (n / 2) mod 8', () => {
    for (const { n, pin } of gpio) {
      expect(pin.functions).toContain(['i2c0.sda', 'i2c0.scl', 'i2c1.sda', 'i2c1.scl'][n % 4]);
      expect(pin.functions).toContain(`spi${Math.floor(n / 8) % 2}.${['miso', 'cs', 'sck', 'mosi'][n % 4]}`);
      expect(pin.pwm!.channel).toBe(`${Math.floor(n / 2) % 8}${n % 2 === 0 ? 'A' : 'B'}`);
    }
  });

  test('UART transmit pins are 0, 12, 16, 28 and 4, 8, 20, 24', () => {
    const tx = (uart: string) =>
      gpio
        .filter(({ pin }) => controllersAt(stick, pin.id, 'uart', 'tx').includes(uart))
        .map(({ n }) => n)
        .sort((a, b) => a - b);
    expect([tx('uart0'), tx('uart1')]).toEqual([
      [0, 12, 16, 28],
      [4, 8, 20, 24],
    ]);
  });

  test('analog inputs are 26 to 29 only', () => {
    expect(gpio.filter(({ pin }) => pin.adc).map(({ n, pin }) => [n, pin.adc!.channel])).toEqual(
      expect.arrayContaining([
        [26, 0],
        [27, 1],
        [28, 2],
        [29, 3],
      ]),
    );
    expect(gpio.filter(({ pin }) => pin.adc)).toHaveLength(4);
  });

  test('grounds are at 3, 8, 13, 18, 23, 28, 33, 38; the supplies at 36, 39, 40', () => {
    const at = (kind: string) =>
      stick.sheet.pins.list
        .filter((pin) => pin.kind === kind)
        .map((pin) => pin.position!)
        .sort((a, b) => a - b);
    expect(at('ground')).toEqual([3, 8, 13, 18, 23, 28, 33, 38]);
    expect(at('supply')).toEqual([36, 39, 40]);
  });
});

describe('ATmega328P shield board, against the datasheet', () => {
  const pin = (id: string) => shield.pins.get(id)!;

  test('ports behind the labels', () => {
    const ports = Object.fromEntries(shield.ioPins.map((p) => [p.id, p.port]));
    const expected = Object.fromEntries([
      ...Array.from({ length: 8 }, (_, n) => [`D${n}`, `PD${n}`]),
      ...Array.from({ length: 6 }, (_, n) => [`D${n + 8}`, `PB${n}`]),
      ...Array.from({ length: 6 }, (_, n) => [`A${n}`, `PC${n}`]),
    ]);
    expect(ports).toEqual(expected);
  });

  test('PWM on six pins, two a timer; own interrupts on D2 and D3 only', () => {
    const timers = shield.ioPins.filter((p) => p.pwm).map((p) => [p.id, p.pwm!.timer, p.pwm!.channel]);
    expect(timers.sort()).toEqual([
      ['D10', 'timer 1', 'OC1B'],
      ['D11', 'timer 2', 'OC2A'],
      ['D3', 'timer 2', 'OC2B'],
      ['D5', 'timer 0', 'OC0B'],
      ['D6', 'timer 0', 'OC0A'],
      ['D9', 'timer 1', 'OC1A'],
    ]);
    expect(
      shield.ioPins
        .filter((p) => p.interrupts?.some((i) => !i.shared))
        .map((p) => p.id)
        .sort(),
    ).toEqual(['D2', 'D3']);
    expect(shield.ioPins.every((p) => p.interrupts?.some((i) => i.shared))).toBe(true);
  });

  test('the second positions of I2C and SPI are the same conductors', () => {
    expect([pin('SDA').sameAs, pin('SCL').sameAs, pin('ISP1').sameAs, pin('ISP3').sameAs, pin('ISP4').sameAs]).toEqual([
      'A4',
      'A5',
      'D12',
      'D13',
      'D11',
    ]);
  });
});

describe('addresses of parts', () => {
  const table = (id: string, device: string) =>
    sheets.parts
      .get(id)!
      .sheet.bus.devices!.find((d) => d.id === device)!
      .addresses.map((a) => a.address)
      .sort((a, b) => a - b);

  test('are those of the datasheets', () => {
    expect(table('oled-096-ssd1306-i2c', 'display')).toEqual([0x3c, 0x3d]);
    expect(table('humidity-sht31', 'sensor')).toEqual([0x44, 0x45]);
    expect(table('clock-ds3231-eeprom', 'clock')).toEqual([0x68]);
    expect(table('clock-ds3231-eeprom', 'eeprom')).toEqual([0x50, 0x51, 0x52, 0x53, 0x54, 0x55, 0x56, 0x57]);
    expect(table('motion-mpu6050', 'motion')).toEqual([0x68, 0x69]);
    expect(table('lcd-2004-pcf8574', 'expander')).toEqual([0x20, 0x21, 0x22, 0x23, 0x24, 0x25, 0x26, 0x27]);
  });
});

describe('a sheet that is wrong', () => {
  /* eslint-disable-next-line @typescript-eslint/no-explicit-any */
  const loose = (sheet: object): Record<string, any> => structuredClone(sheet);
  const board = () => loose(stick.sheet);
  const part = () => loose(sheets.parts.get('motion-mpu6050')!.sheet);
  const faults = (document: unknown) => {
    const result = readSheet(document);
    return result.ok ? [] : result.faults.map((f) => `${f.path}: ${f.fault}`);
  };

  const wrongs: readonly [string, () => unknown, RegExp][] = [
    ['neither board nor part', () => ({ kind: 'shelf' }), /^kind: expected "board" or "part"/],
    ['nothing', () => null, /^kind/],
    ['an id with a path in it', () => ({ ...board(), id: '../x' }), /^id: /],
    ['an unknown key', () => ({ ...part(), price: 3 }), /price/],
    [
      'a prototype key',
      () => JSON.parse(JSON.stringify(part()).replace('"unknown":', '"__proto__":{},"unknown":')) as unknown,
      /__proto__/,
    ],
    [
      'two pins of one id',
      () => {
        const b = board();
        b.pins.list[1].id = 'GP0';
        return b;
      },
      /pins: GP0 appears twice/,
    ],
    [
      'a gap in the positions',
      () => {
        const b = board();
        b.pins.list[0].position = 99;
        return b;
      },
      /positions are not contiguous/,
    ],
    [
      'a function of no controller',
      () => {
        const b = board();
        b.pins.list[0].functions.push('i2c7.sda');
        return b;
      },
      /i2c7\.sda belongs to an undeclared controller/,
    ],
    [
      'a legal set on pins without the function',
      () => {
        const b = structuredClone(shield.sheet) as unknown as BoardSheet & {
          controllers: { list: { legal: { sets: Record<string, string>[] } }[] };
        };
        b.controllers.list[0]!.legal.sets[0]!['sda'] = 'D2';
        return b;
      },
      /D2 does not carry i2c0\.sda/,
    ],
    ['a logic rail that is none', () => ({ ...board(), logicRail: '5v' }), /logicRail/],
    [
      'caution without words',
      () => {
        const b = board();
        delete b.pins.list[0].trouble;
        return b;
      },
      /trouble/,
    ],
    [
      'negative ohms',
      () => {
        const p = part();
        p.module.pullUps[0].ohms = -1;
        return p;
      },
      /ohms/,
    ],
    [
      'a number that is none',
      () => {
        const p = part();
        p.supply.volts.min = NaN;
        return p;
      },
      /supply\.volts\.min/,
    ],
    [
      'minimum above maximum',
      () => {
        const p = part();
        p.supply.volts.min = 9;
        return p;
      },
      /supply\.volts: .*min ≤ typ ≤ max/,
    ],
    [
      'peak below typical',
      () => {
        const p = part();
        p.supply.peakMilliamps = 1;
        return p;
      },
      /peakMilliamps/,
    ],
    [
      'an address of more than seven bits',
      () => {
        const p = part();
        p.bus.devices[0].addresses[0].address = 0x80;
        return p;
      },
      /address/,
    ],
    [
      'a strap that is not a terminal',
      () => {
        const p = part();
        p.bus.straps[0].terminal = 'AD9';
        return p;
      },
      /AD9 is not a terminal/,
    ],
    [
      'a strap table with a hole',
      () => {
        const p = part();
        p.bus.devices[0].addresses.pop();
        return p;
      },
      /2 strap combinations, 1 addresses/,
    ],
    [
      'I2C without a clock line',
      () => {
        const p = part();
        p.terminals.list[2].role = 'gpio.in';
        return p;
      },
      /i2c part without i2c\.scl/,
    ],
    [
      'terminals out of order',
      () => {
        const p = part();
        p.terminals.list.reverse();
        return p;
      },
      /numbers are not/,
    ],
    [
      'a strap on a bus line that the part does not have',
      () => {
        const p = loose(sheets.parts.get('shift-out-74hc595')!.sheet);
        p.terminals.list[0].ties = ['sda'];
        return p;
      },
      /tied to SDA, which the part does not have/,
    ],
    [
      'a further chip with a select that is none',
      () => {
        const p = loose(sheets.parts.get('tft-24-ili9341-touch')!.sheet);
        p.bus.further[0].select = 'T_IRQ';
        return p;
      },
      /bus\.further\.touch: T_IRQ is not a chip select/,
    ],
    [
      'no source',
      () => {
        const p = part();
        delete p.supply.source;
        return p;
      },
      /supply\.source/,
    ],
  ];

  test.each(wrongs)('%s is refused with its place', (_, make, place) => {
    expect(faults(make())).toEqual(expect.arrayContaining([expect.stringMatching(place)]));
  });

  test('the sheets these were made from are not', () => {
    expect([faults(board()), faults(part() as PartSheet)]).toEqual([[], []]);
  });
});
