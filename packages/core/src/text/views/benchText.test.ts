import { shippedSheets } from '../../../tests/catalogue';
import { add, edited, stick, wire } from '../../../tests/makePlan';
import { compareScan, scannedBuses } from '../../bench/reconcile';
import { comparedText, conclusionText, scanText } from './benchText';

const sheets = shippedSheets();
const plan = edited(stick(), sheets, add('m', 'lcd-1602-pcf8574a', 'Text'), wire('m:SDA', 'GP4'), wire('m:SCL', 'GP5'));
const bus = scannedBuses(plan, sheets)[0]!;

test('a dead bus names its pins, and what to check first', () => {
  expect(conclusionText(plan, sheets, bus, 'none-responds')).toMatch(/^No device responds\. .*SDA \(GP4\) and SCL \(GP5\) swapped/);
  expect(conclusionText(plan, sheets, bus, 'all-respond')).toMatch(/^Every address responds: SDA \(GP4\) is held low/);
});

test('each line says who is meant, or who it could be', () => {
  const said = compareScan(plan, sheets, bus, { addresses: [0x27], held: [] }).map((line) => comparedText(plan, sheets, line));
  expect(said).toEqual([
    expect.stringMatching(/^It could be: Distance VL53L0X, to 2 m; .* or \d+ more\.$/),
    expect.stringMatching(/^Text did not acknowledge/),
  ]);
});

test('a scan says how it was read', () => {
  const scan = { addresses: [0x3c], held: [0x68], form: 'hex', eightBit: true, unread: ['0x123'] } as const;
  expect(scanText(scan)).toBe(
    'Read as hexadecimal numbers: 1 address. Converted from 8-bit to 7-bit addresses. 0x68 in use by a kernel driver. Ignored: 0x123.',
  );
});
