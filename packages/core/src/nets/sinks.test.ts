import { shippedSheets } from '../../tests/catalogue';
import { findingsOf } from '../../tests/checkHarness';
import { add, edited, stick, wire } from '../../tests/makePlan';
import { assignPins } from '../assign/assignPins';
import { planComponents } from '../electrics/reports/components';
import { ledReports } from '../electrics/reports/ledReport';
import type { Edit } from '../plan/edit';
import { completeAddition } from '../review/additionNeeds';
import { indexSheets } from '../sheets/sheetIndex';
import { otherEnds } from './otherEnds';
import { segmentTable } from '../displays/segmentTable';
import { openOf } from './openTerminals';
import { planTerminals } from './terminals';

const sheets = shippedSheets();
const to = (from: string, placement: string, terminal: string): Edit => {
  const [id, own] = from.split(':') as [string, string];
  return { kind: 'wire', placement: id, terminal: own, end: { to: 'terminal', placement, terminal } };
};
const kinds = (plan: Parameters<typeof planComponents>[0]) => planComponents(plan, sheets).map(({ name, kind }) => [name, kind]);

test('a bare relay comes with its transistor, its base resistor and the diode across its coil', () => {
  const addition = completeAddition(stick(), sheets, sheets.parts.get('relay-coil-5v')!.sheet)!;
  const plan = addition.needs!.plan;
  expect(findingsOf(plan, sheets).filter((f) => f.level !== 'hint')).toEqual([]);
  expect(kinds(plan)).toEqual([
    ['Q1', 'transistor'],
    ['R1', 'resistor'],
    ['D1', 'diode'],
  ]);
  expect(planComponents(plan, sheets).at(-1)!.ends).toEqual([
    { leg: 'cathode', at: { to: 'terminal', placement: 'output-1', terminal: 'A1' } },
    { leg: 'anode', at: { to: 'terminal', placement: 'output-1', terminal: 'A2' } },
  ]);
});

test('an output of a transistor array asks for a pin at its own input, and clamps the coil once its diodes are wired', () => {
  const plan = edited(
    stick(),
    sheets,
    add('r', 'relay-coil-5v', 'Relay'),
    add('u', 'driver-uln2803', 'Array'),
    wire('r:A1', 'rail vbus'),
    wire('u:GND', 'ground'),
    to('r:A2', 'u', 'O3'),
  );
  expect(openOf(plan, planTerminals(plan, sheets)).map(({ key }) => key)).toEqual(['u:I3']);
  expect(kinds(plan)).toEqual([['D1', 'diode']]);
  const wired = assignPins(plan, sheets)!.plan;
  expect(wired.wires['u:I3']!.end.to).toBe('pin');
  expect(wired.wires['u:I4']).toBeUndefined();
  expect(kinds(edited(wired, sheets, wire('u:COM', 'rail vbus')))).toEqual([]);
  expect(findingsOf(wired, sheets).filter((f) => f.level !== 'hint')).toEqual([]);
});

test('coils and common cathodes are offered its outputs, each to one; anodes and inputs are not', () => {
  const plan = edited(
    stick(),
    sheets,
    add('r', 'relay-coil-5v'),
    add('q', 'relay-coil-5v'),
    add('s', 'seven-segment-1-cc'),
    add('t', 'seven-segment-1-ca'),
    add('u', 'driver-uln2803'),
    to('q:A2', 'u', 'O1'),
  );
  const offered = (key: string) =>
    otherEnds(
      plan,
      sheets,
      planTerminals(plan, sheets).find((t) => t.key === key)!,
    ).filter((end) => end.placement === 'u');
  expect(offered('r:A2').map(({ terminal }) => terminal)).toEqual(['O8', 'O7', 'O6', 'O5', 'O4', 'O3', 'O2']);
  expect(offered('s:COM1')).toHaveLength(7);
  expect([offered('s:a'), offered('t:COM1'), offered('r:A1')]).toEqual([[], [], []]);
});

test('what the output keeps lowers the current of the segments', () => {
  const digit = (common: Edit) =>
    edited(stick(), sheets, add('s', 'seven-segment-1-cc'), add('u', 'driver-uln2803'), wire('s:a', 'GP2'), common, {
      kind: 'series',
      placement: 's',
      terminal: 'a',
      ohms: 100,
    });
  const amps = (common: Edit) => ledReports(digit(common), sheets)[0]!.amps.typ!;
  const [direct, switched] = [amps(wire('s:COM1', 'ground')), amps(to('s:COM1', 'u', 'O1'))];
  // 3.3 V − 2 V − 0.9 V leave less than a third of the voltage for the resistor.
  expect(switched).toBeLessThan(direct / 2);
});

/** Relays of another coil current, so many of them on one array. */
function relays(milliamps: number, count: number) {
  const relay = sheets.parts.get('relay-coil-5v')!.sheet;
  const list = relay.terminals.list.map((t) => (t.coil ? { ...t, loadMilliamps: milliamps } : t));
  const changed = indexSheets([
    sheets.boards.get('rp2040-stick-40')!.sheet,
    sheets.parts.get('driver-uln2803')!.sheet,
    { ...relay, terminals: { ...relay.terminals, list } },
  ]);
  const each = Array.from({ length: count }, (_, n): Edit[] => [
    add(`r${n}`, relay.id),
    wire(`r${n}:A1`, 'rail vbus'),
    to(`r${n}:A2`, 'u', `O${n + 1}`),
  ]);
  const plan = edited(stick(), changed, add('u', 'driver-uln2803', 'Array'), wire('u:GND', 'ground'), ...each.flat());
  return findingsOf(plan, changed).flatMap(({ code, message, data }) =>
    code === 'package-current-over' ? [[message, data['limit']]] : [],
  );
}

test('an output of the array carries 500 mA, and all together 2.5 A', () => {
  const amps = (value: number) => ({ is: 'quantity', value, unit: 'A' });
  expect(relays(500, 1)).toEqual([]);
  expect(relays(501, 1)).toEqual([['one', amps(0.5)]]);
  expect(relays(312.5, 8)).toEqual([]);
  expect(relays(313, 8)).toEqual([['all', amps(2.5)]]);
});

test('a decoder selects digits of common cathodes: one output each, in order, within what an output carries; common anodes are not offered it', () => {
  const digits = (sheet: string) => edited(stick(), sheets, add('s', sheet, 'Digits'), add('d', 'decoder-74hc138', 'Decoder'));
  const offered = (sheet: string) => {
    const plan = digits(sheet);
    const item = planTerminals(plan, sheets).find(({ key }) => key === 's:DIG1')!;
    return otherEnds(plan, sheets, item).flatMap(({ placement, terminal, reason }) => (placement === 'd' ? [`${terminal} ${reason}`] : []));
  };
  expect(offered('seven-segment-4-cc').toSorted()).toEqual(['Y0', 'Y1', 'Y2', 'Y3', 'Y4', 'Y5', 'Y6'].map((id) => `${id} port`));
  expect(offered('seven-segment-4-ca')).toEqual([]);
  const ohms = (each: number): Edit[] =>
    ['a', 'b', 'c', 'd', 'e', 'f', 'g', 'dp'].map((terminal) => ({ kind: 'series', placement: 's', terminal, ohms: each }));
  const plan = edited(
    digits('seven-segment-4-cc'),
    sheets,
    wire('d:VCC', 'rail 3v3'),
    wire('d:GND', 'ground'),
    ...['a', 'b', 'c', 'd', 'e', 'f', 'g', 'dp'].map((id, n) => wire(`s:${id}`, `GP${n}`)),
    ...['DIG1', 'DIG2', 'DIG3', 'DIG4'].map((id, n) => to(`s:${id}`, 'd', `Y${n}`)),
  );
  const codes = (each: number) =>
    findingsOf(edited(plan, sheets, ...ohms(each)), sheets).flatMap(({ code, message }) =>
      code === 'digit-driver-missing' ? [message] : [],
    );
  // Eight segments at about 1.3 V / R: 16 mA through 680 Ω, 47 mA through 220 Ω; an output of the decoder carries 25 mA.
  expect(codes(680)).toEqual([]);
  expect(codes(220)).toEqual(['output']);
  const table = segmentTable(edited(plan, sheets, ...ohms(680)), sheets, 's')!;
  expect(table.digits).toEqual(['DIG1', 'DIG2', 'DIG3', 'DIG4'].map((digit, index) => ({ digit, output: `Y${index}`, index })));
});
