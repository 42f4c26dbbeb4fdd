import { violations } from './accessibilityScan';
import { clickCell, copyOfExample, expect, findings, planWith, row, saved, storedPlan, test, view } from './workplace';

test('settle shows what it would change and what it proved; refused it changes nothing, accepted it is one step', async ({
  page,
  request,
}) => {
  const id = await copyOfExample(request, 'hive-watch');
  await page.goto(`/plans/${id}/chart`);
  await expect(findings(page)).toContainText('Address conflict: 0x68 on I2C0 (2 devices)');
  const proposal = page.getByRole('region', { name: 'Proposal' });
  const change = page.getByRole('list', { name: 'Wires that would change' }).getByRole('listitem');
  await page.getByRole('button', { name: 'Assign pins', exact: true }).click();
  await expect(proposal).toContainText('Wires: 1 added, 1 moved');
  await expect(proposal).toContainText('Proved optimal: 1 wire moved');
  await expect(change).toHaveCount(2);
  expect(await violations(page)).toEqual([]);
  await page.keyboard.press('Escape');
  await expect(proposal).toBeHidden();
  await expect(findings(page)).toContainText('Address conflict: 0x68 on I2C0 (2 devices)');

  await page.getByRole('grid').focus();
  await page.keyboard.press('s');
  await expect(proposal.getByRole('button', { name: 'Accept' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(findings(page)).toContainText('No issues found');
  await saved(page);
  await page.getByRole('button', { name: 'Assign pins', exact: true }).click();
  await expect(page.getByText('Pins are already assigned: proved optimal').first()).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(findings(page)).toContainText('Pin conflict: GP22 is used by 2 signals');
});

test('what cannot be served is named with the pins it competes for, and an edit takes the proposal away', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('combobox', { name: 'Board' }).click();
  await page.getByRole('option', { name: 'RP2040 stick, 40 pins' }).click();
  await page.getByRole('button', { name: 'Create plan' }).click();
  await page.getByRole('textbox', { name: 'Search parts' }).fill('potentiometer');
  for (let n = 0; n < 4; n += 1) {
    await page.getByRole('button', { name: /^Add and connect: Potentiometer/ }).click();
    await expect(page.getByRole('button', { name: /^Remove / })).toHaveCount(n + 1);
  }
  await view(page, 'Chart');
  await page.getByRole('button', { name: 'Assign pins', exact: true }).click();
  const proposal = page.getByRole('region', { name: 'Proposal' });
  await expect(proposal).toContainText('Proved: at least 1 terminal cannot be connected');
  await expect(proposal).toContainText('compete for GP28, GP27 and GP26; without any one of them the others can be connected');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(proposal).toBeHidden();
});

test('a wish is entered from the row, kept, told with its price, and taken away again', async ({ page, request }) => {
  const id = await copyOfExample(request, 'hive-watch');
  await page.goto(`/plans/${id}/chart`);
  await expect(findings(page)).toContainText('Pin conflict: GP22 is used by 2 signals');
  await row(page, 'light-1:A').getByRole('rowheader').click();
  await page.getByRole('button', { name: 'Preference' }).click();
  await page.getByRole('menuitem', { name: 'Prefer GP22', exact: true }).click();
  await expect(page.getByText('Preferred: Status LED anode at GP22.')).toBeVisible();
  await page.getByRole('button', { name: 'Assign pins', exact: true }).click();
  await expect(page.getByRole('list', { name: 'Preferences' })).toContainText('Status LED anode at GP22: no cost.');
  // The lamp stays where it is wished for; the other one gives way.
  await expect(page.getByRole('list', { name: 'Wires that would change' })).toContainText('Encoder SW: GP22 →');
  await page.getByRole('button', { name: 'Refuse' }).click();
  await page.getByRole('button', { name: 'Why here?' }).click();
  await expect(page.getByRole('row', { name: /^GP22 / })).toContainText('here now');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Preference' }).click();
  await page.getByRole('menuitem', { name: 'No preference' }).click();
  await expect(page.getByText(/^Preferred: /)).toHaveCount(0);
  await saved(page);
  expect((await storedPlan(request, id)).plan.wishes).toEqual({});
});

test('a full board: what finds no place is told with ways out; one is taken as one step', async ({ page, request }) => {
  const id = await planWith(request, 'rp2040-stamp-14', [
    ...Array<string>(4).fill('button-push'),
    'oled-096-ssd1306-spi',
    'tft-18-st7735-spi',
  ]);
  await page.goto(`/plans/${id}/chart`);
  await page.getByRole('button', { name: 'Assign pins', exact: true }).click();
  const ways = page.getByRole('list', { name: 'Alternatives' });
  await expect(ways.getByRole('listitem').first()).toBeVisible({ timeout: 60_000 });
  await ways.getByRole('button', { name: /^Use this alternative: Use .* for Part 4/ }).click();
  await expect(page.getByText(/missing|is not connected/)).toHaveCount(0);
  await saved(page);
  const { plan } = await storedPlan(request, id);
  expect(plan.placements.find((p) => p.id === 'p4')).toMatchObject({ sheet: { id: 'oled-096-ssd1306-i2c' } });
  await page.getByRole('button', { name: 'Undo' }).click();
  await saved(page);
  expect((await storedPlan(request, id)).plan.wires).toEqual({});
});

test('auto-settle wires what is added and makes room for what is wired by hand, which stays', async ({ page, request }) => {
  const id = await planWith(request, 'rp2040-stick-40', ['led-red-5mm', 'encoder-rotary-switch']);
  await page.goto(`/plans/${id}/chart`);
  await page.getByRole('button', { name: 'Auto-assign' }).click();
  await clickCell(page, 'p0:A', 'GP2');
  await expect(row(page, 'p1:A')).toHaveAttribute('aria-label', /, on GP\d+$/);
  await expect(row(page, 'p0:A')).toHaveAttribute('aria-label', /, on GP\d+$/);
  await saved(page);
  const { wires } = (await storedPlan(request, id)).plan;
  const taken = wires['p1:A']!.end;
  expect(taken).toMatchObject({ to: 'pin' });
  // The lamp goes where the encoder is: the encoder gives way.
  const { pin } = taken as { pin: string };
  await clickCell(page, 'p0:A', pin);
  await expect(row(page, 'p0:A')).toHaveAttribute('aria-label', new RegExp(`, on ${pin}$`));
  await expect(row(page, 'p1:A')).not.toHaveAttribute('aria-label', new RegExp(`on ${pin}`));
  // Wires are settled; the lamp's resistor is a safe remedy.
  await page.getByRole('button', { name: 'Apply 1 safe fix' }).click();
  await expect(findings(page)).toContainText('No issues found');
});
