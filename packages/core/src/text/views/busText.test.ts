import { shippedSheets } from '../../../tests/catalogue';
import { add, edited, stick, wire } from '../../../tests/makePlan';
import { findBuses } from '../../nets/buses';
import type { Edit } from '../../plan/edit';
import type { Plan } from '../../plan/plan';
import { i2cReport } from '../../review/i2cReport';
import { percent, pullUpAdvice, idleLevelText, timeText } from './busText';

const sheets = shippedSheets();
const member = (id: string, sheet: string, name: string): Edit[] => [
  add(id, sheet, name),
  wire(`${id}:SDA`, 'GP4'),
  wire(`${id}:SCL`, 'GP5'),
  wire(`${id}:VCC`, 'rail 3v3'),
];
const plan = (...edits: readonly Edit[]): Plan => edited(stick(), sheets, ...edits);
const sheetOf = (of: Plan) => i2cReport(of, sheets, findBuses(of, sheets)[0]!)!;
const advice = (of: Plan) => pullUpAdvice(of, sheetOf(of).segments[0]);

test('where nothing is needed it says so, with the numbers', () => {
  expect(advice(plan(...member('a', 'oled-096-ssd1306-i2c', 'Screen')))).toMatch(
    /^OK: rise time of S(DA|CL) [\d.]+ ns \(limit 300 ns at 400 kHz\); worst-case sink current [\d.]+ (mA|µA) \(.*: [34] mA\)\.$/,
  );
});

test('without any pull-up one is named to be added, and with it nothing is needed', () => {
  const bare = plan(...member('x', 'expander-mcp23017', 'Ports'));
  expect(advice(bare)).toMatch(/^No pull-up resistors: add [\d.]+ kΩ to each line\.$/);
  const { add: ohms } = sheetOf(bare).segments[0];
  const mended = edited(bare, sheets, { kind: 'bus-settings', segment: 'i2c0', settings: { addedOhms: ohms! } });
  expect(advice(mended)).toMatch(/^OK: /);
});

test('too many modules: the fewest whose pull-ups to cut are named, and those that are left do', () => {
  const many = plan(...Array.from({ length: 6 }, (_, at) => member(`c${at}`, 'clock-ds1307', `Clock ${at}`)).flat());
  expect(advice(many)).toMatch(
    /^Too strong: worst-case sink current [\d.]+ mA .* Remove the pull-ups of Clock 0(, Clock \d)* and Clock \d\.$/,
  );
});

test('a long bus is too weak for its clock, and the mode that it still keeps is named', () => {
  const long = edited(plan(...member('a', 'humidity-sht31', 'Air')), sheets, {
    kind: 'bus-settings',
    segment: 'i2c0',
    settings: { picofarads: 110, hz: 400_000 },
  });
  expect(advice(long)).toMatch(/^Too weak: .* Add [\d.]+ kΩ to each line\. The present pull-ups allow standard mode\.$/);
});

test('who sets the clock, who waits, what is not known', () => {
  const slow = plan(...member('a', 'oled-096-ssd1306-i2c', 'Screen'), ...member('l', 'lcd-2004-pcf8574', 'Text'));
  expect(timeText(slow, sheetOf(slow))).toMatch(
    /^Text limits the clock to 100 kHz; the other devices support 400 kHz\. Longest wait for another transfer: 1\.64 ms/,
  );
  const often = edited(slow, sheets, { kind: 'rate', placement: 'a', perSecond: 30 });
  expect([sheetOf(often).time.share > 1, timeText(often, sheetOf(often))]).toEqual([
    true,
    expect.stringMatching(/Utilisation above 100 %/),
  ]);
  expect([percent(0.0421), percent(0.5), percent(0.00042)]).toEqual(['4.2 %', '50 %', '0.042 %']);
});

test('a part that pulls to 5 V is named where the board does not take it, and not on a board of 5 V', () => {
  const mixed = edited(
    plan(...member('a', 'oled-096-ssd1306-i2c', 'Screen'), ...member('l', 'lcd-2004-pcf8574', 'Text')),
    sheets,
    wire('l:VCC', 'rail vbus'),
  );
  expect(idleLevelText(mixed, sheetOf(mixed).segments[0])).toMatch(
    /^Idle level up to 4\.\d+ V; the board tolerates 3\.\d+ V\. Pulled up by Text:/,
  );
  const alone = plan(...member('a', 'oled-096-ssd1306-i2c', 'Screen'));
  expect(idleLevelText(alone, sheetOf(alone).segments[0])).toBe('');
});
