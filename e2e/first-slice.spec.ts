import { clickCell, expect, findings, openFinding, row, saved, startPlan, storedPlan, test, view } from './workplace';

/** The hive watch, part by part as Stock finds them, with the name each gets. */
const PARTS = [
  ['oled 0.96 i2c', 'OLED 128×64, 0.96", I2C', 'OLED 128×64'],
  ['sht31', 'Humidity and temperature, SHT31', 'Humidity, brood'],
  ['humidity', 'Humidity and temperature, SHT31', 'Humidity, roof'],
  ['ds3231 eeprom', 'Real-time clock DS3231 with EEPROM', 'Clock + EEPROM'],
  ['gyro', 'Motion, MPU-6050 (acceleration and rotation)', 'Motion'],
  ['20x4 pcf8574', 'Character LCD 20×4 with I2C backpack, 5 V', 'LCD 20×4, stand'],
  ['hx711', 'Load cell amplifier, HX711', 'Load cell'],
  ['0x57', 'Real-time clock DS3231 with EEPROM', null],
  ['sd card socket', 'SD card socket, 3.3 V, bare', 'SD card'],
  ['knob', 'Rotary encoder with switch', 'Encoder'],
  ['led red', 'LED, red, 5 mm', 'Status LED'],
] as const;

test('the hive plan from nothing: parts, a pin clash, an address clash, remedies, reload, build list', async ({ page, request }) => {
  const id = await startPlan(page, 'Hive on the hill');
  const inPlan = page.getByRole('region', { name: 'In this plan' }).getByRole('listitem');
  for (const [query, title, name] of PARTS) {
    await page.getByRole('textbox', { name: 'Search parts' }).fill(query);
    if (name === null) {
      await expect(page.getByRole('button', { name: `Add and connect: ${title}` })).toBeEnabled();
      continue;
    }
    const before = await inPlan.count();
    await page.getByRole('button', { name: `Add and connect: ${title}` }).click();
    // Adding waits for the worker: until then the last one is the part before.
    await expect(inPlan).toHaveCount(before + 1);
    const placed = inPlan.last();
    await placed.getByRole('button', { name: /rename this part/ }).click();
    await placed.getByRole('textbox').fill(name);
    await placed.getByRole('textbox').press('Enter');
    await expect(page.getByRole('button', { name: `${name}: rename this part` })).toBeVisible();
  }
  // All modules bring pull-ups; that of the display at 5 V is one too many, and too high.
  await expect(findings(page)).toContainText('I2C0: pull-ups too strong');
  await openFinding(page, 'I2C0: pull-ups too strong');
  await findings(page)
    .getByRole('button', { name: /^Remove the pull-ups of LCD 20×4, stand$/ })
    .first()
    .click();
  // At 3.3 V its lines are no high for it any more: it goes behind a level shifter, whose resistors are again too many.
  await openFinding(page, /[Hh]igh level too low|noise margin/);
  await findings(page)
    .getByRole('button', { name: /^Level-shift 2 lines with Level shifter/ })
    .click();
  await expect(findings(page)).not.toContainText('Level-shift 2 lines');
  await expect(findings(page)).toContainText('pull-ups too strong');
  await openFinding(page, 'pull-ups too strong');
  await findings(page)
    .getByRole('button', { name: /^Remove the pull-ups of / })
    .first()
    .click();
  await expect(findings(page)).toContainText('No issues found');
  await saved(page);

  // The motion sensor was strapped away from the clock; open that strap, and they meet.
  await view(page, 'Chart');
  await clickCell(page, 'sensor-3:AD0', 'Rail 3V3');
  await expect(findings(page)).toContainText('Address conflict: 0x68 on I2C0 (2 devices)');
  // The status LED onto the pin of the encoder's B.
  const { plan } = await storedPlan(request, id);
  const b = (plan.wires['input-1:B']!.end as { pin: string }).pin;
  await clickCell(page, 'light-1:A', b);
  await expect(findings(page)).toContainText(`Pin conflict: ${b} is used by 2 signals`);
  await expect(findings(page).getByRole('heading', { name: /Findings/ })).toContainText('2 · 0 · 0');

  await openFinding(page, 'Address conflict');
  await findings(page).getByRole('button', { name: 'Tie Motion AD0 to 3V3 (address 0x69)' }).click();
  await expect(findings(page)).not.toContainText('0x68');
  await openFinding(page, 'Pin conflict');
  await findings(page)
    .getByRole('button', { name: /^Move Status LED anode to/ })
    .click();
  await expect(findings(page)).toContainText('No issues found');
  await saved(page);
  const before = await storedPlan(request, id);

  await page.reload();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Hive on the hill');
  await expect(findings(page)).toContainText('No issues found');
  await expect(row(page, 'light-1:A')).toContainText((before.plan.wires['light-1:A']!.end as { pin: string }).pin);

  await view(page, 'Build');
  const line = page.getByRole('listitem').filter({ hasText: 'SD card' }).filter({ hasText: 'MOSI' });
  await expect(line).toContainText(
    /blue · module pin 3 · (left|right) edge, position \d+, \d+(st|nd|rd|th) from the (USB|far) end, chip port GPIO\d+/,
  );
  await line.getByRole('checkbox').check();
  await expect(page.getByText(/1 done/)).toBeVisible();
  await saved(page);
  await page.reload();
  await expect(page.getByText(/1 done/)).toBeVisible();
  expect((await storedPlan(request, id)).plan.placements).toHaveLength(11);
});

test('wiring by keyboard alone: row, pin, Enter, lock, move, unwire, undo', async ({ page, request }) => {
  const id = await startPlan(page, 'Keys only');
  await page.getByRole('textbox', { name: 'Search parts' }).fill('encoder');
  await page.getByRole('button', { name: /^Add without wires: Rotary encoder with switch/ }).focus();
  await page.keyboard.press('Enter');
  await view(page, 'Chart');
  const grid = page.getByRole('grid');
  // Past the header and the navigation at one press.
  await page.getByRole('link', { name: 'Skip to the view' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('main')).toBeFocused();
  for (let n = 0; n < 8 && !(await grid.evaluate((e) => e === document.activeElement)); n += 1) await page.keyboard.press('Tab');
  await expect(grid).toBeFocused();
  const cell = () => page.getByRole('gridcell');
  for (let n = 0; n < 5; n += 1) await page.keyboard.press('ArrowRight');
  await expect(cell()).toHaveAttribute('aria-label', /^GP0, position 1, .*: possible, with a caveat$/);
  await page.keyboard.press('Enter');
  await expect(row(page, 'input-1:A')).toContainText('GP0');
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  await expect(row(page, 'input-1:A')).toContainText('GP2');
  await page.keyboard.press('l');
  await expect(row(page, 'input-1:A')).toHaveAttribute('aria-label', /locked/);
  await page.keyboard.press('Delete');
  await expect(row(page, 'input-1:A')).toContainText('GP2');
  await page.keyboard.press('l');
  await page.keyboard.press('Delete');
  await expect(row(page, 'input-1:A')).toContainText('open');
  await page.keyboard.press('Control+z');
  await expect(row(page, 'input-1:A')).toContainText('GP2');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Home');
  await expect(cell()).toHaveAttribute('aria-label', /^Ground: not possible\. The part sheet does not allow this tie\./);
  await page.keyboard.press('Enter');
  await expect(row(page, 'input-1:B')).toContainText('open');
  await saved(page);
  expect(Object.keys((await storedPlan(request, id)).plan.wires)).toEqual(['input-1:A']);
});

test('plans: a deleted plan comes back, markup is only letters', async ({ page }) => {
  const name = '<b>Shed</b> & "co"';
  await startPlan(page, name);
  await page.getByRole('link', { name: '← Plans' }).click();
  const line = page.getByRole('listitem').filter({ hasText: name });
  await expect(line).toBeVisible();
  await page.getByRole('button', { name: `Delete ${name}` }).click();
  await expect(line).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(line).toBeVisible();
  await page.goto('/plans/no-such-plan/chart');
  await expect(page.getByRole('heading', { name: 'Plan not found' })).toBeVisible();
  await page.goto('/nowhere');
  await expect(page.getByRole('heading', { name: 'Page not found' })).toBeVisible();
});

test('with the server away edits are kept here, and go when it is back', async ({ page, context, request }) => {
  const id = await startPlan(page, 'Cellar');
  await context.setOffline(true);
  await page.getByRole('textbox', { name: 'Search parts' }).fill('led red');
  await page.getByRole('button', { name: /^Add and connect: LED, red, 5 mm/ }).click();
  await expect(page.getByTestId('save-state')).toHaveText('Offline: kept in this browser');
  await context.setOffline(false);
  await saved(page);
  expect((await storedPlan(request, id)).plan.placements).toHaveLength(1);
});
