import { expect, planWith, saved, storedPlan, test, view } from './workplace';

test.use({ serviceWorkers: 'allow' });

test('without the server the application starts again, with the plan, its other views and the edits made meanwhile', async ({
  page,
  request,
  server,
}) => {
  const wire = { kind: 'wire', placement: 'p0', terminal: 'A', end: { to: 'pin', pin: 'GP0' } };
  const id = await planWith(request, 'rp2040-stick-40', ['led-red-5mm'], [wire]);
  await page.goto(`/plans/${id}/chart`);
  await saved(page);
  await page.evaluate(() => navigator.serviceWorker.ready);
  // As long as the server answers, the page is its own each time: with a nonce that no page had before.
  const nonces = new Set<string>();
  for (const path of ['/', '/', `/plans/${id}/chart`]) {
    await page.goto(path);
    nonces.add((await page.locator('meta[name=csp-nonce]').getAttribute('content'))!);
  }
  expect(nonces.size).toBe(3);
  await saved(page);
  await server.stop();

  try {
    await page.reload();
    await expect(page.getByTestId('save-state')).toContainText('kept in this browser');
    await page.locator('[data-row="p0:A"] [role=rowheader]').click();
    await page.keyboard.press('Shift+ArrowRight');
    await expect(page.getByRole('button', { name: 'Undo' })).toBeEnabled();
    // A view that was not shown before, and its own address.
    await view(page, 'Build');
    const step = page.getByRole('main').getByText('GP1', { exact: true }).first();
    await expect(step).toBeVisible();
    await page.reload();
    await expect(step).toBeVisible();
    await page.goto('/');
    await expect(page.getByRole('link', { name: /Hive watch/ }).first()).toBeVisible();
    await page.goto(`/plans/${id}/chart`);
    await expect(page.getByTestId('save-state')).toContainText('kept in this browser');
  } finally {
    await server.start();
  }
  await saved(page);
  expect((await storedPlan(request, id)).plan.wires['p0:A']!.end).toEqual({ to: 'pin', pin: 'GP1' });
});
