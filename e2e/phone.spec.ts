import { copyOfExample, expect, saved, storedPlan, test } from './workplace';

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });

test('a phone at the bench: build, steps, bring-up, chart and findings from the bar below, nothing beyond the edge', async ({
  page,
  request,
}) => {
  const id = await copyOfExample(request, 'hive-watch');
  await page.goto(`/plans/${id}/build`);
  const bar = page.getByRole('navigation', { name: 'At the bench' });
  const fits = () => expect.poll(() => page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await expect(page.getByRole('heading', { name: 'Build sheet' })).toBeVisible();
  await expect(page.getByRole('navigation', { name: 'Views' })).toBeHidden();
  await expect(page.getByRole('banner').getByRole('heading', { name: 'Copy of an example' })).toBeVisible();
  await fits();
  // Every line of the sheet ends within the screen.
  const beyond = await page
    .getByRole('listitem')
    .evaluateAll((items) => items.filter((item) => item.getBoundingClientRect().right > 391).length);
  expect(beyond).toBe(0);

  await page.getByRole('button', { name: 'Step by step' }).tap();
  const done = page.getByRole('button', { name: 'Done', exact: true });
  expect((await done.boundingBox())!.height).toBeGreaterThanOrEqual(56);
  await done.tap();
  await saved(page);
  expect(Object.keys((await storedPlan(request, id)).plan.steps)).toContain('safety:board');
  await fits();

  await bar.getByRole('button', { name: /^Findings: 2 findings, 2 errors$/ }).tap();
  const rail = page.getByRole('complementary', { name: 'Findings' });
  await rail.getByText('Pin conflict: GP22 is used by 2 signals').tap();
  await rail.getByRole('button', { name: /^Move Status LED anode to GP/ }).tap();
  await expect(bar.getByRole('button', { name: /^Findings: 1 finding, 1 error$/ })).toBeVisible();
  await fits();

  await bar.getByRole('link', { name: 'Bring-up' }).tap();
  await expect(rail).toBeHidden();
  await expect(page.getByRole('heading', { name: 'Bring-up' })).toBeVisible();
  await fits();
  await bar.getByRole('link', { name: 'Chart' }).tap();
  await expect(page.getByRole('grid')).toBeVisible();
  await fits();

  // The findings lie over the Chart, nothing of which shows through.
  await bar.getByRole('button', { name: /^Findings/ }).tap();
  await expect(rail.getByRole('heading', { name: 'Findings' })).toBeVisible();
  await expect(page.getByRole('grid')).toBeHidden();
  await bar.getByRole('button', { name: /^Findings/ }).tap();
  await expect(page.getByRole('grid')).toBeVisible();
  // What a wide screen has in its header is behind one button.
  await bar.getByRole('button', { name: 'More' }).tap();
  await page.getByRole('menuitem', { name: /^Undo: / }).tap();
  await expect(bar.getByRole('button', { name: /^Findings: 2 findings/ })).toBeVisible();
  await bar.getByRole('button', { name: 'More' }).tap();
  await page.getByRole('menuitem', { name: 'Power', exact: true }).tap();
  await expect(page.getByRole('heading', { name: 'Power', exact: true })).toBeVisible();
  await fits();
});

test.describe('a tablet held upright', () => {
  test.use({ viewport: { width: 820, height: 1180 } });

  test('has the bar below, the findings as a sheet, and the header of a wide screen', async ({ page, request }) => {
    const id = await copyOfExample(request, 'hive-watch');
    await page.goto(`/plans/${id}/build`);
    const bar = page.getByRole('navigation', { name: 'At the bench' });
    const rail = page.getByRole('complementary', { name: 'Findings' });
    const fits = () => expect.poll(() => page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(820);
    await expect(page.getByRole('banner').getByRole('heading', { name: 'Copy of an example' })).toBeVisible();
    await expect(page.getByRole('button', { name: 'Undo' })).toBeVisible();
    await expect(page.getByRole('contentinfo', { name: 'Budgets' })).toBeHidden();
    await expect(page.getByRole('navigation', { name: 'Views' })).toBeHidden();
    await expect(rail).toBeHidden();
    await fits();
    for (const view of ['Chart', 'Bring-up', 'Build']) {
      await bar.getByRole('link', { name: view }).tap();
      await fits();
    }
    await bar.getByRole('button', { name: /^Findings: 2 findings/ }).tap();
    await expect(rail.getByText('Pin conflict: GP22 is used by 2 signals')).toBeVisible();
    await fits();
    await bar.getByRole('link', { name: 'Build' }).tap();
    await page.getByRole('button', { name: 'Step by step' }).tap();
    await expect(page.getByRole('button', { name: 'Done', exact: true })).toBeVisible();
    await fits();
  });
});
