import { shippedSheets } from '../../tests/catalogue';
import { add, edited, stick, wire } from '../../tests/makePlan';
import { assignPins } from '../assign/assignPins';
import { waysOut } from '../review/ways/waysOut';
import { preferenceCosts } from '../assign/preferenceCost';
import type { Edit } from '../plan/edit';
import { newPlan, type Plan } from '../plan/plan';
import { priceText, proofText, wayCosts, wayText, wishText } from '../text/assignmentText';

const sheets = shippedSheets();

test('what is not proved does not say so', () => {
  const costs = { unwired: 0, moved: 2, caution: 0, unusual: 0, waste: 9 };
  expect(proofText({ proved: true, costs, bound: costs })).toMatch(/^Proved optimal: 2 wires moved/);
  expect(proofText({ proved: true, costs: { ...costs, unwired: 3 }, bound: costs })).toMatch(/at least 3 terminals cannot be connected/);
  expect(proofText({ proved: false, costs, bound: { ...costs, moved: 0 } })).toMatch(/^Best found/);
});

test('a price ends at the first tier that differs', () => {
  const none = { unwired: 0, moved: 0, caution: 0, unusual: 0, waste: 0 };
  expect([priceText(none), priceText({ ...none, moved: 1, waste: -40 }), priceText({ ...none, waste: 12 })]).toEqual([
    'nothing',
    '1 wire moved',
    'scarce pins used (12)',
  ]);
});

describe('wishes', () => {
  const lamp = edited(stick(), sheets, add('lamp', 'led-red-5mm', 'Lamp'), add('knob', 'potentiometer', 'Knob'));
  const wish = (terminal: string, wanted: object): Edit => {
    const [placement, id] = terminal.split(':') as [string, string];
    return { kind: 'wish', placement, terminal: id, wish: wanted };
  };
  const said = (plan: Plan) => preferenceCosts(plan, assignPins(plan, sheets)!.plan, sheets).map((price) => wishText(plan, sheets, price));

  test('a pin that is as good as any costs nothing; an analog pin for a lamp costs its scarcity', () => {
    const free = assignPins(lamp, sheets)!.plan.wires['lamp:A']!.end as { pin: string };
    expect(said(edited(lamp, sheets, wish('lamp:A', { pin: free.pin })))).toEqual([`Lamp anode at ${free.pin}: no cost.`]);
    expect(said(edited(lamp, sheets, wish('lamp:A', { pin: 'GP26' })))).toEqual([
      expect.stringMatching(/^Lamp anode at GP26: cost: scarce pins used \(\d+\)\.$/),
    ]);
  });

  test('what stands on the wished pin moves, and that is the price; what is locked there is told as such', () => {
    const knob = `knob:${sheets.parts.get('potentiometer')!.sheet.terminals.list.find((t) => t.role === 'adc.in')!.id}`;
    const taken = edited(lamp, sheets, wire('lamp:A', 'GP4'), wish(knob, { pin: 'GP26' }), wire(knob, 'GP27'));
    expect(said(taken)).toEqual([expect.stringMatching(/^Knob \S+ at GP26: cost: 1 wire moved\.$/)]);
    const [placement, terminal] = knob.split(':') as [string, string];
    expect(said(edited(taken, sheets, { kind: 'lock', placement, terminal, locked: true }))).toEqual([
      expect.stringMatching(/cannot be met with the locked wires/),
    ]);
  });

  test('signals side by side lie side by side, whatever else is there', () => {
    const keys = edited(
      stick(),
      sheets,
      add('keys', 'keypad-1x4', 'Keys'),
      ...[6, 9, 12, 15].map((n, at) => add(`b${at}`, 'button-push', `B${n}`)),
    );
    const wires = [6, 9, 12, 15].map((n, at) => wire(`b${at}:C1`, `GP${n}`));
    const wanted = edited(keys, sheets, ...wires, { kind: 'together', placement: 'keys', how: 'adjacent' });
    const { plan } = assignPins(wanted, sheets)!;
    const board = sheets.boards.get('rp2040-stick-40')!;
    const at = ['K1', 'K2', 'K3', 'K4'].map((t) => board.pins.get((plan.wires[`keys:${t}`]!.end as { pin: string }).pin)!);
    const positions = at.map((pin) => pin.position!).toSorted((a, b) => a - b);
    expect([new Set(at.map((pin) => pin.header)).size, positions.at(-1)! - positions[0]!]).toEqual([1, 3]);
    expect(said(wanted)).toEqual([expect.stringMatching(/^Keys: signals on adjacent pins: (cost|no cost)/)]);
  });
});

test('a way out says what it does and what it costs', () => {
  const clocks = edited(
    newPlan('plan-1', 'T', { id: 'atmega328p-5v-shield', version: 1 }),
    sheets,
    ...['a', 'b'].map((id) => add(id, 'clock-ds3231-eeprom', `Clock ${id}`)),
  );
  const way = waysOut(clocks, sheets).find((w) => w.kind === 'multiplexer')!;
  expect(wayText(clocks, sheets, way)).toMatch(/^Add I2C multiplexer.*, connect Clock [ab] and Clock [ab] through it$/);
  expect(wayCosts(way)).toMatch(/^1 part more(, \d pins? (more|fewer))?; one channel at a time/);
});
