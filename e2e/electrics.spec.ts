import { expect, findings, planWith, saved, storedPlan, test } from './workplace';

const wire = (placement: string, terminal: string, end: object) => ({ kind: 'wire', placement, terminal, end });
const pin = (name: string) => ({ to: 'pin', pin: name });
const rail = (name: string) => ({ to: 'rail', rail: name });

test('Levels: two parts at 5 V go across together, channel by channel, and back by one undo', async ({ page, request }) => {
  const id = await planWith(
    request,
    'rp2040-stick-40',
    ['matrix-8x8-max7219', 'distance-ultrasonic-5v'],
    [
      wire('p0', 'VCC', rail('vbus')),
      wire('p0', 'DIN', pin('GP19')),
      wire('p0', 'CLK', pin('GP18')),
      wire('p0', 'CS', pin('GP17')),
      wire('p1', 'VCC', rail('vbus')),
      wire('p1', 'TRIG', pin('GP2')),
      wire('p1', 'ECHO', pin('GP3')),
    ],
  );
  await page.goto(`/plans/${id}/levels`);
  await expect(page.getByText(/up to 5\.25 V, the board tolerates 3\.7 V\. Do not apply power/)).toBeVisible();
  await page.getByRole('button', { name: 'Level-shift all together' }).click();
  const shifters = page.getByRole('region', { name: 'Level shifters' });
  await expect(shifters.getByRole('table').first()).toBeVisible();
  await expect(shifters).toContainText('Part 0 CLK');
  await expect(shifters).toContainText('Part 1 ECHO');
  await expect(findings(page)).not.toContainText('maximum 3.7 V');
  await saved(page);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(shifters).toBeHidden();
  // One of the ways of a single part: two resistors on hand.
  await page.getByRole('main').getByRole('button', { name: 'Add a voltage divider at ECHO' }).click();
  await saved(page);
  const { plan } = await storedPlan(request, id);
  expect(Object.keys((plan as unknown as { series: object }).series)).toEqual(['p1:ECHO']);
});

test('Resistors: a missing one is put in, stepped by key, seen in its load line; a calculation goes into the plan', async ({
  page,
  request,
}) => {
  const id = await planWith(
    request,
    'rp2040-stick-40',
    ['led-red-5mm', 'buzzer-active'],
    [wire('p0', 'A', pin('GP2')), wire('p1', 'PLUS', pin('GP3'))],
  );
  await page.goto(`/plans/${id}/resistors`);
  await page.getByRole('button', { name: 'Add 180 Ω', exact: true }).click();
  await expect(page.getByText(/nominal, .* worst case; maximum 12 mA/)).toBeVisible();
  await page.getByRole('button', { name: 'Part 0 anode: next value up' }).press('Enter');
  await expect(page.getByRole('row', { name: /^R1 Part 0 anode/ })).toContainText('220 Ω');
  await expect(page.getByRole('img', { name: 'red, red, brown, gold' })).toBeVisible();
  await page.getByLabel('Calculation').selectOption({ label: 'Base resistor of a transistor switch' });
  await page.getByRole('button', { name: 'Calculate' }).click();
  await expect(page.getByRole('alert')).toContainText('load: expected');
  await page.getByLabel('Load current', { exact: true }).fill('30m');
  await page.getByRole('button', { name: 'Calculate' }).click();
  await expect(page.getByText('R = (VOH − VBE) · β / I', { exact: false })).toBeVisible();
  await page.getByLabel('Terminal for this value').selectOption({ label: 'Part 1 +' });
  await page.getByRole('button', { name: 'Add to the plan' }).click();
  const kind = page.getByLabel('Transistor at Part 1 +');
  await expect(kind).toHaveValue('npn');
  await kind.selectOption('pnp');
  await expect(kind).toHaveValue('pnp');
  await saved(page);
});

test('Supply: pixels are counted, what is on at once eases the rail, capacitors are ticked', async ({ page, request }) => {
  const id = await planWith(
    request,
    'rp2040-stick-40',
    ['strip-ws2812b'],
    [wire('p0', 'VCC', rail('vbus')), wire('p0', 'GND', { to: 'ground' })],
  );
  await page.goto(`/plans/${id}/supply`);
  await page.getByText('Quantities and simultaneous use').last().click();
  await page.getByLabel('Number of pixels of Part 0').fill('20');
  await page.keyboard.press('Tab');
  await expect(findings(page)).toContainText('VBUS overloaded: 1.3 A peak, limit 500 mA');
  await page.getByLabel('Simultaneous use of Part 0, per cent of peak').fill('30');
  await page.keyboard.press('Tab');
  await expect(findings(page)).not.toContainText('VBUS overloaded');
  await page.getByRole('checkbox', { name: /^Part 0: 470 µF/ }).check();
  await expect(findings(page)).not.toContainText('capacitor 470 µF missing');
  await saved(page);
  await page.reload();
  await expect(page.getByRole('region', { name: 'VBUS' })).toContainText('429 mA average');
});

test('Readout: text on the real rows, what is cut is told; bare segments have the bytes of their wiring', async ({ page, request }) => {
  const segments = ['a', 'b', 'c', 'd', 'e', 'f', 'g', 'dp'];
  const id = await planWith(
    request,
    'rp2040-stick-40',
    ['lcd-1602-pcf8574', 'seven-segment-1-ca', 'shift-out-74hc595'],
    [...segments.map((segment, at) => wire('p1', segment, { to: 'terminal', placement: 'p2', terminal: `Q${'ABCDEFGH'[at]}` }))],
  );
  await page.goto(`/plans/${id}/readout`);
  const lcd = page.getByRole('region', { name: 'Part 0' });
  await lcd.getByLabel('Text', { exact: true }).fill('Brood 34.5 °C and humid');
  await expect(lcd.getByText('2 rows × 16 characters; 7 characters cut off')).toBeVisible();
  await page.keyboard.press('Tab');
  await expect(findings(page)).toContainText('Part 0: 7 characters of the text cut off');
  const digit = page.getByRole('region', { name: 'Part 1' });
  await expect(digit.getByRole('row', { name: /^Byte 0xC0 0xF9 0xA4/ })).toBeVisible();
  await expect(digit).toContainText('common anode');
  await saved(page);
});
