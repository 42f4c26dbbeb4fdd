import { shippedSheets } from '../../tests/catalogue';
import { withBoard, withPart } from '../../tests/facts';
import { add, edited, shield, stick, wire } from '../../tests/makePlan';
import { analogSources } from '../electrics/reports/analogSource';
import { isThin } from '../electrics/formulas/ladder';
import { ladderReports } from '../electrics/reports/ladderReport';
import { setDriversOf } from '../electrics/reports/setDrivers';
import type { Edit } from '../plan/edit';
import type { Plan } from '../plan/plan';
import { findingsOf } from '../review/review';
import type { PartSheet } from '../sheets/partSheet';
import type { Sheets } from '../sheets/sheetIndex';

const sheets = shippedSheets();
/** Just below and just above a value that a limit is compared with. */
const BELOW = 1 - 1e-6;
const ABOVE = 1 + 1e-6;

/** Level and message of what a check finds, in order. */
const told = (code: string, plan: Plan, facts: Sheets = sheets): readonly string[] =>
  findingsOf(plan, facts).flatMap((finding) => (finding.code === code ? [`${finding.level} ${finding.message}`] : []));
const partFacts = (id: string, facts: Partial<PartSheet>): Sheets => withPart(sheets, id, (part) => ({ ...part, ...facts }));

test('adc-source-high: a source resistance up to what the converter is specified with', () => {
  const pull: Edit = { kind: 'pull', placement: 's', terminal: 'L2', pull: { ohms: 22_000, to: 'ground' } };
  const dusk = edited(shield(), sheets, add('s', 'light-photoresistor'), wire('s:L1', 'rail 5v'), wire('s:L2', 'A0'), pull);
  const { ohms } = analogSources(dusk, sheets)[0]!;
  const at = (sourceOhms: number) =>
    told(
      'adc-source-high',
      dusk,
      withBoard(sheets, 'atmega328p-5v-shield', (board) => ({ ...board, analog: { ...board.analog!, sourceOhms } })),
    );
  expect([at(ohms * ABOVE), at(ohms), at(ohms * BELOW)]).toEqual([[], [], ['hint high']]);
});

describe('ladder-ambiguous: keys on an analog input', () => {
  const plan = (row: number): Plan =>
    edited(stick(), sheets, add('k', 'keypad-ladder'), wire('k:OUT', 'GP26'), wire('k:VCC', 'rail 3v3'), {
      kind: 'ladder',
      placement: 'k',
      ladder: { pull: 10_000, row: [2200, row] },
    });
  const gap = (row: number): number => ladderReports(plan(row), sheets)[0]!.reading!.gap;
  /** The smallest resistor with which the keys are so many counts apart at their worst. */
  const rowFor = (counts: number): number => {
    let [low, high] = [1, 10_000];
    for (let step = 0; step < 60; step += 1) {
      const middle = (low + high) / 2;
      if (gap(middle) < counts) low = middle;
      else high = middle;
    }
    return high;
  };
  test('overlap at no distance, thin below half a percent of full scale', () => {
    const touching = rowFor(0);
    expect(gap(touching)).toBeCloseTo(0, 6);
    expect([told('ladder-ambiguous', plan(touching * BELOW)), told('ladder-ambiguous', plan(touching * ABOVE))]).toEqual([
      ['clash overlap'],
      ['risk thin'],
    ]);
    const apart = rowFor(0.005 * 4095);
    expect([told('ladder-ambiguous', plan(apart * BELOW)), told('ladder-ambiguous', plan(apart * ABOVE))]).toEqual([['risk thin'], []]);
  });
  test('8 counts and 0.5 % of full scale, whichever is more', () => {
    expect([isThin(8 * BELOW, 1023), isThin(8, 1023)]).toEqual([true, false]);
    expect([isThin(0.005 * 4095 * BELOW, 4095), isThin(0.005 * 4095, 4095)]).toEqual([true, false]);
  });
});

test('led-over-current: a driver that scans few digits, up to what these stand', () => {
  const id = 'driver-max7219-dip24';
  const plan = edited(
    stick(),
    sheets,
    add('m', id),
    add('d', 'seven-segment-1-cc'),
    { kind: 'series', placement: 'm', terminal: 'ISET', ohms: 27_000 },
    ...['a', 'b', 'c', 'd', 'e', 'f', 'g'].map((segment) => wire(`d:${segment}`, `m:SEG${segment.toUpperCase()}`)),
    wire('d:COM1', 'm:DIG0'),
  );
  const [driver] = setDriversOf(plan, sheets);
  expect(driver).toMatchObject({ few: { digits: 1 } });
  const { multiplex } = sheets.parts.get(id)!.sheet;
  const at = (milliamps: number) =>
    told('led-over-current', plan, partFacts(id, { multiplex: { ...multiplex!, fewDigitsMilliamps: [milliamps] } }));
  const most = driver!.amps!.max * 1000;
  expect([at(most * ABOVE), at(most), at(most * BELOW)]).toEqual([[], [], ['hint few']]);
});

describe('supply-wrong: an input that is tied to another rail than its own', () => {
  const id = 'shift-out-74hc595';
  const register = (supply: string, clear: string): Plan =>
    edited(stick(), sheets, add('x', id), wire('x:VCC', `rail ${supply}`), wire('x:GND', 'ground'), wire('x:SRCLR', `rail ${clear}`));
  const { levels } = sheets.parts.get(id)!.sheet;
  const rails = sheets.boards.get('rp2040-stick-40')!.sheet.rails.list;
  const rail = (name: string) => rails.find((one) => one.id === name)!.volts;
  const tied = (plan: Plan, facts: Partial<NonNullable<PartSheet['levels']>>) =>
    told('supply-wrong', plan, partFacts(id, { levels: { ...levels!, ...facts } })).filter((one) => one.includes('tied'));
  test('too high: up to what its inputs stand at the highest voltage of the rail', () => {
    const plan = register('3v3', 'vbus');
    const most = rail('vbus').max;
    expect([tied(plan, { tolerantVolts: most }), tied(plan, { tolerantVolts: most * BELOW })]).toEqual([[], ['clash tied-too-high']]);
  });
  test('too low: down to its VIH at the lowest voltage of the rail', () => {
    const plan = register('vbus', '3v3');
    const least = rail('3v3').min;
    const vih = (volts: number) => ({ vihMin: { volts } });
    expect([tied(plan, vih(least)), tied(plan, vih(least * ABOVE))]).toEqual([[], ['risk tied-too-low']]);
  });
});
