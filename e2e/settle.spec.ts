import { AxeBuilder } from '@axe-core/playwright';
import { expect, findings, saved, test, view } from './workplace';

test('settle shows what it would change and what it proved; refused it changes nothing, accepted it is one step', async ({ page }) => {
  await page.goto('/plans/hive-watch/chart');
  await expect(findings(page)).toContainText('0x68 is claimed by 2 parts');
  const proposal = page.getByRole('region', { name: 'Proposal' });
  const change = page.getByRole('list', { name: 'Wires that would change' }).getByRole('listitem');
  await page.getByRole('button', { name: 'Settle' }).click();
  await expect(proposal).toContainText('Wires: 1 added, 1 moved');
  await expect(proposal).toContainText('Proved: no plan moves fewer wires (1)');
  await expect(change).toHaveCount(2);
  const scan = await new AxeBuilder({ page }).analyze();
  expect(scan.violations.map((v) => v.id)).toEqual([]);
  await page.keyboard.press('Escape');
  await expect(proposal).toBeHidden();
  await expect(findings(page)).toContainText('0x68 is claimed by 2 parts');

  await page.getByRole('grid').focus();
  await page.keyboard.press('s');
  await expect(proposal.getByRole('button', { name: 'Accept' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(findings(page)).toContainText('No findings');
  await saved(page);
  await page.getByRole('button', { name: 'Settle' }).click();
  await expect(page.getByText('Settled already: it is proved').first()).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(findings(page)).toContainText('GP22 carries 2 signals');
});

test('what cannot be served is named with the pins it competes for, and an edit takes the proposal away', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('combobox', { name: 'Board' }).click();
  await page.getByRole('option', { name: 'RP2040 stick, 40 pins' }).click();
  await page.getByRole('button', { name: 'Start the plan' }).click();
  await page.getByRole('textbox', { name: 'Search parts' }).fill('potentiometer');
  for (let n = 0; n < 4; n += 1) {
    await page.getByRole('button', { name: /^Add Potentiometer.* and wire/ }).click();
    await expect(page.getByRole('button', { name: /^Remove / })).toHaveCount(n + 1);
  }
  await view(page, 'Chart');
  await page.getByRole('button', { name: 'Settle' }).click();
  const proposal = page.getByRole('region', { name: 'Proposal' });
  await expect(proposal).toContainText('Proved: no plan leaves fewer terminals open than 1');
  await expect(proposal).toContainText('compete for GP28, GP27 and GP26; without any one of them the others fit');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(proposal).toBeHidden();
});
