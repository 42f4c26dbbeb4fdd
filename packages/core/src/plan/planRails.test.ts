import { shippedSheets } from '../../tests/catalogue';
import { findingsOf } from '../../tests/checkHarness';
import { add, edited, shield, stick, wire } from '../../tests/makePlan';
import { ontoBoard } from '../assign/ontoBoard';
import { separateSupplies } from '../checks/fixes/separateSupply';
import { feedOf } from '../electrics/reports/busInputs';
import { railReports } from '../electrics/reports/railReport';
import { connectedComponents } from '../nets/connectedComponents';
import { findNets } from '../nets/nets';
import { buildList } from '../outputs/buildList';
import { applyEdits } from './applyEdits';
import { boardOf } from './edit';
import type { Plan } from './plan';
import { planFault } from './planFile';
import { swapPart } from './swapPart';

const sheets = shippedSheets();
const REGULATOR = [add('reg', 'regulator-ams1117-3v3', 'Regulator'), wire('reg:VIN', 'rail 5v'), wire('reg:GND', 'ground')];
/** A network module of 132 mA at a regulator, on a board whose 3.3 V pin gives 50 mA. */
const fed = (): Plan =>
  edited(
    shield(),
    sheets,
    ...REGULATOR,
    add('net', 'ethernet-w5500', 'Network'),
    wire('net:VCC', 'rail reg:VOUT'),
    wire('net:GND', 'ground'),
  );
const railOf = (plan: Plan, id: string) => railReports(plan, sheets).find(({ rail }) => rail.id === id)!;

test('a regulator gives a rail: its loads count there, and with its own current on the rail that feeds it', () => {
  const plan = fed();
  expect(findNets(plan, sheets).byTerminal.get('net:VCC')).toMatchObject({ rails: ['reg:VOUT'] });
  expect(findNets(plan, sheets).byTerminal.get('reg:VOUT')).toBe(findNets(plan, sheets).byTerminal.get('net:VCC'));
  expect(feedOf(plan, sheets, boardOf(plan, sheets)!, 'net')).toEqual({ rail: 'reg:VOUT', volts: { min: 3.235, typ: 3.3, max: 3.365 } });
  const { peakMilliamps, typicalMilliamps } = sheets.parts.get('ethernet-w5500')!.sheet.supply!;
  const given = railOf(plan, 'reg:VOUT');
  expect(given.rail).toMatchObject({ label: 'Regulator VOUT', budgetMilliamps: 800 });
  expect(given.peakMilliamps).toBe(peakMilliamps);
  // 5.5 V at the highest less 3.3 V, times the current, times 90 K/W.
  expect(given.regulator!.kelvin).toBeCloseTo(
    (boardOf(plan, sheets)!.sheet.rails.list.find((r) => r.id === '5v')!.volts.max - 3.3) * (typicalMilliamps / 1000) * 90,
    6,
  );
  expect(railOf(plan, '5v').lines.map(({ what, placement, rail }) => placement ?? rail ?? what)).toEqual(
    expect.arrayContaining(['reg', 'reg:VOUT']),
  );
  expect(railOf(plan, '3v3').lines).toEqual([]);
});

test('a converter passes on power, not current', () => {
  const plan = edited(
    shield(),
    sheets,
    add('src', 'supply-12v-2a'),
    wire('src:GND', 'ground'),
    add('conv', 'converter-lm2596-5v'),
    wire('conv:VIN', 'rail src:VOUT'),
    wire('conv:GND', 'ground'),
    add('s', 'servo-micro'),
    wire('s:VCC', 'rail conv:VOUT'),
    wire('s:GND', 'ground'),
  );
  const { peakMilliamps } = sheets.parts.get('servo-micro')!.sheet.supply!;
  const load = railOf(plan, 'src:VOUT').lines.find(({ rail }) => rail === 'conv:VOUT')!;
  expect(load.peakMilliamps).toBeCloseTo((peakMilliamps * 5) / (12 * 0.8), 6);
});

test('a supply that goes takes the wires to it along, and undo brings all back', () => {
  const plan = fed();
  const gone = applyEdits(plan, [{ kind: 'remove-placement', placement: 'reg' }], sheets);
  if (!gone.ok) throw new Error(gone.problem.path);
  expect(Object.keys(gone.plan.wires)).toEqual(['net:GND']);
  expect(planFault(gone.plan, sheets)).toBeUndefined();
  const back = applyEdits(gone.plan, gone.inverse, sheets);
  expect(back).toMatchObject({ ok: true, plan: { ...plan, wires: plan.wires } });
});

test('a rail that nothing gives is refused with its place', () => {
  const result = applyEdits(stick(), [add('net', 'ethernet-w5500'), wire('net:VCC', 'rail reg:VOUT')], sheets);
  expect(result).toMatchObject({ ok: false, at: 1, problem: { path: 'end.rail', got: 'reg:VOUT' } });
  const plan = fed();
  const broken: Plan = {
    ...plan,
    placements: plan.placements.filter(({ id }) => id !== 'reg'),
    wires: { 'net:VCC': plan.wires['net:VCC']! },
  };
  expect(planFault(broken, sheets)).toMatchObject({ path: 'wires.net:VCC.end.rail' });
});

test('another regulator in its place keeps the loads; a part that gives nothing does not', () => {
  const plan = fed();
  const [reg] = plan.placements;
  const from = sheets.parts.get(reg!.sheet.id)!.sheet;
  const other = edited(plan, sheets, ...swapPart(plan, reg!, from, sheets.parts.get('regulator-mcp1700-3v3')!.sheet));
  expect(other.wires['net:VCC']?.end).toEqual({ to: 'rail', rail: 'reg:VOUT' });
  expect(railOf(other, 'reg:VOUT').rail.budgetMilliamps).toBe(250);
  const none = edited(plan, sheets, ...swapPart(plan, reg!, from, sheets.parts.get('light-bh1750')!.sheet));
  expect(none.wires['net:VCC']).toBeUndefined();
});

test('what a part feeds goes along to another board, where its input is wired anew', () => {
  const moved = ontoBoard(fed(), sheets, 'rp2040-stick-40')!;
  expect(moved.plan.wires['net:VCC']?.end).toEqual({ to: 'rail', rail: 'reg:VOUT' });
  expect(moved.plan.wires['reg:VIN']?.end).toEqual({ to: 'rail', rail: 'vbus' });
});

test('a load is in one component with what feeds it, so that its rail is known there', () => {
  const plan = edited(fed(), sheets, add('lamp', 'led-red-5mm'), wire('lamp:A', 'D9'));
  const components = connectedComponents(plan, sheets).map(({ placements }) => placements.map(({ id }) => id));
  expect(components).toEqual([['reg', 'net'], ['lamp']]);
});

test('a regulator fed from its own output, directly or around, is an error; one from another is none', () => {
  const codes = (plan: Plan) => findingsOf(plan, sheets).flatMap(({ code, message }) => (code === 'supply-wrong' ? [message] : []));
  const loop = edited(shield(), sheets, ...REGULATOR, wire('reg:VIN', 'rail reg:VOUT'));
  expect(codes(loop)).toEqual(['fed-by-itself']);
  const two = [add('b', 'regulator-ams1117-3v3'), wire('b:GND', 'ground'), wire('b:VIN', 'rail reg:VOUT')];
  expect(codes(edited(shield(), sheets, ...REGULATOR, ...two, wire('reg:VIN', 'rail b:VOUT')))).toEqual(['fed-by-itself', 'fed-by-itself']);
  expect(codes(fed())).toEqual([]);
  expect(codes(edited(fed(), sheets, wire('reg:VOUT', 'ground')))).toContain('output-on-ground');
  expect(codes(edited(fed(), sheets, wire('reg:VOUT', 'rail 5v')))).toContain('output-on-rail');
});

test('the build sheet leads loads to the module pin, several through a junction, and says when to switch a source on', () => {
  const plan = fed();
  const wireTo = (p: Plan) => buildList(p, sheets)!.supplies.find(({ key }) => key === 'net:VCC')!;
  expect(wireTo(plan)).toMatchObject({ endNumber: 3, at: [] });
  expect(wireTo(plan).joined).toBeUndefined();
  const both = edited(plan, sheets, add('eye', 'light-bh1750'), wire('eye:VCC', 'rail reg:VOUT'));
  expect(wireTo(both)).toMatchObject({ endNumber: 3, joined: 'junction' });
  expect(buildList(both, sheets)!.joints).toContainEqual({ end: { to: 'rail', rail: 'reg:VOUT' }, wires: 2, at: [], endNumber: 3 });
});

test('the smallest supply that is enough is offered: for 700 mA of a servo a source, for 132 mA a small regulator', () => {
  const servo = edited(shield(), sheets, add('s', 'servo-micro'), wire('s:VCC', 'rail 5v'), wire('s:GND', 'ground'));
  expect(separateSupplies(servo, sheets, 's', '5v').map(({ part }) => part.id)).toEqual(['supply-5v-usb']);
  const net = edited(shield(), sheets, add('n', 'ethernet-w5500'), wire('n:VCC', 'rail 3v3'), wire('n:GND', 'ground'));
  expect(separateSupplies(net, sheets, 'n', '3v3').map(({ part }) => part.id)).toEqual(['regulator-mcp1700-3v3']);
  const locked = edited(net, sheets, { kind: 'lock', placement: 'n', terminal: 'VCC', locked: true });
  expect(separateSupplies(locked, sheets, 'n', '3v3')).toEqual([]);
});
