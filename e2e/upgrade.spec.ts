import { expect, planWith, saved, storedPlan, test, view } from './workplace';

test('a tab of before an upgrade reloads itself when a part of the application is gone, and keeps its edits', async ({ page, request }) => {
  const id = await planWith(
    request,
    'rp2040-stick-40',
    ['led-red-5mm'],
    [{ kind: 'wire', placement: 'p0', terminal: 'A', end: { to: 'pin', pin: 'GP0' } }],
  );
  await page.goto(`/plans/${id}/chart`);
  await saved(page);
  // The upgrade: the file that this tab was built with is not there any more, and just now the server does not answer either.
  let missing = true;
  await page.route('**/assets/LevelsView-*.js', (route) => (missing ? route.fulfill({ status: 404, body: '' }) : route.continue()));
  await page.route('**/edits', (route) => (missing ? route.abort() : route.continue()));
  await page.locator('[data-row="p0:A"] [role=rowheader]').click();
  await page.keyboard.press('Shift+ArrowRight');
  await expect(page.getByTestId('save-state')).toContainText('kept in this browser');
  // Only the reload finds the new files: before, the same address is asked for twice, as a hint and to run it.
  const reloading = page.waitForRequest((asked) => asked.isNavigationRequest());
  const reloaded = page.waitForEvent('load');
  await view(page, 'Levels');
  await reloading;
  missing = false;
  await reloaded;
  await expect(
    page
      .getByRole('heading', { name: 'Levels' })
      .or(page.getByText(/supplies|crosses/).first())
      .first(),
  ).toBeVisible();
  await saved(page);
  expect((await storedPlan(request, id)).plan.wires['p0:A']!.end).not.toEqual({ to: 'pin', pin: 'GP0' });
});
