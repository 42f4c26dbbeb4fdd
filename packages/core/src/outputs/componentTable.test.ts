import Papa from 'papaparse';
import { shippedSheets } from '../../tests/catalogue';
import { add, edited, stick, wire } from '../../tests/makePlan';
import { componentsCsv } from './componentTable';

const sheets = shippedSheets();

test('every component has a row with its legs; formulas in names are not run by a spreadsheet', () => {
  expect(componentsCsv(stick(), sheets)).toBeUndefined();
  const plan = edited(
    stick(),
    sheets,
    add('l', 'led-red-5mm', '=2+3'),
    wire('l:A', 'GP2'),
    { kind: 'series', placement: 'l', terminal: 'A', ohms: 330 },
    { kind: 'driver', placement: 'l', terminal: 'A', driver: { kind: 'npn', ohms: 1000 } },
  );
  const { data, errors } = Papa.parse<string[]>(componentsCsv(plan, sheets)!.trim());
  expect(errors).toEqual([]);
  expect(data).toEqual([
    ['Name', 'Kind', 'Value', 'Legs', 'Belongs to'],
    ['Q1', 'NPN transistor', '', 'base: R1; emitter: GND; collector: R2', "'=2+3 anode"],
    ['R1', 'resistor', '1 kΩ', 'GP2; Q1 base', "'=2+3 anode"],
    ['R2', 'resistor', '330 Ω', "'=2+3 anode; Q1 collector", "'=2+3 anode"],
  ]);
});
