import { shippedSheets } from '../../../tests/catalogue';
import { expectCheck, findingsOf, remedied } from '../../../tests/checkHarness';
import { add, edited, shield, stick, wire } from '../../../tests/makePlan';
import { possibleAddresses } from '../../assign/addresses/addressOptions';
import { assignPins } from '../../assign/assignPins';
import { addressesOf } from '../../nets/addresses';
import type { Edit } from '../../plan/edit';

const sheets = shippedSheets();
const bus = (id: string): Edit[] => [wire(`${id}:SDA`, 'GP4'), wire(`${id}:SCL`, 'GP5')];

describe('address-also-answers', () => {
  const both = edited(
    stick(),
    sheets,
    add('p', 'pwm-pca9685', 'Lamps'),
    add('m', 'multiplexer-tca9548a', 'Switch'),
    ...bus('p'),
    ...bus('m'),
  );

  test('an all-call address meets a multiplexer; strapping that one away helps', () => {
    expectCheck('address-also-answers', both, sheets, [
      {
        message: 'meets',
        level: 'risk',
        title: 'Lamps also responds to 0x70, the address of Switch',
        remedies: [expect.stringMatching(/^Tie Switch A[0-2] to 3V3 \(address 0x7[1-7]\)$/) as string],
      },
    ]);
    expect(findingsOf(remedied('address-also-answers', both, sheets), sheets).map((f) => f.code)).not.toContain('address-also-answers');
  });

  test('behind an open channel it meets the multiplexer itself, and whoever is before it', () => {
    const behind = edited(both, sheets, wire('p:SDA', 'm:SD0'), wire('p:SCL', 'm:SC0'));
    expectCheck('address-also-answers', behind, sheets, [
      {
        message: 'meets',
        level: 'risk',
        title: 'Lamps also responds to 0x70, the address of Switch',
        remedies: [expect.stringMatching(/^Tie Switch A[0-2] to 3V3 \(address 0x7[1-7]\)$/) as string],
      },
    ]);
    expect(findingsOf(remedied('address-also-answers', behind, sheets), sheets).map((f) => f.code)).not.toContain('address-also-answers');
  });

  test('on two buses they never meet', () => {
    expectCheck('address-also-answers', edited(both, sheets, wire('m:SDA', 'GP2'), wire('m:SCL', 'GP3')), sheets, []);
  });
});

describe('straps of four states', () => {
  const four = (chip: string, terminal: string) =>
    edited(
      stick(),
      sheets,
      ...['a', 'b', 'c', 'd'].flatMap((id) => [add(id, chip), ...bus(id)]),
      wire(`b:${terminal}`, 'rail 3v3'),
      wire(`c:${terminal}`, 'c:SDA'),
      wire(`d:${terminal}`, 'd:SCL'),
    );

  test.each([
    ['adc-ads1115', 'ADDR', 0x48],
    ['adc-ads1015', 'ADDR', 0x48],
    ['touch-mpr121', 'ADD', 0x5a],
  ])('four of %s share a bus: ground, supply, SDA and SCL', (chip, terminal, base) => {
    const plan = four(chip, terminal);
    expect(plan.placements.flatMap((p) => addressesOf(plan, p, sheets).map((a) => a.address))).toEqual([
      base,
      base + 1,
      base + 2,
      base + 3,
    ]);
    const found = findingsOf(plan, sheets).filter((f) => f.level !== 'hint');
    // The strap lies on the line on purpose: it is no second signal there, and no clash of addresses.
    expect(found.map((f) => f.code)).not.toContain('pin-shared');
    expect(found.map((f) => f.code)).not.toContain('address-shared');
  });

  test('settling finds all four, and says that a fifth has none', () => {
    const plan = edited(stick(), sheets, ...['a', 'b', 'c', 'd'].map((id) => add(id, 'adc-ads1115')));
    const onOneBus = edited(plan, sheets, ...['a', 'b', 'c', 'd'].flatMap(bus));
    const settled = assignPins(onOneBus, sheets, { nodes: 3000 });
    const after = edited(onOneBus, sheets, ...settled!.edits);
    expect(new Set(after.placements.flatMap((p) => addressesOf(after, p, sheets).map((a) => a.address))).size).toBe(4);
    const fifth = edited(onOneBus, sheets, add('e', 'adc-ads1115'), ...bus('e'));
    expect(findingsOf(fifth, sheets).map((f) => f.code)).toContain('address-impossible');
    expect(findingsOf(onOneBus, sheets).map((f) => f.code)).not.toContain('address-impossible');
  });

  test('a strap wired to the pin of the line is on the line', () => {
    const plan = edited(stick(), sheets, add('a', 'adc-ads1115'), ...bus('a'), wire('a:ADDR', 'GP5'));
    expect(addressesOf(plan, plan.placements[0]!, sheets).map((a) => a.address)).toEqual([0x4b]);
    expect(findingsOf(plan, sheets).map((f) => f.code)).not.toContain('pin-shared');
  });

  test('a clash is solved by the line of its own, in words that say so', () => {
    const three = edited(
      stick(),
      sheets,
      ...['a', 'b', 'c'].flatMap((id) => [add(id, 'adc-ads1115'), ...bus(id)]),
      wire('b:ADDR', 'rail 3v3'),
    );
    expectCheck('address-shared', three, sheets, [
      {
        message: 'claimed',
        level: 'clash',
        title: 'Address conflict: 0x48 on I2C0 (2 devices)',
        remedies: expect.arrayContaining(['Tie c ADDR to SCL (address 0x4B)', 'Tie a ADDR to SCL (address 0x4B)']) as string[],
      },
    ]);
    const solved = remedied('address-shared', three, sheets);
    expect(solved.wires['c:ADDR']!.end).toEqual({ to: 'terminal', placement: 'c', terminal: 'SCL' });
    expect(findingsOf(solved, sheets).map((f) => f.code)).not.toContain('address-shared');
  });
});

describe('address-reserved', () => {
  const board = (...bridged: string[]) =>
    edited(
      stick(),
      sheets,
      add('p', 'pwm-pca9685', 'Lamps'),
      ...bus('p'),
      ...bridged.map((strap): Edit => ({ kind: 'strap', placement: 'p', strap, state: 'bridged' })),
    );

  test('0x78 and up belong to the bus, 0x70 to the chip; a strap leads away, and settling never leads there', () => {
    expectCheck('address-reserved', board('A3', 'A4', 'A5'), sheets, [
      {
        message: 'standard',
        level: 'risk',
        title: 'Lamps: 0x78 is reserved by the I2C specification',
        remedies: [expect.stringMatching(/\(address 0x40\)$/) as string],
      },
    ]);
    expectCheck('address-reserved', board('A4', 'A5'), sheets, [
      {
        message: 'sheet',
        level: 'risk',
        title: 'Lamps: 0x70 is reserved by its datasheet',
        remedies: [expect.stringMatching(/\(address 0x40\)$/) as string],
      },
    ]);
    expectCheck('address-reserved', board('A0', 'A1', 'A2', 'A4', 'A5'), sheets, []);
    const part = sheets.parts.get('pwm-pca9685')!.sheet;
    const plan = board();
    const free = possibleAddresses(plan, plan.placements[0]!, part).flatMap((s) => s.addresses);
    expect(new Set(free).size).toBe(55);
    expect(free.filter((a) => a === 0x70 || a >= 0x78)).toEqual([]);
  });
});

describe('pin-direction', () => {
  const card = (...more: Edit[]) =>
    edited(
      shield(),
      sheets,
      add('s', 'sd-card-5v-module', 'Card'),
      add('b', 'button-push', 'Start'),
      wire('s:SCK', 'D13'),
      wire('s:MOSI', 'D11'),
      wire('s:MISO', 'D12'),
      ...more,
    );
  const button = [...sheets.parts.get('button-push')!.terminals.values()].find((t) => t.role === 'gpio.in')!.id;

  test('an input on the hardware select while the bus is in use; an output there is well, and so is an idle bus', () => {
    expectCheck('pin-direction', card(wire(`b:${button}`, 'D10')), sheets, [
      {
        message: 'select',
        level: 'risk',
        title: expect.stringMatching(/^Start .* may stop SPI/) as string,
        remedies: [expect.stringMatching(/^Move Start .* to D\d+$/) as string],
      },
    ]);
    expectCheck('pin-direction', card(wire('s:CS', 'D10')), sheets, []);
    expectCheck('pin-direction', edited(shield(), sheets, add('b', 'button-push'), wire(`b:${button}`, 'D10')), sheets, []);
    expect(findingsOf(remedied('pin-direction', card(wire(`b:${button}`, 'D10')), sheets), sheets).map((f) => f.code)).not.toContain(
      'pin-direction',
    );
  });
});
