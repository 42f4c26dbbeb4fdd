import { shippedSheets } from '../../tests/catalogue';
import { add, edited, shield, stick, wire } from '../../tests/makePlan';
import { boardOf } from '../plan/edit';
import { addressesOf } from './addresses';
import { findBuses } from './buses';
import { isLegalSet } from './controllers';
import { findNets } from './nets';

const sheets = shippedSheets();

const twoSensors = edited(
  stick(),
  sheets,
  add('a', 'humidity-sht31'),
  add('b', 'humidity-sht31'),
  wire('a:SDA', 'GP4'),
  wire('a:SCL', 'GP5'),
  wire('b:SDA', 'a:SDA'),
  wire('b:SCL', 'GP5'),
);

test('a net joins what wires join, through other terminals too', () => {
  const nets = findNets(twoSensors, sheets);
  const sda = nets.byPin.get('GP4')!;
  expect(sda.terminals.map((t) => t.key)).toEqual(['a:SDA', 'b:SDA']);
  expect(sda).toBe(nets.byTerminal.get('b:SDA'));
  expect(sda.signals).toHaveLength(1);
});

test('a terminal that only others wire to is in their net; an open one is in none', () => {
  const plan = edited(twoSensors, sheets, { kind: 'unwire', placement: 'a', terminal: 'SDA' });
  const nets = findNets(plan, sheets);
  expect(nets.byTerminal.get('a:SDA')).toBe(nets.byTerminal.get('b:SDA'));
  expect(nets.byTerminal.get('a:SDA')!.pins).toEqual([]);
  expect(nets.byTerminal.get('a:VCC')).toBeUndefined();
});

test('wires that run in a circle are one net and no endless loop', () => {
  const plan = edited(twoSensors, sheets, wire('a:SDA', 'b:SDA'));
  expect(findNets(plan, sheets).byTerminal.get('a:SDA')!.terminals).toHaveLength(2);
});

test('private signals on one pin stay two signals of one net', () => {
  const plan = edited(
    stick(),
    sheets,
    add('k', 'encoder-rotary-switch'),
    add('l', 'led-red-5mm'),
    wire('k:SW', 'GP22'),
    wire('l:A', 'GP22'),
  );
  expect(
    findNets(plan, sheets)
      .byPin.get('GP22')!
      .signals.map((s) => s.id),
  ).toEqual(['k:SW', 'A at GP22']);
});

test('a bus has a controller exactly where one joins its pins', () => {
  const at = (sda: string, scl: string) => {
    const plan = edited(twoSensors, sheets, wire('a:SDA', sda), wire('a:SCL', scl), { kind: 'remove-placement', placement: 'b' });
    return findBuses(plan, sheets)[0]!.controller;
  };
  expect([at('GP4', 'GP5'), at('GP0', 'GP21'), at('GP2', 'GP3')]).toEqual(['i2c0', 'i2c0', 'i2c1']);
  expect([at('GP4', 'GP3'), at('GP5', 'GP4'), at('GP22', 'GP22')]).toEqual([undefined, undefined, undefined]);
});

test('parts on one clock share an SPI bus, with the lines each of them brings', () => {
  const plan = edited(
    stick(),
    sheets,
    ...['a', 'b'].flatMap((id) => [add(id, 'sd-card-3v3'), wire(`${id}:CLK`, 'GP18'), wire(`${id}:MOSI`, 'GP19')]),
    wire('b:MISO', 'GP16'),
  );
  const buses = findBuses(plan, sheets);
  expect(buses).toMatchObject([{ kind: 'spi', controller: 'spi0', pins: { sck: 'GP18', mosi: 'GP19', miso: 'GP16' } }]);
  expect(buses[0]!.members).toHaveLength(2);
});

test('listed sets are all or nothing', () => {
  const board = boardOf(shield(), sheets)!;
  const spi = board.controllers.get('spi0')!;
  expect(isLegalSet(board, spi, { sck: 'D13', mosi: 'D11' })).toBe(true);
  expect(isLegalSet(board, spi, { sck: 'D13', mosi: 'D12' })).toBe(false);
});

test('addresses follow terminal straps by wire, jumpers by state, and defaults when open', () => {
  const plan = edited(stick(), sheets, add('m', 'motion-mpu6050'), add('c', 'clock-ds3231-eeprom'), add('h', 'humidity-sht31'));
  const addresses = (p: typeof plan) => p.placements.map((placement) => addressesOf(p, placement, sheets).map((a) => a.address));
  expect(addresses(plan)).toEqual([[0x68], [0x68, 0x57], [0x44]]);
  const strapped = edited(
    plan,
    sheets,
    wire('m:AD0', 'rail 3v3'),
    wire('h:AD', 'ground'),
    { kind: 'strap', placement: 'c', strap: 'A0', state: 'bridged' },
    { kind: 'strap', placement: 'c', strap: 'A2', state: 'bridged' },
  );
  expect(addresses(strapped)).toEqual([[0x69], [0x68, 0x52], [0x44]]);
});

test('parts of a chain share the select of its head; without the chain two selects on a pin are two signals', () => {
  const pair = edited(
    stick(),
    sheets,
    add('one', 'matrix-8x8-max7219'),
    add('two', 'matrix-8x8-max7219'),
    wire('one:CS', 'GP17'),
    wire('two:CS', 'GP17'),
  );
  expect(findNets(pair, sheets).byPin.get('GP17')!.signals).toHaveLength(2);
  const chained = edited(pair, sheets, wire('two:DIN', 'one:DOUT'));
  expect(
    findNets(chained, sheets)
      .byPin.get('GP17')!
      .signals.map((s) => s.id),
  ).toEqual(['one:CS']);
  // A chain in a circle ends somewhere, too.
  const circle = edited(chained, sheets, wire('one:DIN', 'two:DOUT'));
  expect(findNets(circle, sheets).byPin.get('GP17')).toBeDefined();
});

test('a bus that is half wired has the id of its one line, so that it stays the same bus', () => {
  const half = (terminal: 'SDA' | 'SCL', pin: string) =>
    findBuses(edited(stick(), sheets, add('bme', 'climate-bme280'), wire(`bme:${terminal}`, pin)), sheets).map(({ id }) => id);
  expect([half('SDA', 'GP4'), half('SCL', 'GP5')]).toEqual([['i2c:GP4:'], ['i2c::GP5']]);
});
