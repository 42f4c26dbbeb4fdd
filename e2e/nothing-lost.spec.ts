import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { OwnServer } from './ownServer';
import { copyOfExample, editPlan, expect, planWith, saved, storedPlan, test, view } from './workplace';

const glass = ['oled-096-ssd1306-i2c'];

test('two tabs offline: the edits of both are there afterwards, each once, also those of a tab that was closed', async ({
  context,
  request,
}) => {
  const id = await planWith(request, 'rp2040-stick-40', ['led-red-5mm', 'led-red-5mm']);
  const [left, right] = [await context.newPage(), await context.newPage()];
  for (const page of [left, right]) {
    await page.goto(`/plans/${id}/chart`);
    await expect(page.locator('[data-row="p0:A"]')).toBeVisible();
  }
  await context.setOffline(true);
  const move = async (page: Page, key: string, times: number) => {
    await page.locator(`[data-row="${key}"] [role=rowheader]`).click();
    for (let n = 0; n < times; n += 1) await page.keyboard.press('Shift+ArrowRight');
  };
  await move(left, 'p0:A', 2);
  await move(right, 'p1:A', 3);
  for (const page of [left, right]) await expect(page.getByTestId('save-state')).toHaveText('Offline: kept in this browser');
  await left.waitForTimeout(300);
  await left.close();
  await context.setOffline(false);
  await expect(right.getByTestId('save-state')).toHaveText('Saved', { timeout: 60_000 });
  await expect
    .poll(async () => Object.keys((await storedPlan(request, id)).plan.wires).sort(), { timeout: 60_000 })
    .toEqual(expect.arrayContaining(['p0:A', 'p1:A']));
  const { entries } = (await (await request.get(`/api/plans/${id}/history`)).json()) as { entries: { tab: string | null }[] };
  // Five edits of two tabs and one of the test, each once.
  expect(entries).toHaveLength(6);
});

test('112 parts are placed, built and gone back from: batches far beyond 62 KiB are saved', async ({ page, request }) => {
  const id = await planWith(
    request,
    'rp2040-stick-40',
    Array.from({ length: 112 }, () => 'led-red-5mm'),
  );
  await page.goto(`/plans/${id}/chart`);
  await page.getByRole('button', { name: 'Versions', exact: true }).click();
  await page.getByLabel('Save the current plan as a version').fill('All of them');
  await page.getByRole('button', { name: 'Save version' }).click();
  await expect(page.getByRole('button', { name: 'Compare with All of them' })).toBeVisible();
  await page.keyboard.press('Escape');
  const gone = Array.from({ length: 112 }, (_, n) => ({ kind: 'remove-placement', placement: `p${n}` }));
  await editPlan(request, id, gone);
  await page.getByRole('button', { name: 'Versions', exact: true }).click();
  await page.getByRole('button', { name: 'Compare with All of them' }).click();
  await page.getByRole('button', { name: 'Restore All of them' }).click();
  await page.keyboard.press('Escape');
  await saved(page);
  expect((await storedPlan(request, id)).plan.placements).toHaveLength(112);
  const wires = Array.from({ length: 112 }, (_, n) => [
    { kind: 'wire', placement: `p${n}`, terminal: 'A', end: { to: 'rail', rail: '3v3' } },
    { kind: 'wire', placement: `p${n}`, terminal: 'K', end: { to: 'ground' } },
  ]).flat();
  await editPlan(request, id, wires);
  await view(page, 'Build');
  await page.getByRole('button', { name: 'Mark as built' }).click();
  await saved(page);
  const { plan } = (await (await request.get(`/api/plans/${id}`)).json()) as { plan: { built: { wires: object } } };
  expect(Object.keys(plan.built.wires)).toHaveLength(224);
});

test('saving keeps pace with a key that is held down', async ({ page, request }) => {
  const id = await planWith(
    request,
    'rp2040-stick-40',
    ['led-red-5mm'],
    [{ kind: 'wire', placement: 'p0', terminal: 'A', end: { to: 'pin', pin: 'GP0' } }],
  );
  await page.goto(`/plans/${id}/chart`);
  await page.locator('[data-row="p0:A"] [role=rowheader]').click();
  for (let n = 0; n < 150; n += 1) await page.keyboard.press(n % 20 < 10 ? 'Shift+ArrowRight' : 'Shift+ArrowLeft');
  await expect(page.getByTestId('save-state')).toHaveText('Saved', { timeout: 3000 });
  expect((await storedPlan(request, id)).revision).toBeGreaterThan(140);
});

test('an open tab notices that the server’s data was restored, keeps its edits, shows the difference and asks', async ({ page }) => {
  const server = new OwnServer();
  await server.start();
  try {
    await page.goto(`${server.address}/plans/hive-watch/chart`);
    await saved(page);
    const backup = join(server.data, 'before.sqlite');
    expect(await server.run('backup', backup)).toBe(0);
    await page.locator('[data-row="encoder-1:SW"] [role=rowheader]').click();
    await page.keyboard.press('Shift+ArrowLeft');
    await saved(page);
    await server.stop();
    await page.keyboard.press('Shift+ArrowLeft');
    await expect(page.getByTestId('save-state')).toHaveText('Offline: kept in this browser');
    expect(await server.run('restore', backup)).toBe(0);
    await server.start();
    const dialog = page.getByRole('dialog', { name: 'Two versions of this plan' });
    await expect(dialog).toBeVisible({ timeout: 30_000 });
    await expect(dialog.getByRole('listitem')).toContainText(['SW']);
    await dialog.getByRole('button', { name: 'Keep this tab’s plan' }).click();
    await saved(page);
    await page.getByRole('button', { name: 'Versions', exact: true }).click();
    await page.getByRole('tab', { name: 'History' }).click();
    await expect(page.getByRole('dialog').getByRole('listitem').first()).toContainText('Kept this tab’s plan');
  } finally {
    await server.stop();
    server.remove();
  }
});

test('a server with a passphrase: sign in, work, be signed out by its restart, sign in again; nothing is lost', async ({ page }) => {
  const server = new OwnServer({ ROOF_CHART_PASSPHRASE: 'correct horse battery' });
  await server.start();
  const signIn = async (words: string) => {
    await page.getByLabel('Passphrase of this server', { exact: true }).fill(words);
    await page.getByRole('button', { name: 'Sign in' }).click();
  };
  try {
    await page.goto(`${server.address}/plans/hive-watch/chart`);
    await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
    await signIn('wrong horse battery');
    await expect(page.getByText('Wrong passphrase.')).toBeVisible();
    await signIn('correct horse battery');
    await saved(page);
    await server.stop();
    await page.locator('[data-row="encoder-1:SW"] [role=rowheader]').click();
    await page.keyboard.press('Shift+ArrowLeft');
    await expect(page.getByTestId('save-state')).toContainText('kept in this browser');
    await server.start();
    await expect(page.getByRole('dialog', { name: 'Signed out' })).toBeVisible({ timeout: 30_000 });
    await signIn('correct horse battery');
    await expect(page.getByRole('dialog', { name: 'Signed out' })).toBeHidden();
    await expect(page.getByTestId('save-state')).toHaveText('Saved', { timeout: 30_000 });
    await page.goto(server.address);
    await page.getByRole('button', { name: 'Sign out' }).click();
    await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  } finally {
    await server.stop();
    server.remove();
  }
});

test('the history says what was done and where; a single step is taken back, and Undo brings it back', async ({ page, request }) => {
  const id = await copyOfExample(request, 'hive-watch');
  await page.goto(`/plans/${id}/chart`);
  await page.locator('[data-row="encoder-1:SW"] [role=rowheader]').click();
  const before = (await storedPlan(request, id)).plan.wires['encoder-1:SW'];
  await page.keyboard.press('Shift+ArrowLeft');
  await saved(page);
  await page.getByRole('button', { name: 'Versions', exact: true }).click();
  await page.getByRole('tab', { name: 'History' }).click();
  const step = page.getByRole('dialog').getByRole('listitem').filter({ hasText: /SW/ }).first();
  await expect(step).toContainText('this tab');
  await step.getByRole('button', { name: /^Revert/ }).click();
  await page.keyboard.press('Escape');
  // The edits of the step are fetched first: until then everything is saved, too.
  await expect.poll(async () => (await storedPlan(request, id)).plan.wires['encoder-1:SW']).toEqual(before);
  await saved(page);
});

test('everything goes out as one file and in again', async ({ page, request }) => {
  const id = await planWith(request, 'rp2040-stick-40', glass);
  await page.goto('/');
  const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'Export all' }).click()]);
  expect(file.suggestedFilename()).toMatch(/^roof-chart-.*\.zip$/);
  const path = await file.path();
  await request.delete(`/api/plans/${id}`);
  await page.getByLabel('Archive to import').setInputFiles(path);
  await expect(page.getByText(/plans? imported/)).toBeVisible();
});
