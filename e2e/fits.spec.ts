import { copyOfExample, expect, findings, openFinding, planWith, saved, storedPlan, test } from './workplace';

test('boards are ranked, one says what it would change, the plan switches to it as one step and back by undo', async ({
  page,
  request,
}) => {
  const id = await copyOfExample(request, 'hive-watch');
  await page.goto(`/plans/${id}/chart`);
  await expect(findings(page)).toContainText('Pin conflict: GP22 is used by 2 signals');
  await page.getByRole('link', { name: 'What fits', exact: true }).click();
  await expect(page.getByText(/^These parts fit on \d+ of \d+ boards/)).toBeVisible();
  const board = page.getByRole('row', { name: /^ESP32 stick, 38 pins/ });
  await expect(board).toContainText('Fits');
  await board.getByRole('button').click();
  await expect(page.getByText(/Locks removed: SD card CLK/)).toBeVisible();
  await page.getByRole('button', { name: 'Switch to this board' }).click();
  await expect(page.getByText('ESP32 stick, 38 pins').first()).toBeVisible();
  await expect(findings(page)).not.toContainText('is used by 2 signals');
  await saved(page);
  expect((await storedPlan(request, id)).plan.board.id).toBe('esp32-stick-38');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(findings(page)).toContainText('Pin conflict: GP22 is used by 2 signals');
  await saved(page);
  expect((await storedPlan(request, id)).plan.board.id).toBe('rp2040-stick-40');
});

test('what else fits: every part answers, can be filtered and added, and the list starts anew with the edit', async ({ page, request }) => {
  const id = await copyOfExample(request, 'hive-watch');
  await page.goto(`/plans/${id}/fits/parts`);
  // Each of 271 parts is tried.
  await expect(page.getByText(/^\d+ of \d+ parts fit without changes/)).toBeVisible({ timeout: 60_000 });
  await page.getByLabel('Search parts').fill('potentiometer');
  const knob = page.getByRole('row', { name: /potentiometer/i }).first();
  await expect(knob).toContainText('1 pin');
  await knob.getByRole('button', { name: /^Add .* and connect it$/ }).click();
  await saved(page);
  await expect(page.getByText(/^\d+ of \d+ parts fit without changes/)).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await saved(page);
});

test('parts are added by keyboard, two in quick succession: the focus stays, and no answer goes before the next is there', async ({
  page,
  request,
}) => {
  const id = await copyOfExample(request, 'hive-watch');
  await page.goto(`/plans/${id}/fits/parts`);
  const all = page.getByText(/^\d+ of \d+ parts fit without changes/);
  await expect(all).toBeVisible();
  await page.getByRole('table').evaluate((table) => {
    const emptied = () => [...table.querySelectorAll('[role=cell]')].some((cell) => cell.textContent === '…');
    new MutationObserver(() => {
      if (emptied()) document.body.dataset.emptied = 'yes';
    }).observe(table, { subtree: true, childList: true, characterData: true });
  });
  const button = page.getByRole('button', { name: 'Add Potentiometer 10 kΩ and connect it' });
  await button.focus();
  // Twice at once: the second is about a plan that has the first.
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  const knobs = async () => (await storedPlan(request, id)).plan.placements.filter((p) => p.sheet.id === 'potentiometer').length;
  await expect.poll(knobs).toBe(2);
  await saved(page);
  await expect(all).toBeVisible();
  await expect(button).toBeFocused();
  await expect(page.locator('body')).not.toHaveAttribute('data-emptied', 'yes');
});

test('where no single change fixes a finding, alternatives are looked for; one is taken as one step and undone', async ({
  page,
  request,
}) => {
  const id = await planWith(
    request,
    'bcm2711-sbc-40',
    ['servo-micro', 'servo-micro', 'servo-micro'],
    ['GPIO12', 'GPIO13', 'GPIO18'].flatMap((pin, at) =>
      [
        ['SIG', { to: 'pin', pin }],
        ['VCC', { to: 'rail', rail: '5v' }],
        ['GND', { to: 'ground' }],
      ].map(([terminal, end]) => ({ kind: 'wire', placement: `p${at}`, terminal, end })),
    ),
  );
  await page.goto(`/plans/${id}/chart`);
  await openFinding(page, /share one PWM channel/);
  await findings(page).getByRole('button', { name: 'Look for alternatives' }).click();
  await findings(page)
    .getByRole('button', { name: /^Use the board / })
    .first()
    .click();
  await expect(findings(page)).not.toContainText('share one PWM channel');
  await saved(page);
  expect((await storedPlan(request, id)).plan.board.id).not.toBe('bcm2711-sbc-40');
  await page.getByRole('button', { name: 'Undo' }).click();
  await saved(page);
  expect((await storedPlan(request, id)).plan.board.id).toBe('bcm2711-sbc-40');
});
