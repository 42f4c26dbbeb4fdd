import { shippedSheets } from '../../tests/catalogue';
import { add, edited, shield, stick, wire } from '../../tests/makePlan';
import { reviewPlan } from './review';

const sheets = shippedSheets();
const ledgers = (plan: ReturnType<typeof stick>) => {
  const result = reviewPlan(plan, sheets);
  if (!result.ok) throw new Error(JSON.stringify(result.missing));
  return result.review.ledgers;
};

test('pins with a wire are counted once, whatever hangs on them', () => {
  const plan = edited(
    stick(),
    sheets,
    add('a', 'humidity-sht31'),
    add('b', 'humidity-sht31'),
    wire('a:SDA', 'GP4'),
    wire('b:SDA', 'GP4'),
    wire('a:SCL', 'GP5'),
    wire('b:AD', 'ground'),
  );
  expect(ledgers(plan).pins).toEqual({ used: 2, total: 26 });
});

test('each rail adds up what hangs on it, through other terminals too; a part without supply takes nothing', () => {
  const plan = edited(
    stick(),
    sheets,
    add('lcd', 'lcd-2004-pcf8574'),
    add('sd', 'sd-card-3v3'),
    add('oled', 'oled-096-ssd1306-i2c'),
    add('led', 'led-red-5mm'),
    wire('lcd:VCC', 'rail vbus'),
    wire('sd:VCC', 'rail 3v3'),
    wire('oled:VCC', 'sd:VCC'),
    wire('led:A', 'GP2'),
  );
  const rails = Object.fromEntries(
    ledgers(plan).rails.map((r) => [r.rail, [r.typicalMilliamps, r.peakMilliamps, r.budgetMilliamps, r.lines.map((l) => l.placement)]]),
  );
  // VBUS feeds 3V3 as well, through a converter of 85 % from 4.7 V: its parts, and the 35 mA and 120 mA of the board itself.
  const through = (milliamps: number) => (milliamps * 3.3) / (4.7 * 0.85);
  expect(rails).toEqual({
    '3v3': [42, 130, 300, ['sd', 'oled']],
    vbus: [expect.closeTo(60 + through(42 + 35), 9), expect.closeTo(120 + through(130 + 120), 9), 500, [undefined, 'lcd']],
  });
});

test('rails that feed the board have no ledger', () => {
  expect(ledgers(shield()).rails.map((r) => r.rail)).toEqual(['5v', '3v3']);
});

test('a plan whose sheet is gone is named, not guessed at', () => {
  const plan = edited(stick(), sheets, add('a', 'humidity-sht31'));
  const lost = { ...plan, placements: [{ ...plan.placements[0]!, sheet: { id: 'gone', version: 1 } }] };
  expect(reviewPlan(lost, sheets)).toEqual({ ok: false, missing: { kind: 'part', id: 'gone' } });
  expect(reviewPlan({ ...plan, board: { id: 'gone', version: 1 } }, sheets)).toEqual({ ok: false, missing: { kind: 'board', id: 'gone' } });
});
