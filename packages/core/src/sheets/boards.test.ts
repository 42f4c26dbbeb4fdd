import { shippedSheets } from '../../tests/catalogue';
import { findingsOf } from '../../tests/checkHarness';
import { add, edited, stick } from '../../tests/makePlan';
import { proposeWires } from '../assign/proposeWires';
import { railsFor } from '../assign/fit/railFit';
import { pinFit } from '../assign/fit/pinFit';
import { pinSetsOf } from '../assign/fit/pinSets';
import { isLegalSet } from '../nets/controllers';
import { applyEdits } from '../plan/applyEdits';
import { startPlan } from '../plan/startPlan';
import { buildList } from '../outputs/buildList';
import { reviewPlan } from '../review/review';
import { boardFaults } from './sheetFaults';

/** Rules of the datasheets that are often got wrong, board by board, written apart from the sheets. */
const sheets = shippedSheets();
const board = (id: string) => sheets.boards.get(id)!;
const byPort = (id: string, port: string) => board(id).sheet.pins.list.find((p) => p.port === port && !p.sameAs)!;
const duty = (id: string, kind: string) =>
  board(id)
    .sheet.pins.list.filter((p) => p.duties?.some((d) => d.duty === kind))
    .map((p) => p.port!)
    .sort((a, b) => a.localeCompare(b, 'en', { numeric: true }));
const reaches = (id: string, port: string) => board(id).pins.get(byPort(id, port).id)!.functions ?? [];

test('the catalogue holds the boards and parts that it promises', () => {
  expect(sheets.boards.size).toBeGreaterThanOrEqual(21);
  expect(sheets.parts.size).toBeGreaterThanOrEqual(110);
});

test('every pin is drawn once: labels of a header’s positions are all there, and no two conductors share an id', () => {
  for (const { sheet } of sheets.boards.values())
    for (const header of sheet.headers.list)
      expect({ id: sheet.id, header: header.id, pins: sheet.pins.list.filter((p) => p.header === header.id).length }).not.toMatchObject({
        pins: 0,
      });
});

test('every board offers ground, its logic rail, and a legal set of each of its controllers', () => {
  for (const b of sheets.boards.values()) {
    expect(b.sheet.pins.list.some((p) => p.kind === 'ground')).toBe(true);
    expect(b.sheet.pins.list.some((p) => p.kind === 'supply' && p.rail === b.sheet.logicRail)).toBe(true);
    for (const kind of ['i2c', 'spi'] as const)
      for (const set of pinSetsOf(b, kind)) {
        expect({ board: b.sheet.id, legal: isLegalSet(b, b.controllers.get(set.controller)!, set.pins) }).toMatchObject({ legal: true });
        expect(new Set(Object.values(set.pins)).size).toBe(Object.keys(set.pins).length);
      }
  }
});

describe('ESP32', () => {
  const id = 'esp32-stick-38';
  test('boot pins 0, 2, 5, 12, 15; flash 6 to 11; 34 to 39 only inputs without pulls', () => {
    expect(duty(id, 'boot')).toEqual(['GPIO0', 'GPIO2', 'GPIO5', 'GPIO12', 'GPIO15']);
    expect(byPort(id, 'GPIO12').duties![0]!.level).toBe('low');
    expect(duty(id, 'flash')).toEqual(['GPIO6', 'GPIO7', 'GPIO8', 'GPIO9', 'GPIO10', 'GPIO11']);
    for (const n of [34, 35, 36, 39])
      expect(byPort(id, `GPIO${n}`)).toMatchObject({ io: 'in', limits: { noPullUp: true, noPullDown: true } });
  });
  test('ADC2 is on the ten pins that the radio blocks', () => {
    const adc2 = board(id).sheet.pins.list.filter((p) => p.adc?.unit === 'adc2');
    expect(adc2.map((p) => Number(p.port!.slice(4))).sort((a, b) => a - b)).toEqual([0, 2, 4, 12, 13, 14, 15, 25, 26, 27]);
  });
  test('any pin is any line, but an input-only pin drives none', () => {
    expect(reaches(id, 'GPIO32')).toEqual(expect.arrayContaining(['i2c0.sda', 'spi2.sck', 'uart1.tx']));
    expect(reaches(id, 'GPIO34')).toEqual(expect.arrayContaining(['spi2.miso', 'uart1.rx']));
    expect(reaches(id, 'GPIO34').filter((f) => /sda|scl|sck|mosi|tx/.test(f))).toEqual([]);
    expect(reaches(id, 'GPIO6')).toEqual([]);
  });
  test('one pin cannot be both lines of a bus', () => {
    const b = board(id);
    expect(pinSetsOf(b, 'i2c').every((set) => set.pins['sda'] !== set.pins['scl'])).toBe(true);
    expect(pinSetsOf(b, 'i2c')[0]!.pins).toEqual({ sda: byPort(id, 'GPIO21').id, scl: byPort(id, 'GPIO22').id });
  });
});

test('boot pins of the S3, the C3 and the ESP8266', () => {
  expect(duty('esp32-s3-stick-44', 'boot')).toEqual(['GPIO0', 'GPIO3', 'GPIO45', 'GPIO46']);
  expect(duty('esp32-c3-stick-16', 'boot')).toEqual(['GPIO2', 'GPIO8', 'GPIO9']);
  expect(duty('esp8266-stick-30', 'boot')).toEqual(['GPIO0', 'GPIO2', 'GPIO15']);
  expect(byPort('esp8266-stick-30', 'GPIO15').duties!.find((d) => d.duty === 'boot')!.level).toBe('low');
});

test('ESP8266: GPIO16 has no interrupt, PWM or open drain; its I2C is software and avoids it', () => {
  const pin = byPort('esp8266-stick-30', 'GPIO16');
  expect([pin.interrupts, pin.pwm, pin.limits?.noOpenDrain]).toEqual([undefined, undefined, true]);
  expect(board('esp8266-stick-30').controllers.get('i2c0')!.software).toBe(true);
  expect(reaches('esp8266-stick-30', 'GPIO16')).toEqual([]);
});

test('the ATmega328P stick adds two pins that are analog and nothing else', () => {
  const b = board('atmega328p-5v-stick-30');
  expect(b.ioPins).toHaveLength(22);
  const button = sheets.parts.get('button-push')!.terminals.get('C1')!;
  const wiper = sheets.parts.get('potentiometer')!.terminals.get('WIPER')!;
  for (const pin of ['A6', 'A7']) {
    expect(pinFit(b, pin, button)).toEqual({ verdict: 'cannot', reason: 'analog-only' });
    expect(pinFit(b, pin, wiper)).toEqual({ verdict: 'can' });
  }
});

test('ATmega2560: six own interrupts, 15 PWM pins, SPI on 50 to 53, 16 analog inputs', () => {
  const b = board('atmega2560-5v-shield');
  const own = b.ioPins.filter((p) => p.interrupts?.some((i) => !i.shared)).map((p) => p.label);
  expect(own.sort()).toEqual(['D18', 'D19', 'D2', 'D20', 'D21', 'D3']);
  expect(b.ioPins.filter((p) => p.pwm)).toHaveLength(15);
  expect(pinSetsOf(b, 'spi')[0]!.pins).toEqual({ sck: 'D52', miso: 'D50', mosi: 'D51', cs: 'D53' });
  expect(b.ioPins.filter((p) => p.adc)).toHaveLength(16);
  expect([b.pins.get('SDA')!.sameAs, b.pins.get('SCL')!.sameAs]).toEqual(['D20', 'D21']);
});

test('ATmega32A: JTAG on PC2 to PC5, on from the factory; TWI on PC0 and PC1', () => {
  expect(duty('atmega32a-5v-dip-40', 'debug')).toEqual(['PC2', 'PC3', 'PC4', 'PC5']);
  expect(pinSetsOf(board('atmega32a-5v-dip-40'), 'i2c')).toMatchObject([{ pins: { sda: 'PC1', scl: 'PC0' } }]);
  expect(byPort('atmega32a-5v-dip-40', 'PA0').position).toBe(40);
});

test('ATmega32U4: TWI shares its pins with interrupts 0 and 1; SPI only on its own header', () => {
  const b = board('atmega32u4-5v-shield');
  expect([byPort(b.sheet.id, 'PD0'), byPort(b.sheet.id, 'PD1')].map((p) => [p.interrupts![0]!.line, p.functions![0]])).toEqual([
    ['INT0', 'i2c0.scl'],
    ['INT1', 'i2c0.sda'],
  ]);
  for (const port of ['PB1', 'PB2', 'PB3']) expect(byPort(b.sheet.id, port).header).toBe('isp');
});

test('RP2350 and the RP2040 stamp keep the RP2040’s pin rules', () => {
  for (const id of ['rp2350-stick-40', 'rp2040-stamp-14'])
    for (const pin of board(id).sheet.pins.list.filter((p) => p.port?.startsWith('GPIO'))) {
      const n = Number(pin.port!.slice(4));
      expect(pin.functions).toContain(['i2c0.sda', 'i2c0.scl', 'i2c1.sda', 'i2c1.scl'][n % 4]);
      expect(pin.pwm!.timer).toBe(`slice ${Math.floor(n / 2) % 8}`);
    }
});

test('STM32: interrupt line k is shared by pin k of every port; PC13 to PC15 are weak', () => {
  for (const id of ['stm32f103-stick-40', 'stm32f411-shield-64', 'stm32f446-shield-64']) {
    for (const pin of board(id).ioPins) expect(pin.interrupts![0]!.line).toBe(`EXTI${pin.port!.slice(2)}`);
    for (const port of ['PC13', 'PC14', 'PC15']) expect(byPort(id, port).limits!.milliamps).toBe(3);
  }
});

test('STM32F103: the remap is all or nothing; PB5 and the analog pins are not 5 V tolerant', () => {
  const b = board('stm32f103-stick-40');
  const pin = (port: string) => byPort(b.sheet.id, port).id;
  expect(isLegalSet(b, b.controllers.get('i2c1')!, { sda: pin('PB9'), scl: pin('PB8') })).toBe(true);
  expect(isLegalSet(b, b.controllers.get('i2c1')!, { sda: pin('PB7'), scl: pin('PB8') })).toBe(false);
  for (const port of ['PB5', 'PA0', 'PA7', 'PB0', 'PB1']) expect(byPort(b.sheet.id, port).limits?.tolerantVolts).toBeUndefined();
  expect(byPort(b.sheet.id, 'PB6').limits!.tolerantVolts).toBe(5.5);
});

test('STM32F4 64-pin boards show both names; the shield’s I2C is PB9 and PB8', () => {
  for (const id of ['stm32f411-shield-64', 'stm32f446-shield-64']) {
    expect([byPort(id, 'PB9').label, byPort(id, 'PB8').label]).toEqual(['D14', 'D15']);
    expect(reaches(id, 'PB9')).toContain('i2c1.sda');
    expect(reaches(id, 'PB8')).toContain('i2c1.scl');
    expect(
      board(id)
        .positions.get('D13')!
        .map((p) => p.header),
    ).toEqual(['high', 'CN10']);
  }
});

test('KL25Z: interrupts on ports A and D only', () => {
  for (const pin of board('kl25z-shield').ioPins) expect(pin.interrupts !== undefined).toBe(/^PT[AD]/.test(pin.port!));
});

test('single-board computer: fixed pull-ups on 2 and 3, 0 and 1 reserved, no analog input, each controller can be enabled', () => {
  const id = 'bcm2711-sbc-40';
  for (const n of [2, 3]) expect(byPort(id, `GPIO${n}`).duties).toMatchObject([{ duty: 'pull-up', ohms: 1800 }]);
  for (const n of [0, 1]) expect(byPort(id, `GPIO${n}`).grade).toBe('reserved');
  expect(board(id).ioPins.some((p) => p.adc)).toBe(false);
  const said = new Set(board(id).sheet.enabling!.list.map((e) => e.controller));
  expect(
    board(id)
      .sheet.controllers.list.map((c) => c.id)
      .filter((c) => !said.has(c)),
  ).toEqual(['i2c0']);
  expect([3, 5, 27, 28].map((n) => board(id).sheet.pins.list.find((p) => p.position === n)!.label)).toEqual([
    'GPIO2',
    'GPIO3',
    'GPIO0',
    'GPIO1',
  ]);
});

describe('the board with parts soldered to it', () => {
  const plan = startPlan('dial', 'Dial', 'round-dial-s3', sheets);

  test('starts with its display and touch wired and locked, without a finding', () => {
    expect(plan.placements.map((p) => [p.name, p.onBoard])).toEqual([
      ['Dial display', true],
      ['Dial touch', true],
    ]);
    expect(Object.values(plan.wires).every((w) => w.locked)).toBe(true);
    const result = reviewPlan(plan, sheets);
    expect(result.ok && result.review.findings.filter((f) => f.level !== 'hint').map((f) => f.id)).toEqual([]);
  });

  test('nobody can take them out, unlock them, or say that another part is soldered on', () => {
    const id = plan.placements[0]!.id;
    expect(applyEdits(plan, [{ kind: 'remove-placement', placement: id }], sheets)).toMatchObject({ ok: false });
    expect(applyEdits(plan, [{ kind: 'lock', placement: id, terminal: 'SCL', locked: false }], sheets)).toMatchObject({ ok: false });
    const fake = { id: 'led-1', sheet: { id: 'led-red-5mm', version: 1 }, name: 'LED', straps: {}, onBoard: true } as const;
    expect(applyEdits(plan, [{ kind: 'add-placement', placement: fake }], sheets)).toMatchObject({ ok: false });
  });

  test('their wires are not on the list of wires to make', () => {
    const list = buildList(plan, sheets)!;
    expect([list.supplies, list.signals, list.open]).toEqual([[], [], []]);
  });
});

describe('rails for parts', () => {
  const rails = (id: string, part: string, terminal = 'VCC') => {
    const p = sheets.parts.get(part)!;
    return railsFor(board(id), p.sheet, p.terminals.get(terminal)!).map((r) => r.id);
  };
  test('modules with a regulator hang on 3.3 V or 5 V, the logic rail first', () => {
    expect(rails('rp2040-stick-40', 'climate-bme280')).toEqual(['3v3', 'vbus']);
  });
  test('a terminal with a range of its own gets its own rail', () => {
    expect(rails('rp2040-stick-40', 'shifter-mosfet-4', 'LV')).toEqual(['3v3']);
    expect(rails('rp2040-stick-40', 'shifter-mosfet-4', 'HV')[0]).toBe('3v3');
    expect(rails('rp2040-stick-40', 'pwm-pca9685', 'VPLUS')).toEqual(['vbus']);
  });
  test('where no rail is wholly inside, one that is by its nominal voltage serves, with a note of its extremes', () => {
    expect(rails('rp2040-stick-40', 'lcd-84x48-pcd8544')).toEqual(['3v3']);
    const placed = edited(stick(), sheets, add('lcd', 'lcd-84x48-pcd8544'));
    const plan = edited(placed, sheets, ...proposeWires({ plan: placed, sheets, board: board('rp2040-stick-40') }, placed.placements[0]!));
    expect(findingsOf(plan, sheets).map((f) => [f.level, f.code, f.message])).toContainEqual(['hint', 'supply-wrong', 'above-range']);
  });
});

test('a bare chip has its whole circuit: every supply pin wired and decoupled, reset held, a clock, a programming connector', () => {
  const chips = [...sheets.boards.values()].filter((one) => /DIP/.test(one.sheet.form));
  expect(chips.map((one) => one.sheet.id).toSorted()).toEqual([
    'atmega16a-5v-dip-40',
    'atmega32a-5v-dip-40',
    'attiny85-5v-dip-8',
    'pic16f1829-5v-dip-20',
  ]);
  for (const one of chips) {
    const { chipCircuit, pins, electrical } = one.sheet;
    const kindOf = (id: string) => pins.list.find((pin) => pin.id === id)!.kind;
    const ends = (kind: string) => chipCircuit!.components.filter((c) => c.kind === kind).map((c) => c.ends.map(kindOf).toSorted());
    const decoupled = chipCircuit!.components.flatMap((c) => (c.kind === 'capacitor' && c.value === 1e-7 ? c.ends : []));
    for (const pin of pins.list) if (pin.kind !== 'io' && !/^XTAL|^RESET/.test(pin.id)) expect(decoupled).toContain(pin.id);
    expect(ends('resistor')).toEqual([[expect.stringMatching(/control|io/), 'supply']]);
    // The reset input stays above its threshold at the leakage of the pin, and within what a programmer can pull down.
    expect(electrical.vdd.typ! / chipCircuit!.components.find((c) => c.kind === 'resistor')!.value).toBeLessThan(0.001);
    const connector = chipCircuit!.connectors![0]!.pins.flatMap(({ pin }) => pin ?? []);
    for (const kind of ['supply', 'ground']) expect(connector.map(kindOf)).toContain(kind);
    expect(connector).toContain(chipCircuit!.components.find((c) => c.kind === 'resistor')!.ends[0]);
  }
  // Load of the crystal: both capacitors in series and about 5 pF of pins and wires.
  const { components } = board('atmega32a-5v-dip-40').sheet.chipCircuit!;
  const load = components.flatMap((c) => (c.ends.some((end) => end.startsWith('XTAL')) && c.kind === 'capacitor' ? [c.value] : []));
  expect(1 / load.reduce((sum, farads) => sum + 1 / farads, 0) + 5e-12).toBeCloseTo(16e-12, 13);
  const crystal = components.find((c) => c.kind === 'crystal')!;
  expect([crystal.value, ...crystal.ends]).toEqual([16e6, 'XTAL1', 'XTAL2']);
});

test('a chip circuit with an end on nothing, or one designator twice, is a fault with its place', () => {
  const { sheet } = board('atmega32a-5v-dip-40');
  const [first, second, ...others] = sheet.chipCircuit!.components;
  const spoilt = {
    ...sheet,
    chipCircuit: {
      ...sheet.chipCircuit!,
      components: [{ ...first!, ends: ['VCC', 'PX9'] as const }, { ...second!, name: first!.name }, ...others],
    },
  };
  expect(boardFaults(spoilt).map(({ path, fault }) => `${path}: ${fault}`)).toEqual([
    'chipCircuit.C1: PX9 is not a pin',
    'chipCircuit.C1: designator used twice',
  ]);
});
