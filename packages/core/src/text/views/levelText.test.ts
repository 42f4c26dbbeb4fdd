import { levelPairs } from '../../electrics/reports/levels';
import type { Plan } from '../../plan/plan';
import { shippedSheets } from '../../../tests/catalogue';
import { add, edited, stick, wire, wired } from '../../../tests/makePlan';
import { groupHead, isSaidByRow, levelGroups, levelText, verdictText } from './levelText';

const sheets = shippedSheets();
const groups = (plan: Plan) => levelGroups(plan, sheets, levelPairs(plan, sheets));
const text = edited(
  stick(),
  sheets,
  add('l', 'lcd-2004-pcf8574', 'Text'),
  wire('l:SDA', 'GP4'),
  wire('l:SCL', 'GP5'),
  wire('l:VCC', 'rail vbus'),
);

test('lines that are judged alike are one entry, the worst first, and it says by how much', () => {
  const all = groups(text);
  expect(all.map((group) => groupHead(text, group))).toEqual(['Text SDA and SCL → board', 'Text SDA and SCL ← board']);
  expect(levelText(text, all[0]!)).toBe('Text SDA and SCL: up to 5.25 V, the board tolerates 3.7 V. Do not apply power.');
});

test('a row says its margin; a sentence is added where that is not all', () => {
  const said = (plan: Plan) => groups(plan).map((group) => [verdictText(group.pair), isSaidByRow(group)]);
  expect(said(text)).toEqual([
    ['over-voltage', false],
    [expect.stringMatching(/^\d+ mV(, low)?$|^no margin$/), expect.any(Boolean)],
  ]);
  const good = edited(stick(), sheets, ...wired('h', 'humidity-sht31', { SDA: 'GP4', SCL: 'GP5', VCC: 'rail 3v3', GND: 'ground' }));
  for (const [words, isSaid] of said(good)) expect([words, isSaid]).toEqual([expect.stringMatching(/^\d+ mV$/), true]);
});

test('a high that is too low names both numbers; a part whose sheet has no thresholds is said to be taken for CMOS', () => {
  const cut = edited(
    text,
    sheets,
    { kind: 'cut-pull-ups', placement: 'l', cut: true },
    { kind: 'bus-settings', segment: 'i2c0', settings: { addedOhms: 2200 } },
  );
  const bad = groups(cut).find((group) => group.pair.verdict === 'none')!;
  expect(levelText(cut, bad)).toMatch(/^Text SDA and SCL: VOH 3\.\d+ V, VIH of Text 3\.67 V\. It may work on the bench/);
  const strip = edited(stick(), sheets, add('s', 'strip-ws2812b', 'Strip'), wire('s:DIN', 'GP2'), wire('s:VCC', 'rail 3v3'));
  expect(groups(strip).map((group) => levelText(strip, group))).toEqual([
    expect.stringMatching(/^Strip DIN: \d+ mV noise margin, worst case\.$/),
  ]);
});
