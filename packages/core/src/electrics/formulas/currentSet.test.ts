import fc from 'fast-check';
import { shippedSheets } from '../../../tests/catalogue';
import { readSheet } from '../../sheets/readSheet';
import { currentSetAmps, currentSetOhms } from './currentSet';

const table = shippedSheets().parts.get('driver-max7219-dip24')!.sheet.currentSet!;

test('the points of the table are met, at every voltage of it', () => {
  for (const { milliamps, kiloohms } of table.rows)
    for (const [at, volts] of table.ledVolts.entries())
      expect(currentSetOhms(table, milliamps / 1000, volts)).toBeCloseTo(kiloohms[at]! * 1000, 6);
  expect(currentSetOhms(table, 20e-3, 2)).toBeCloseTo(28_000, 6);
});

test('between the points it never gives more current than asked for, and a resistor gives back the current it is for', () => {
  fc.assert(
    fc.property(fc.double({ min: 0.01, max: 0.04, noNaN: true }), fc.double({ min: 1.5, max: 3.5, noNaN: true }), (amps, volts) => {
      const ohms = currentSetOhms(table, amps, volts);
      const back = currentSetAmps(table, ohms, volts, 0.05);
      expect(back.typ).toBeCloseTo(amps, 9);
      expect(back.min < amps && amps < back.max).toBe(true);
      // More volts of the LEDs, or more current, never ask for more resistance.
      expect(currentSetOhms(table, amps, Math.min(3.5, volts + 0.5))).toBeLessThanOrEqual(ohms + 1e-6);
      expect(currentSetOhms(table, Math.min(0.04, amps * 1.1), volts)).toBeLessThanOrEqual(ohms + 1e-6);
    }),
  );
});

test('a current that the driver does not give is refused', () => {
  expect(() => currentSetOhms(table, 0.05, 2)).toThrow('covers 0.01 A to 0.04 A');
  // Below its last row the table says nothing, and the curve bends.
  expect(() => currentSetOhms(table, 0.009, 2)).toThrow('covers 0.01 A to 0.04 A');
  expect(() => currentSetOhms(table, 0, 2)).toThrow('table covers');
});

test('a table with a row that is too short is no sheet', () => {
  const { sheet } = shippedSheets().parts.get('driver-max7219-dip24')!;
  const [first, ...rest] = sheet.currentSet!.rows;
  const rows = [{ ...first!, kiloohms: first!.kiloohms.slice(1) }, ...rest];
  const read = readSheet({ ...sheet, currentSet: { ...sheet.currentSet!, rows } });
  expect(read).toMatchObject({ ok: false, faults: [{ path: 'currentSet.rows', fault: '40 mA: one resistance per LED voltage required' }] });
});
