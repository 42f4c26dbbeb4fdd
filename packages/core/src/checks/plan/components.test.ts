import { shippedSheets } from '../../../tests/catalogue';
import { expectCheck, remedied } from '../../../tests/checkHarness';
import { add, edited, stick, wire } from '../../../tests/makePlan';
import { planComponents } from '../../electrics/reports/components';
import { newPlan } from '../../plan/plan';

const sheets = shippedSheets();
const lit = () =>
  edited(
    stick(),
    sheets,
    add('a', 'led-red-5mm', 'Red'),
    add('b', 'led-blue-5mm', 'Blue'),
    wire('a:A', 'GP2'),
    wire('b:A', 'GP3'),
    { kind: 'series', placement: 'a', terminal: 'A', ohms: 330 },
    { kind: 'series', placement: 'b', terminal: 'A', ohms: 100 },
  );

test('reference-shared: two components of one name, and one of the name that the circuit of the chip has', () => {
  const plan = edited(lit(), sheets, { kind: 'reference', component: 'b:series.A', name: 'R1' });
  // A kept name is not given twice: the other resistor moves on by itself.
  expect(planComponents(plan, sheets).map(({ name }) => name)).toEqual(['R2', 'R1']);
  const both = edited(plan, sheets, { kind: 'reference', component: 'a:series.A', name: 'R1' });
  expectCheck('reference-shared', both, sheets, [
    { message: 'shared', level: 'risk', title: '2 components named R1', remedies: ['Rename one to R2'] },
  ]);
  expectCheck('reference-shared', remedied('reference-shared', both, sheets), sheets, []);
  const chip = sheets.boards.get('atmega32a-5v-dip-40')!.sheet;
  const bare = newPlan('p', 'P', { id: chip.id, version: chip.version });
  const onChip = edited(bare, sheets, add('a', 'led-red-5mm', 'Red'), wire('a:A', chip.pins.list.find((p) => p.kind === 'io')!.id), {
    kind: 'series',
    placement: 'a',
    terminal: 'A',
    ohms: 330,
  });
  const ofChip = chip.chipCircuit!.components.filter(({ kind }) => kind === 'resistor').map(({ name }) => name);
  expect(ofChip).not.toContain(planComponents(onChip, sheets)[0]!.name);
  const met = edited(onChip, sheets, { kind: 'reference', component: 'a:series.A', name: ofChip[0]! });
  expectCheck('reference-shared', met, sheets, [
    { message: 'shared', level: 'risk', title: `2 components named ${ofChip[0]}`, remedies: [`Rename one to R${ofChip.length + 1}`] },
  ]);
});

test('component-unconnected: a resistor without its wire, a divider between ground and ground', () => {
  expectCheck('component-unconnected', lit(), sheets, []);
  const loose = edited(lit(), sheets, { kind: 'unwire', placement: 'b', terminal: 'A' });
  expectCheck('component-unconnected', loose, sheets, [
    { message: 'open', level: 'risk', title: 'R2 at Blue anode: one end unconnected', remedies: ['Remove R2'] },
  ]);
  expect(remedied('component-unconnected', loose, sheets).series).toEqual({ 'a:A': 330 });
  const lcd = edited(stick(), sheets, add('l', 'lcd-1602-parallel', 'LCD'), wire('l:VSS', 'ground'), wire('l:VDD', 'rail vbus'), {
    kind: 'wire',
    placement: 'l',
    terminal: 'V0',
    end: { to: 'trimmer', ohms: 10_000 },
  });
  expectCheck('component-unconnected', lcd, sheets, []);
  expectCheck('component-unconnected', edited(lcd, sheets, wire('l:VDD', 'ground')), sheets, [
    { message: 'shorted', level: 'clash', title: 'RV1 at LCD V0: both outer ends at GND', remedies: [] },
  ]);
});

test('names follow the order of the plan until they are kept', () => {
  const plan = edited(lit(), sheets, { kind: 'driver', placement: 'a', terminal: 'A', driver: { kind: 'npn', ohms: 1000, legs: 'EBC' } });
  expect(planComponents(plan, sheets)).toMatchObject([
    { id: 'a:transistor.A', name: 'Q1', ends: [{ leg: 'base' }, { leg: 'emitter', at: { to: 'ground' } }, { leg: 'collector' }] },
    { id: 'a:base.A', name: 'R1', value: 1000 },
    { id: 'a:series.A', name: 'R2', value: 330, ends: [{}, { at: { to: 'component', id: 'a:transistor.A', leg: 'collector' } }] },
    { id: 'b:series.A', name: 'R3', value: 100 },
  ]);
  const kept = edited(plan, sheets, { kind: 'reference', component: 'b:series.A', name: 'R3' });
  const without = edited(kept, sheets, { kind: 'driver', placement: 'a', terminal: 'A', driver: null });
  expect(planComponents(without, sheets).map(({ name }) => name)).toEqual(['R1', 'R3']);
  // The name goes with its part, and comes back with it.
  expect(edited(kept, sheets, { kind: 'remove-placement', placement: 'b' }).references).toEqual({});
});
