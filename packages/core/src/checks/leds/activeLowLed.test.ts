import { shippedSheets } from '../../../tests/catalogue';
import { codesAfter, expectCheck, findingsOf, remedied } from '../../../tests/checkHarness';
import { add, edited, shield, stick, wire } from '../../../tests/makePlan';
import { assignPins } from '../../assign/assignPins';
import { sightOf } from '../../bench/firstSight';
import { ledReports, loadsOf } from '../../electrics/reports/ledReport';
import { railReports } from '../../electrics/reports/railReport';
import type { Edit } from '../../plan/edit';
import { indexSheets } from '../../sheets/sheetIndex';

const sheets = shippedSheets();
const series = (placement: string, terminal: string, ohms: number): Edit => ({ kind: 'series', placement, terminal, ohms });

test('an active-low one, anode at the supply and cathode at a pin, is one of those that sink; a resistor on either side counts', () => {
  const low = edited(stick(), sheets, add('l', 'led-red-5mm', 'Lamp'), wire('l:A', 'rail 3v3'), wire('l:K', 'GP2'));
  expectCheck('led-no-resistor', low, sheets, [
    { message: 'none', level: 'clash', title: 'Lamp: no series resistor', remedies: ['Add 220 Ω in 1 wire'] },
  ]);
  // (3.3 V − 2 V) / 5 mA less half of what the pin drops: 0.5 V at 4 mA are 125 Ω.
  expect(ledReports(low, sheets)[0]!.exactOhms).toBeCloseTo(1.3 / 5e-3 - 125 / 2, 9);
  for (const side of ['A', 'K']) {
    const plan = edited(low, sheets, series('l', side, 220));
    const [one] = ledReports(plan, sheets);
    expect([codesAfter(plan, sheets), one!.driver, one!.sinks, one!.ohms]).toEqual([[], { by: 'pin', pin: 'GP2' }, true, 220]);
    expect(one!.amps.typ).toBeCloseTo(1.3 / (220 + 62.5), 9);
    expect(loadsOf(plan, sheets)).toMatchObject([{ driver: { by: 'pin', pin: 'GP2' }, sinks: true, amps: one!.amps.max }]);
    expect(railReports(plan, sheets).find(({ rail }) => rail.id === '3v3')!.lines).toMatchObject([
      { placement: 'l', peakMilliamps: one!.amps.max * 1000 },
    ]);
  }
  // Whichever wire comes first, the other one follows.
  for (const first of [wire('l:A', 'rail 3v3'), wire('l:K', 'GP5')]) {
    const half = edited(stick(), sheets, add('l', 'led-red-5mm'), first);
    expect(codesAfter(half, sheets)).toContain('terminal-unwired');
    const { A, K } = Object.fromEntries(
      Object.entries(assignPins(half, sheets)!.plan.wires).map(([key, { end }]) => [key.slice(-1), end.to]),
    );
    expect([A, K]).toEqual(['rail', 'pin']);
  }
  const input = edited(low, sheets, wire('l:K', 'GP2'), add('k', 'button-push'), wire('k:C1', 'GP2'), wire('k:C2', 'ground'));
  expect(codesAfter(input, sheets)).toContain('pin-shared');
});

test('one at a supply and ground is lit while powered, with its current in the budget of that rail', () => {
  const light = edited(edited(stick(), sheets, add('l', 'led-red-5mm', 'Lamp'), wire('l:K', 'ground')), sheets, wire('l:A', 'rail vbus'));
  expectCheck('led-no-resistor', light, sheets, [
    { message: 'none', level: 'clash', title: 'Lamp: no series resistor', remedies: ['Add 680 Ω in 1 wire'] },
  ]);
  const limited = edited(light, sheets, series('l', 'A', 680));
  expect(codesAfter(limited, sheets)).toEqual([]);
  const [one] = ledReports(limited, sheets);
  expect([one!.driver, one!.amps.typ]).toEqual([{ by: 'rail', rail: 'vbus' }, 3 / 680]);
  expect(railReports(limited, sheets).find(({ rail }) => rail.id === 'vbus')!.lines).toContainEqual(
    expect.objectContaining({ placement: 'l', typicalMilliamps: (3 / 680) * 1000 }),
  );
  expect([loadsOf(limited, sheets).length, sightOf(limited, sheets, limited.placements[0]!)]).toEqual([1, 'Lit while powered.']);
});

test('two in series, sunk by a pin: one current, their forward voltages together, whichever of the two the wire between them belongs to', () => {
  const two = edited(
    shield(),
    sheets,
    add('a', 'led-red-5mm', 'One'),
    add('b', 'led-red-5mm', 'Two'),
    wire('a:A', 'rail 5v'),
    wire('b:K', 'D2'),
  );
  for (const between of [wire('a:K', 'b:A'), wire('b:A', 'a:K')]) {
    const plan = edited(two, sheets, between);
    expectCheck('led-no-resistor', plan, sheets, [
      { message: 'none', level: 'clash', title: 'One and Two: no series resistor', remedies: ['Add 180 Ω in 1 wire'] },
    ]);
    const limited = edited(plan, sheets, series('a', 'A', 180));
    const [one, ...more] = ledReports(limited, sheets);
    expect([one!.driver, one!.sinks, one!.anodes, more]).toEqual([{ by: 'pin', pin: 'D2' }, true, ['a:A', 'b:A'], []]);
    // 5 V less 4 V over 180 Ω and half of what the output drops at worst, 0.9 V at 20 mA.
    expect(one!.amps.typ).toBeCloseTo(1 / (180 + one!.driveOhms.typ!), 9);
    // In the worst case 4.75 V are less than 4.8 V of forward voltage.
    expect([codesAfter(limited, sheets), loadsOf(limited, sheets)[0]]).toMatchObject([
      ['led-dim'],
      { driver: { by: 'pin', pin: 'D2' }, sinks: true },
    ]);
  }
});

test('between two pins it is a note; the wrong way round it is an error', () => {
  const at = (anode: string, cathode: string) =>
    findingsOf(edited(stick(), sheets, add('l', 'led-red-5mm'), wire('l:A', anode), wire('l:K', cathode)), sheets)
      .filter(({ code }) => code === 'supply-wrong')
      .map(({ message, level }) => [message, level]);
  expect(at('GP3', 'GP2')).toEqual([['led-between-pins', 'hint']]);
  expect(at('GP2', 'rail 3v3')).toEqual([['ground-on-rail', 'clash']]);
  expect(at('ground', 'GP2')).toEqual([['supply-on-ground', 'clash']]);
  expect(at('rail 3v3', 'GP2')).toEqual([]);
});

test('an active-low one goes off only where its supply is at most its forward voltage above the pin', () => {
  const at = (rail: string, colour: string, make = stick) =>
    edited(
      make(),
      sheets,
      add('l', `led-${colour}-5mm`, 'Lamp'),
      wire('l:A', `rail ${rail}`),
      wire('l:K', make === stick ? 'GP2' : 'D2'),
      series('l', 'K', 1000),
    );
  expectCheck('led-never-off', at('vbus', 'red'), sheets, [
    {
      message: 'glows',
      level: 'risk',
      title: 'Lamp may glow when off: up to 2.05 V across the LED, forward voltage from 1.7 V',
      remedies: ['Connect Lamp anode to 3V3'],
    },
  ]);
  expect(codesAfter(remedied('led-never-off', at('vbus', 'red'), sheets), sheets)).not.toContain('led-never-off');
  for (const off of [at('3v3', 'red'), at('vbus', 'blue'), at('5v', 'red', shield)]) expectCheck('led-never-off', off, sheets, []);
  expectCheck('led-never-off', at('vin', 'red', shield), sheets, [
    {
      message: 'on',
      level: 'clash',
      title: expect.stringMatching(/^Lamp stays on: /) as string,
      remedies: ['Connect Lamp anode to 5V'],
    },
  ]);
});

test('its limits: what is left across it at most against its lowest forward voltage, and nominally against the typical one', () => {
  const red = sheets.parts.get('led-red-5mm')!.sheet;
  const { volts: supply } = sheets.boards.get('rp2040-stick-40')!.sheet.rails.list.find(({ id }) => id === 'vbus')!;
  const found = (forwardVolts: { min: number; typ: number; max: number }) => {
    const own = indexSheets([sheets.boards.get('rp2040-stick-40')!.sheet, { ...red, polarity: { ...red.polarity!, forwardVolts } }]);
    const plan = edited(stick(), own, add('l', red.id), wire('l:A', 'rail vbus'), wire('l:K', 'GP2'), series('l', 'K', 1000));
    return findingsOf(plan, own).flatMap(({ code, message }) => (code === 'led-never-off' ? [message] : []));
  };
  const [most, nominal] = [supply.max - 3.2, supply.typ! - 3.3];
  expect([found({ min: most + 1e-3, typ: 3, max: 3.2 }), found({ min: most - 1e-3, typ: 3, max: 3.2 })]).toEqual([[], ['glows']]);
  expect([found({ min: 1, typ: nominal + 1e-3, max: 3 }), found({ min: 1, typ: nominal - 1e-3, max: 3 })]).toEqual([['glows'], ['on']]);
});
