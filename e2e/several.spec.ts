import { expect, findings, row, saved, startPlan, storedPlan, test, view } from './workplace';

test('eight LEDs are added at once by number, one step back takes all; a part is duplicated with its wiring', async ({ page, request }) => {
  const id = await startPlan(page, 'Several', 'BCM2711 single-board computer, 40-pin header');
  const search = page.getByRole('textbox', { name: 'Search parts' });
  await search.fill('8 × led red');
  await expect(page.getByRole('textbox', { name: 'Quantity' })).toHaveValue('× 8');
  await page.getByRole('button', { name: 'Add 8 × LED, red, 5 mm and connect them' }).click();
  await expect(page.getByRole('heading', { name: /^In this plan 8/ })).toBeVisible();
  await saved(page);
  const stored = (await storedPlan(request, id)).plan;
  expect(stored.placements.map(({ name }) => name).slice(0, 2)).toEqual(['LED 1', 'LED 2']);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('heading', { name: /^In this plan 0/ })).toBeVisible();
  // The first display is where example programs have it; a second one of the same kind beside it.
  await search.fill('bme280');
  await page
    .getByRole('button', { name: /^Add Humidity, pressure, temperature BME280 and connect it$/ })
    .first()
    .click();
  await page.getByRole('button', { name: /^Duplicate Climate/ }).click();
  await expect(page.getByRole('heading', { name: /^In this plan 2/ })).toBeVisible();
  await view(page, 'Chart');
  for (const sensor of ['sensor-1', 'sensor-2']) {
    await expect(row(page, `${sensor}:SDA`)).toContainText('GPIO2');
    await expect(row(page, `${sensor}:SCL`)).toContainText('GPIO3');
  }
  await row(page, 'sensor-1:SDA').getByRole('rowheader').click();
  await page.getByRole('button', { name: 'Why here?' }).click();
  const why = page.getByRole('dialog', { name: 'Cost of each pin' });
  await expect(why).toContainText('The usual pin for this signal on this board.');
  await expect(why.getByRole('row', { name: /GPIO2 equivalent \(here now\)/ })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(findings(page)).not.toContainText('Address conflict');
});
