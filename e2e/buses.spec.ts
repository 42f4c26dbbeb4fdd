import type { APIRequestContext } from '@playwright/test';
import { copyOfExample, editPlan, expect, findings, openFinding, planWith, saved, storedPlan, test } from './workplace';

test('a bus has its sheet: an address is stepped by keyboard, a resistor dragged in and taken away, a rate set', async ({
  page,
  request,
}) => {
  const id = await copyOfExample(request, 'hive-watch');
  await page.goto(`/plans/${id}/buses`);
  await expect(findings(page)).toContainText('Address conflict: 0x68 on I2C0 (2 devices)');
  const motion = page.getByRole('slider', { name: 'Address of Motion' });
  await expect(motion).toHaveAttribute('aria-valuetext', '0x68');
  await motion.focus();
  await page.keyboard.press('ArrowRight');
  await expect(motion).toHaveAttribute('aria-valuetext', '0x69');
  await expect(findings(page)).not.toContainText('Address conflict: 0x68 on I2C0 (2 devices)');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(motion).toHaveAttribute('aria-valuetext', '0x68');

  // The stretch at the board's pins; the display behind the level shifter has one of its own.
  await expect(page.getByText(/^OK: /).first()).toBeVisible();
  const added = page.getByRole('slider', { name: 'Pull-up added to each line' }).first();
  await added.focus();
  await page.keyboard.press('ArrowRight');
  await expect(added).toHaveAttribute('aria-valuetext', '4.7 kΩ');
  await page.keyboard.press('ArrowLeft');
  await expect(added).toHaveAttribute('aria-valuetext', '3.9 kΩ');

  // By pointer: from where the ring is to the middle of the axis.
  const field = page.getByRole('group', { name: 'Pull-ups of the bus' }).first().locator('svg');
  const ring = field.locator('g[aria-hidden] circle').last();
  const from = (await ring.boundingBox())!;
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(from.x + 160, from.y + 4, { steps: 6 });
  await page.mouse.up();
  await expect(added).not.toHaveAttribute('aria-valuetext', '3.9 kΩ');
  await saved(page);
  const { plan } = await storedPlan(request, id);
  expect((plan as unknown as { busSettings: { i2c0: { addedOhms: number } } }).busSettings.i2c0.addedOhms).toBeGreaterThan(3900);
  await page
    .getByRole('button', { name: /^Take .* away$/ })
    .first()
    .click();
  await expect(added).toHaveAttribute('aria-valuetext', 'none');

  // The display at the stand pulls to 5 V again as soon as its pull-ups are put back, and that is a finding with its ways out.
  const cut = page.getByRole('button', { name: 'restore the pull-ups of LCD 20×4, stand' });
  await cut.focus();
  await page.keyboard.press('Enter');
  await expect(findings(page)).toContainText('I2C0: pull-ups too strong');
  await openFinding(page, 'pull-ups too strong');
  await expect(findings(page).getByRole('button', { name: 'Remove the pull-ups of Clock + EEPROM and Motion' }).first()).toBeVisible();
  await page.getByRole('button', { name: 'remove the pull-ups of LCD 20×4, stand' }).press('Enter');
  await expect(findings(page)).not.toContainText('pull-ups too strong');

  await page.getByLabel('Find an address').fill('0xD0');
  await expect(page.getByText('0xD0 is the 8-bit form of 0x68. Clock + EEPROM and Motion respond to 0x68.')).toBeVisible();
  await page.getByRole('button', { name: 'Resolve address conflicts: set straps on 1 device' }).click();
  await expect(page.getByText(/^No device at|^0xD0 is the 8-bit form of 0x68\. Clock \+ EEPROM responds/)).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();

  await page.getByLabel('Accesses of OLED 128×64 per second').fill('30');
  await page.keyboard.press('Tab');
  await expect(page.getByText(/Utilisation above 100 %/)).toBeVisible();
  for (let n = 0; n < 7; n += 1) await page.getByRole('button', { name: 'Undo' }).click();
  await saved(page);
});

test('an SPI bus has its sheet: a chain in the order of the wire, a clock set, selects held in one step', async ({ page, request }) => {
  const id = await planWith(request, 'rp2040-stick-40', ['matrix-8x8-max7219', 'matrix-8x8-max7219', 'tft-18-st7735-spi']);
  const wire = (placement: string, terminal: string, end: object) => ({ kind: 'wire', placement, terminal, end });
  const pin = (name: string) => ({ to: 'pin', pin: name });
  const lines = (part: string, names: readonly [string, string, string], cs: string, data: object) => [
    wire(part, names[0], pin('GP18')),
    wire(part, names[1], data),
    wire(part, names[2], pin(cs)),
  ];
  await editPlan(request, id, [
    ...lines('p0', ['CLK', 'DIN', 'CS'], 'GP17', pin('GP19')),
    ...lines('p1', ['CLK', 'DIN', 'CS'], 'GP17', { to: 'terminal', placement: 'p0', terminal: 'DOUT' }),
    ...lines('p2', ['SCK', 'SDA', 'CS'], 'GP20', pin('GP19')),
  ]);
  await page.goto(`/plans/${id}/buses`);
  await expect(
    page.getByText('Daisy chain: board → Part 0 → Part 1. 32 bits per transfer; the first bits end up in Part 1.'),
  ).toBeVisible();
  const picture = page.getByRole('row', { name: /^Part 2/ });
  await expect(picture).toContainText('15 MHz, limited by the part');
  await page.getByLabel('Maximum clock').selectOption('4000000');
  await expect(picture).toContainText('4 MHz, limited by the setting');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(picture).toContainText('15 MHz, limited by the part');
  await page.getByLabel('Wire length per line, cm').fill('80');
  await page.keyboard.press('Tab');
  await expect(picture).toContainText('2 MHz, limited by the wire');
  await openFinding(page, /chip selects? floats?/i);
  await findings(page)
    .getByRole('button', { name: /^Add 10 kΩ from Part 0 CS/ })
    .click();
  await expect(picture).toContainText('GP20, pull-up 10 kΩ');
  await page.goto(`/plans/${id}/build`);
  await expect(page.getByText(/resistor 10 kΩ \(brown, black, orange, gold; 10K\) between .* and 3V3/)).toHaveCount(2);
});

test('the forms of a part side by side: one is taken in a click, and undone', async ({ page, request }) => {
  const id = await copyOfExample(request, 'hive-watch');
  await page.goto(`/plans/${id}/stock`);
  await page.getByRole('button', { name: '1 other version: compare with OLED 128×64' }).click();
  const dialog = page.getByRole('dialog', { name: 'OLED 128×64: versions in this plan' });
  await expect(dialog.getByRole('row', { name: /^Maximum rate/ })).toContainText('fps');
  await expect(dialog.getByRole('row', { name: /^Dedicated pins 0/ })).toBeVisible();
  await dialog.getByRole('button', { name: 'Switch to this version' }).first().click();
  await expect(dialog).toBeHidden();
  await page.goto(`/plans/${id}/buses/spi0`);
  await expect(page.getByRole('row', { name: /^OLED 128×64/ })).toContainText('MHz');
  await saved(page);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('row', { name: /^OLED 128×64/ })).toHaveCount(0);
  await saved(page);
});

test('a part goes behind a level shifter from its row in the Chart; the bus then has two stretches, and the build list the wires', async ({
  page,
  request,
}) => {
  const id = await planWith(request, 'rp2040-stick-40', ['oled-096-ssd1306-i2c', 'lcd-2004-pcf8574']);
  await page.goto(`/plans/${id}/chart`);
  await page.getByRole('button', { name: 'Assign pins', exact: true }).click();
  await page.getByRole('region', { name: 'Proposal' }).getByRole('button', { name: 'Accept' }).click();
  await page.locator('[data-row="p1:SDA"] [role=rowheader]').click();
  await page.getByRole('button', { name: 'Connect to a part' }).click();
  await page.getByRole('menuitem', { name: 'through a new level shifter' }).click();
  await expect(page.locator('[data-row="helper-1:LV1"]')).toBeVisible();
  await expect(findings(page)).not.toContainText('idle level up to');
  await page.goto(`/plans/${id}/buses`);
  await expect(page.getByRole('heading', { name: /^Pull-ups behind Level shifter/ })).toBeVisible();
  await expect(page.getByRole('slider', { name: 'Address of Part 1' })).toHaveAttribute('aria-valuetext', '0x27');
  await page.goto(`/plans/${id}/build`);
  await expect(page.getByRole('checkbox', { name: /^Part 1 SDA to Level shifter HV1: done/ })).toBeVisible();
});

test('Levels tells what is too low for a part at 5 V; behind a level shifter it is well', async ({ page, request }) => {
  const id = await planWith(request, 'rp2040-stick-40', ['humidity-sht31', 'lcd-2004-pcf8574']);
  await page.goto(`/plans/${id}/chart`);
  await page.getByRole('button', { name: 'Assign pins', exact: true }).click();
  await page.getByRole('region', { name: 'Proposal' }).getByRole('button', { name: 'Accept' }).click();
  await page.getByRole('link', { name: 'Levels', exact: true }).click();
  await expect(page.getByText(/^Part 1 SDA and SCL: up to \d\.\d+ V, the board tolerates/)).toBeVisible();
  await openFinding(page, 'idle level up to');
  await page.getByRole('button', { name: 'Connect Part 1 through a level shifter' }).first().click();
  await page.getByRole('link', { name: 'Levels', exact: true }).click();
  await expect(page.getByText('Every signal has margin at every corner of both supplies.')).toBeVisible();
  await page.getByText('All', { exact: true }).click();
  await expect(page.getByRole('group', { name: 'Levels of the signals' })).toContainText(/\d mV/);
});

/** A plan with a display of seven pins, its five signals on these. */
const displayOn = (request: APIRequestContext, pins: { readonly [terminal: string]: string }) =>
  planWith(
    request,
    'atmega328p-5v-shield',
    ['oled-096-ssd1306-spi'],
    [
      ['VCC', { to: 'rail', rail: '5v' }],
      ['GND', { to: 'ground' }],
      ...Object.entries(pins).map(([terminal, pin]) => [terminal, { to: 'pin', pin }] as const),
    ].map(([terminal, end]) => ({ kind: 'wire', placement: 'p0', terminal, end })),
  );

test('a display on pins 9 to 13 is driven by software with one fix; its own lines are in the way of the hardware pins', async ({
  page,
  request,
}) => {
  const id = await displayOn(request, { D1: 'D9', D0: 'D10', DC: 'D11', CS: 'D12', RES: 'D13' });
  await page.goto(`/plans/${id}/chart`);
  await openFinding(page, /D(?:9|10) does not support/);
  await findings(page)
    .getByRole('button', { name: 'Drive this bus by software on D10 and D9 (up to 500 kHz instead of 8 MHz)' })
    .first()
    .click();
  await expect(findings(page)).not.toContainText('does not support');
  await page.goto(`/plans/${id}/buses`);
  await page.getByRole('button', { name: 'Put this bus on… (Software SPI 1)' }).press('Enter');
  await expect(page.getByText('No other place: other signals or locked wires take 1 place.')).toBeVisible();
  await page.keyboard.press('Escape');
  await saved(page);
  expect((await storedPlan(request, id)).plan.softwareBuses).toEqual(['softspi1']);
});

test('a bus made by software is put on the hardware pins from its menu, and back by undo', async ({ page, request }) => {
  const id = await displayOn(request, { D0: 'D3', D1: 'D4', RES: 'D5', DC: 'D6', CS: 'D7' });
  await page.goto(`/plans/${id}/chart`);
  await openFinding(page, /D3 does not support/);
  await findings(page)
    .getByRole('button', { name: 'Drive this bus by software on D3 and D4 (up to 500 kHz instead of 8 MHz)' })
    .first()
    .click();
  await expect(findings(page)).not.toContainText('does not support');
  await page.goto(`/plans/${id}/buses`);
  await expect(page.getByRole('tab', { name: 'Software SPI 1' })).toBeVisible();
  await expect(page.getByText(/program up to 500 kHz/)).toBeVisible();
  await page.getByRole('button', { name: 'Put this bus on… (Software SPI 1)' }).press('Enter');
  const place = page.getByRole('menuitem', { name: /^SPI on D13 \(SCK\) and D11 \(MOSI\), usual pins/ });
  await expect(place).toContainText('2 wires move · 500 kHz → 8 MHz');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('tab', { name: 'SPI', exact: true })).toBeVisible();
  await saved(page);
  expect((await storedPlan(request, id)).plan.softwareBuses).toEqual([]);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('tab', { name: 'Software SPI 1' })).toBeVisible();
  await saved(page);
});
