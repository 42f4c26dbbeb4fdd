import { readFile } from 'node:fs/promises';
import { greyPng } from './png';
import { expect, findings, openFinding, planWith, saved, storedPlan, test } from './workplace';

const png = (name: string, buffer: Buffer) => ({ name, mimeType: 'image/png', buffer });

test('a picture becomes bytes in the stated order, is counted in the flash, and comes off again by undo', async ({ page, request }) => {
  const id = await planWith(request, 'atmega328p-5v-shield', ['oled-096-ssd1306-i2c']);
  await page.goto(`/plans/${id}/readout`);
  const display = page.getByRole('region', { name: 'Part 0' });
  await display.getByText('Pictures (0)').click();
  const file = display.locator('input[type=file]');
  await file.setInputFiles(
    png(
      'huge.png',
      greyPng(5000, 4000, () => 0),
    ),
  );
  await expect(display.getByRole('alert')).toContainText('huge.png has 5000 × 4000 pixels; the limit is 16 million');
  await file.setInputFiles(png('words.png', Buffer.from('no picture')));
  await expect(display.getByRole('alert')).toContainText('words.png is not an image this browser can read');
  // White above, black below: half of all pages are full.
  await file.setInputFiles(
    png(
      'half.png',
      greyPng(128, 64, (_, y) => (y < 32 ? 255 : 0)),
    ),
  );
  await expect(display.getByRole('alert')).toBeHidden();
  await expect(display.getByText('1.02 kB: eight vertical pixels per byte, lowest bit on top')).toBeVisible();
  const saving = page.waitForEvent('download');
  await display.getByRole('button', { name: 'Save as a file' }).click();
  const bytes = await readFile(await (await saving).path());
  expect([bytes.length, bytes.subarray(0, 512).every((b) => b === 0xff), bytes.subarray(512).every((b) => b === 0)]).toEqual([
    1024,
    true,
    true,
  ]);
  await display.getByLabel('Inverted').check();
  await expect(display.getByText(/each column by column, inverted/)).toBeVisible();
  await display.getByRole('button', { name: 'Add to the flash total' }).click();
  await expect(page.getByRole('region', { name: 'Flash' })).toContainText('half.png');
  await saved(page);
  const { plan } = await storedPlan(request, id);
  expect((plan as unknown as { readouts: object }).readouts).toEqual({
    p0: { pictures: [{ name: 'half.png', width: 128, height: 64, bytes: 1024 }] },
  });
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('region', { name: 'Flash' })).toBeHidden();
});

test('a long text runs through a chain; a character of one’s own fills what the display lacks', async ({ page, request }) => {
  const id = await planWith(request, 'rp2040-stick-40', ['matrix-32x8-max7219', 'lcd-1602-pcf8574']);
  await page.goto(`/plans/${id}/readout`);
  const matrix = page.getByRole('region', { name: 'Part 0' });
  await matrix.getByLabel('Text', { exact: true }).fill('Ferry in 12 min');
  await page.keyboard.press('Tab');
  await expect(findings(page)).toContainText('of the text cut off');
  await openFinding(page, 'of the text cut off');
  await page.getByRole('button', { name: 'Scroll the text' }).click();
  await expect(matrix.getByText('scrolls: 90 columns wide, 122 steps, 6.1 s at 20 steps per second')).toBeVisible();
  await expect(findings(page)).not.toContainText('cut off');
  const slider = matrix.getByRole('slider', { name: 'Scroll step of Part 0' });
  await slider.press('End');
  await expect(slider).toHaveAttribute('aria-valuenow', '122');

  const lcd = page.getByRole('region', { name: 'Part 1' });
  await lcd.getByLabel('Text', { exact: true }).fill('Crêpe');
  await page.keyboard.press('Tab');
  await expect(findings(page)).toContainText('Part 1 cannot show ê');
  await lcd.getByText('Custom characters (0)').click();
  await lcd.getByLabel('Character', { exact: true }).fill('ê');
  await page.keyboard.press('Enter');
  await expect(findings(page)).not.toContainText('cannot show');
  const dot = lcd.getByRole('button', { name: 'row 1, column 2' });
  await dot.click();
  await expect(dot).toHaveAttribute('aria-pressed', 'true');
  await saved(page);
  const { plan } = await storedPlan(request, id);
  expect((plan as unknown as { readouts: { p1: object } }).readouts.p1).toEqual({ text: 'Crêpe', glyphs: { ê: [8, 0, 0, 0, 0, 0, 0, 0] } });
});

test('keys on one pin: read off, chosen, told apart; a long search shows how far it is and can be stopped', async ({ page, request }) => {
  const id = await planWith(
    request,
    'rp2040-stick-40',
    ['keypad-ladder'],
    [
      { kind: 'wire', placement: 'p0', terminal: 'OUT', end: { to: 'pin', pin: 'GP26' } },
      { kind: 'wire', placement: 'p0', terminal: 'VCC', end: { to: 'rail', rail: '3v3' } },
    ],
  );
  await page.goto(`/plans/${id}/resistors`);
  const keys = page.getByRole('region', { name: 'Keys of Part 0' });
  await expect(findings(page)).toContainText('Part 0: resistor values unknown');
  const field = keys.getByLabel(/^Resistors: from the pin to ground first/);
  await field.fill('10k, 22k, 47k, x');
  await page.keyboard.press('Enter');
  await expect(keys.getByText('x is not a resistance')).toBeVisible();
  await field.fill('10k, 22k, 47k, 4k7');
  await page.keyboard.press('Enter');
  await expect(findings(page)).toContainText('Part 0: two keys give the same reading');
  await openFinding(page, 'two keys give the same reading');
  await page.getByRole('button', { name: 'Choose resistors for Part 0 from the values on hand' }).click();
  await expect(findings(page)).not.toContainText('same reading');
  await expect(keys.getByText(/^4 keys, full scale 4095 counts; the closest two are \d+ apart in the worst case/)).toBeVisible();
  await saved(page);

  await page.getByLabel('Calculation').selectOption('ladder');
  await page.getByLabel('Keys', { exact: true }).fill('40');
  await page.getByRole('button', { name: 'Calculate' }).click();
  await expect(page.getByRole('alert')).toContainText('keys 40: expected 1 to 16 on one pin');
  await page.getByLabel('Keys', { exact: true }).fill('16');
  await page.getByLabel('Preferred values', { exact: true }).fill('E96');
  await page.getByRole('button', { name: 'Calculate' }).click();
  await expect(page.getByText(/^\d+ %$/)).toBeVisible();
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByRole('button', { name: 'Calculate' })).toBeEnabled();
  await page.getByLabel('Keys', { exact: true }).fill('3');
  await page.getByLabel('Preferred values', { exact: true }).fill('1k, 2k2, 4k7');
  await page.getByRole('button', { name: 'Calculate' }).click();
  await page.getByRole('button', { name: 'Use them in Part 0' }).click();
  await expect(keys.getByText(/^3 keys, full scale 4095 counts/)).toBeVisible();
});
