import type { Page } from '@playwright/test';
import { expect, findings, planWith, row, saved, startPlan, storedPlan, test, view } from './workplace';

/** Searches for a part in Parts and presses a button of it. */
async function addPart(page: Page, query: string, button: RegExp | string): Promise<void> {
  await page.getByRole('textbox', { name: 'Search parts' }).fill(query);
  await page.getByRole('button', { name: button }).first().click();
}

test('a character LCD from nothing: contrast trimmer and backlight resistor are on the build sheet, leg by leg', async ({
  page,
  request,
}) => {
  const id = await startPlan(page, 'LCD from nothing', 'ATmega328P 5 V, shield headers');
  await addPart(page, '1602 parallel', 'Add and connect: Character LCD 16×2, parallel, 5 V');
  await expect(findings(page)).toContainText('No issues found');
  await view(page, 'Chart');
  await expect(row(page, 'display-1:V0')).toContainText('RV1');
  await view(page, 'Build');
  await expect(page.getByText('10 kΩ trimmer: outer legs to LCD 16×2 VDD and GND, wiper to LCD 16×2 V0')).toBeVisible();
  await expect(page.getByText(/resistor 100 Ω .* between LCD 16×2 A and 5V/)).toBeVisible();
  await expect(page.getByText(/Turn RV1 until the contrast is right/)).toBeVisible();
  // Once a step is done, the names stay: a part that is added before does not renumber them.
  await page.getByRole('checkbox', { name: /^R1: resistor 100 Ω.*: done$/ }).check();
  await saved(page);
  const { plan } = (await storedPlan(request, id)) as unknown as { plan: { references: Record<string, string> } };
  expect(plan.references).toEqual({ 'display-1:trimmer.V0': 'RV1', 'display-1:series.A': 'R1' });
  // A name of one's own.
  await page.getByRole('button', { name: 'Edit RV1' }).click();
  await page.getByRole('textbox', { name: 'Reference designator' }).fill('rv7');
  await page.getByRole('button', { name: 'Rename', exact: true }).click();
  await expect(page.getByText('the wiper of RV7 (10 kΩ trimmer)')).toBeVisible();
  await view(page, 'Chart');
  await row(page, 'display-1:V0').getByRole('rowheader').click();
  await page.getByRole('button', { name: 'Set the voltage' }).click();
  await page.getByRole('menuitem', { name: '4.7 kΩ / 680 Ω divider' }).click();
  await expect(row(page, 'display-1:V0')).toContainText('R2/R3');
});

test('four bare digits on a MAX7219: one step, the bytes of its datasheet, the digits in order', async ({ page, request }) => {
  const id = await planWith(request, 'atmega328p-5v-shield', ['seven-segment-4-cc']);
  await page.goto(`/plans/${id}/chart`);
  await row(page, 'p0:a').getByRole('rowheader').click();
  await page.getByRole('button', { name: 'Use a driver' }).click();
  await page.getByRole('menuitem', { name: 'All lines on a new LED driver MAX7219, bare chip' }).click();
  await expect(row(page, 'p0:a')).toContainText('SEG A');
  await expect(findings(page)).toContainText('No issues found');
  await saved(page);
  await view(page, 'Displays');
  const table = page.getByRole('table').filter({ hasText: 'Segment walk test' });
  await expect(table.getByRole('row', { name: /^Byte 0x7E 0x30 0x6D/ })).toBeVisible();
  await expect(table.getByRole('row', { name: /^Digits DIG1 0 DIG0 DIG2 1 DIG1/ })).toBeVisible();
  await view(page, 'Build');
  await expect(page.getByText(/^R1: resistor 33 kΩ .* between LED driver ISET and LED driver V\+/)).toBeVisible();
  // No resistors or transistors at the digits: the driver does that.
  await expect(page.getByRole('region', { name: 'Signals' })).not.toContainText('a series resistor');
});

test('four bare digits on two shift registers: chained, with transistors and resistors', async ({ page, request }) => {
  const id = await planWith(request, 'atmega328p-5v-shield', ['seven-segment-4-ca']);
  await page.goto(`/plans/${id}/chart`);
  await row(page, 'p0:a').getByRole('rowheader').click();
  await page.getByRole('button', { name: 'Use a driver' }).click();
  await page.getByRole('menuitem', { name: /^Segments and digits on two: / }).click();
  await expect(findings(page)).toContainText('No issues found');
  await saved(page);
  const { plan } = await storedPlan(request, id);
  expect(plan.wires['helper-2:SER']!.end).toEqual({ to: 'terminal', placement: 'helper-1', terminal: 'QHS' });
  await view(page, 'Build');
  await expect(page.getByText(/^Q1: PNP transistor: base to R\d, emitter to 5V, collector to Part 0 DIG\d/)).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await view(page, 'Chart');
  await expect(row(page, 'p0:a')).toContainText('open');
});

test('two matrices are chained as they are added, and one text runs across both', async ({ page, request }) => {
  const id = await startPlan(page, 'Two matrices', 'ATmega328P 5 V, shield headers');
  const name = /^Add (and connect|to the chain): LED matrix 8×8, MAX7219$/;
  await addPart(page, '8x8 max7219', name);
  await expect(page.getByText('next in the chain after Matrix 8×8, no additional pins')).toBeVisible();
  await page.getByRole('button', { name }).click();
  await saved(page);
  const { plan } = await storedPlan(request, id);
  expect(plan.wires['display-2:DIN']!.end).toEqual({ to: 'terminal', placement: 'display-1', terminal: 'DOUT' });
  expect(plan.wires['display-2:CS']!.end).toEqual(plan.wires['display-1:CS']!.end);
  await view(page, 'Chart');
  await expect(row(page, 'display-2:CLK')).toContainText('2 of 2 in chain');
  await view(page, 'Displays');
  const displays = page.getByRole('region', { name: /^Matrix/ });
  await expect(displays).toHaveCount(1);
  await displays.getByLabel('Text', { exact: true }).fill('Hi');
  await page.keyboard.press('Tab');
  await expect(displays).toContainText('1 row × 2 characters');
  await expect(displays).toContainText('left to right: Matrix 8×8, Matrix 8×8 2');
  await expect(findings(page)).not.toContainText('cut off');
});

test('a 5 V display on a 3.3 V board comes with the buffer that it needs', async ({ page, request }) => {
  const id = await startPlan(page, 'With a buffer');
  await page.getByRole('textbox', { name: 'Search parts' }).fill('8 digits max7219');
  await expect(page.getByText('fits with buffer 74AHCT125 and 1 capacitor')).toBeVisible();
  await page.getByRole('button', { name: 'Add with buffer 74AHCT125: 8 digits, MAX7219' }).click();
  await expect(findings(page)).toContainText('No issues found');
  await saved(page);
  const { plan } = await storedPlan(request, id);
  expect(plan.placements.map(({ sheet }) => sheet.id)).toEqual(['digits-8-max7219', 'buffer-74ahct125']);
});

test('a network module on a 50 mA pin comes with its regulator: its own rail in the Chart, its load counted, its output on the build sheet', async ({
  page,
  request,
}) => {
  const id = await startPlan(page, 'Regulator', 'ATmega328P 5 V, shield headers');
  await addPart(page, 'w5500', 'Add with 3.3 V LDO MCP1700-3302E: Ethernet module W5500, SPI');
  await expect(page.getByRole('button', { name: /^Remove 3\.3 V LDO/ })).toBeVisible();
  await expect(findings(page)).not.toContainText('overloaded');
  await saved(page);
  const { plan } = await storedPlan(request, id);
  expect(plan.placements.map(({ sheet }) => sheet.id)).toEqual(['ethernet-w5500', 'regulator-mcp1700-3v3']);
  await view(page, 'Power');
  await expect(page.getByRole('heading', { name: /^3\.3 V LDO VOUT/ })).toContainText('150 mA peak of 250 mA');
  await view(page, 'Build');
  await expect(page.getByRole('region', { name: 'Power', exact: true })).toContainText('3.3 V LDO VOUT');
  await expect(page.getByText(/^C2: 1 µF capacitor between 3\.3 V LDO VOUT and 3\.3 V LDO GND/)).toBeVisible();
  // The regulator is measured before its load is tried.
  const first = page.getByRole('region', { name: 'First power-up' });
  await expect(first).toContainText(/VOUT measures 3\.3 V before a load is connected.*Network|VOUT measures 3\.3 V/s);
  // What feeds a part goes with the wires to it, and comes back.
  await view(page, 'Parts');
  await page.getByRole('button', { name: /^Remove 3\.3 V LDO/ }).click();
  await expect(findings(page)).toContainText('is not connected');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(findings(page)).not.toContainText('is not connected');
});
