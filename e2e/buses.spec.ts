import { expect, findings, saved, storedPlan, test } from './workplace';

test('a bus has its sheet: an address is stepped by keyboard, a resistor dragged in and taken away, a rate set', async ({
  page,
  request,
}) => {
  await page.goto('/plans/hive-watch/buses');
  await expect(findings(page)).toContainText('0x68 is claimed by 2 parts');
  const motion = page.getByRole('slider', { name: 'Address of Motion' });
  await expect(motion).toHaveAttribute('aria-valuetext', '0x68');
  await motion.focus();
  await page.keyboard.press('ArrowRight');
  await expect(motion).toHaveAttribute('aria-valuetext', '0x69');
  await expect(findings(page)).not.toContainText('0x68 is claimed by 2 parts');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(motion).toHaveAttribute('aria-valuetext', '0x68');

  await expect(page.getByText(/^Too strong: 3\.\d+ mA to sink at worst/)).toBeVisible();
  const added = page.getByRole('slider', { name: 'Pull-up added on each line' });
  await added.focus();
  await page.keyboard.press('ArrowRight');
  await expect(added).toHaveAttribute('aria-valuetext', '4.7 kΩ');
  await page.keyboard.press('ArrowLeft');
  await expect(added).toHaveAttribute('aria-valuetext', '3.9 kΩ');

  // By pointer: from where the ring is to the middle of the axis.
  const field = page.getByRole('group', { name: 'Pull-ups of the bus' }).locator('svg');
  const ring = field.locator('g[aria-hidden] circle').last();
  const from = (await ring.boundingBox())!;
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(from.x + 160, from.y + 4, { steps: 6 });
  await page.mouse.up();
  await expect(added).not.toHaveAttribute('aria-valuetext', '3.9 kΩ');
  await saved(page);
  const { plan } = await storedPlan(request, 'hive-watch');
  expect((plan as unknown as { busSettings: { i2c0: { addedOhms: number } } }).busSettings.i2c0.addedOhms).toBeGreaterThan(3900);
  await page.getByRole('button', { name: /^Take .* away$/ }).click();
  await expect(added).toHaveAttribute('aria-valuetext', 'none');

  await page.getByLabel('How often a second OLED 128×64 is asked').fill('30');
  await page.keyboard.press('Tab');
  await expect(page.getByText(/More is asked for than a second holds/)).toBeVisible();
  for (let n = 0; n < 5; n += 1) await page.getByRole('button', { name: 'Undo' }).click();
  await saved(page);
});
