import { shippedSheets } from '../../../tests/catalogue';
import { expectCheck, findingsOf, remedied } from '../../../tests/checkHarness';
import { add, edited, stick, wire } from '../../../tests/makePlan';
import { findBuses } from '../../nets/buses';
import type { Edit } from '../../plan/edit';
import type { Plan } from '../../plan/plan';
import { describeFinding } from '../../text/describe';

const sheets = shippedSheets();
const power = (id: string, rail = '3v3'): Edit[] => [wire(`${id}:GND`, 'ground'), wire(`${id}:VCC`, `rail ${rail}`)];

const i2c = (id: string, sda = 'GP4', scl = 'GP5'): Edit[] => [wire(`${id}:SDA`, sda), wire(`${id}:SCL`, scl)];

const lock = (id: string, terminal: string): Edit => ({ kind: 'lock', placement: id, terminal, locked: true });

describe('bus-pair-illegal', () => {
  const split = edited(stick(), sheets, add('a', 'humidity-sht31', 'Air'), ...power('a'), ...i2c('a', 'GP4', 'GP3'));

  test('lines of two controllers, each named', () => {
    expectCheck('bus-pair-illegal', split, sheets, [
      {
        message: 'split',
        level: 'clash',
        title: 'GP3 and GP4 belong to different controllers',
        remedies: [
          'Move the bus to I2C0 (GP4 and GP5)',
          'Move the bus to I2C1 (GP3 and GP2)',
          'Drive this bus by software on GP3 and GP4 (up to 400 kHz instead of 1 MHz)',
        ],
      },
    ]);
  });

  test('tells which controller each line has', () => {
    const found = findingsOf(split, sheets).find((f) => f.code === 'bus-pair-illegal')!;
    expect(describeFinding(split, sheets, found).text).toMatch(
      /^Air: no controller has all of these lines\. (?=.*SDA on GP4: I2C0)(?=.*SCL on GP3: I2C1)/,
    );
  });

  test('the remedy moves the fewest wires', () => {
    const after = remedied('bus-pair-illegal', split, sheets);
    expect([after.wires['a:SDA']!.end, after.wires['a:SCL']!.end]).toEqual([split.wires['a:SDA']!.end, { to: 'pin', pin: 'GP5' }]);
  });

  test('SPI lines of two controllers, and a locked line that must stay', () => {
    const plan = edited(
      stick(),
      sheets,
      add('s', 'sd-card-3v3', 'Card'),
      ...power('s'),
      wire('s:CS', 'GP9'),
      wire('s:CLK', 'GP18'),
      wire('s:MOSI', 'GP11'),
      wire('s:MISO', 'GP16'),
    );
    expect(findingsOf(plan, sheets).map((f) => f.code)).toEqual(['bus-pair-illegal']);
    const locked = edited(plan, sheets, lock('s', 'CLK'), lock('s', 'MISO'));
    expect(remedied('bus-pair-illegal', locked, sheets).wires['s:MOSI']!.end).toEqual({ to: 'pin', pin: 'GP19' });
  });

  test('a second bus on other pins of one controller has none: it joins the first, or moves to another controller', () => {
    const two = edited(
      stick(),
      sheets,
      ...[add('a', 'humidity-sht31', 'Air'), add('b', 'clock-ds3231-mini', 'Clock')],
      ...[...power('a'), ...i2c('a', 'GP4', 'GP5'), ...power('b'), ...i2c('b', 'GP0', 'GP1')],
    );
    expectCheck('bus-pair-illegal', two, sheets, [
      {
        message: 'taken',
        level: 'clash',
        title: 'No controller left for GP0 and GP1',
        remedies: [
          'Connect to the same bus as Air (GP4 and GP5)',
          'Move the bus to I2C1 (GP2 and GP3)',
          'Drive this bus by software on GP0 and GP1 (up to 400 kHz instead of 1 MHz)',
        ],
      },
    ]);
    expect(remedied('bus-pair-illegal', two, sheets).wires['b:SDA']!.end).toEqual({ to: 'pin', pin: 'GP4' });
    // On a crossbar the second bus has the second controller, and the third none.
    const cross = { ...two, board: { id: 'esp32-stick-38', version: 1 } };
    const onto = (plan: Plan, id: string, sda: string, scl: string) => edited(plan, sheets, ...i2c(id, sda, scl));
    const both = onto(onto(cross, 'a', 'IO21', 'IO22'), 'b', 'IO32', 'IO33');
    expect(findBuses(both, sheets).map((bus) => bus.controller)).toEqual(['i2c0', 'i2c1']);
    const three = onto(edited(both, sheets, add('c', 'humidity-aht20', 'Porch')), 'c', 'IO25', 'IO26');
    expect(findBuses(three, sheets).map((bus) => bus.controller)).toEqual(['i2c0', 'i2c1', undefined]);
    expect(findingsOf(three, sheets).filter((f) => f.code === 'bus-pair-illegal')).toHaveLength(1);
    // Two parts on one clock and two data lines are no bus of any controller.
    const crossed = onto(onto(cross, 'a', 'IO21', 'IO22'), 'b', 'IO25', 'IO22');
    expectCheck('bus-pair-illegal', crossed, sheets, [
      {
        message: 'half',
        level: 'clash',
        title: 'Clock: only some lines on the bus of Air',
        remedies: ['Connect to the same bus as Air (21 and 22)', 'Move the bus to I2C1 (25 and 26)'],
      },
    ]);
  });
});
