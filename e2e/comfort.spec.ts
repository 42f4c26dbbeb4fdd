import { addPart, clickCell, editPlan, expect, findings, openFinding, row, saved, startPlan, storedPlan, test, view } from './workplace';

const LED = ['led red', /^Add and connect: LED, red, 5 mm/] as const;
const KNOB = ['encoder', /^Add and connect: Rotary encoder with switch/] as const;

test('two tabs: a change shows in the other at once; a stale write is laid on top, nothing is overwritten', async ({
  page,
  context,
  request,
}) => {
  const id = await startPlan(page, 'Shared bench');
  const other = await context.newPage();
  await other.goto(`/plans/${id}/stock`);
  await addPart(page, LED);
  await expect(other.getByRole('button', { name: 'LED: rename this part' })).toBeVisible();
  // A tab that hears nothing writes on an old revision.
  const deaf = await context.newPage();
  await deaf.route('**/events', (route) => route.abort());
  await deaf.goto(`/plans/${id}/stock`);
  await expect(deaf.getByRole('button', { name: 'LED: rename this part' })).toBeVisible();
  await addPart(page, LED);
  await saved(page);
  await addPart(deaf, KNOB);
  await expect(deaf.getByText(/changed in another window; your edits were applied on top/)).toBeVisible();
  await saved(deaf);
  expect((await storedPlan(request, id)).plan.placements.map((p) => p.name).sort()).toEqual(['Encoder', 'LED', 'LED 2']);
});

test('undo goes on after a reload and in another view; edits made offline survive a closed tab', async ({ page, context, request }) => {
  const id = await startPlan(page, 'Loft');
  await addPart(page, LED);
  await addPart(page, KNOB);
  await saved(page);
  await page.goto(`/plans/${id}/chart`);
  await expect(row(page, 'input-1:A')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(row(page, 'input-1:A')).toHaveCount(0);
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect(row(page, 'input-1:A')).toBeVisible();
  await saved(page);
  // The server is away for edits only: the page itself can still be opened again.
  await context.route('**/edits', (route) => route.abort());
  await clickCell(page, 'input-1:SW', 'GP22');
  await expect(page.getByTestId('save-state')).toHaveText('Offline: kept in this browser');
  await page.close();
  expect((await storedPlan(request, id)).plan.wires['input-1:SW']).toBeUndefined();
  await context.unroute('**/edits');
  const again = await context.newPage();
  await again.goto(`/plans/${id}/chart`);
  await expect(row(again, 'input-1:SW')).toContainText('GP22');
  await saved(again);
  expect((await storedPlan(request, id)).plan.wires['input-1:SW']).toMatchObject({ end: { pin: 'GP22' } });
});

test('a plan deleted in another tab is brought back with the edits made here', async ({ page, request }) => {
  const id = await startPlan(page, 'Attic');
  await request.delete(`/api/plans/${id}`);
  await addPart(page, LED);
  await page.getByRole('button', { name: 'Restore the plan' }).click();
  await expect.poll(async () => (await request.get(`/api/plans/${id}`)).status()).toBe(200);
  await page.evaluate(() => window.dispatchEvent(new Event('online')));
  await saved(page);
  expect((await storedPlan(request, id)).plan.placements).toHaveLength(1);
});

test('a wire is dragged along its row, and stays where it was when dropped on an illegal pin', async ({ page }) => {
  await startPlan(page, 'Drag');
  await addPart(page, KNOB);
  await view(page, 'Chart');
  const centre = async (column: string) => {
    const head = (await page.getByRole('columnheader', { name: new RegExp(`^${column}, `) }).boundingBox())!;
    const box = (await row(page, 'input-1:A').boundingBox())!;
    return { x: head.x + head.width / 2, y: box.y + box.height / 2 };
  };
  const drag = async (from: string, to: string) => {
    const [a, b] = [await centre(from), await centre(to)];
    await page.mouse.move(a.x, a.y);
    await page.mouse.down();
    await page.mouse.move((a.x + b.x) / 2, a.y, { steps: 4 });
    await page.mouse.move(b.x, b.y, { steps: 4 });
    await page.mouse.up();
  };
  const label = await row(page, 'input-1:A').getAttribute('aria-label');
  const at = /on (GP\d+)/.exec(label!)![1]!;
  await drag(at, 'GP21');
  await expect(row(page, 'input-1:A')).toHaveAttribute('aria-label', /on GP21$/);
  await drag('GP21', 'RUN');
  await expect(row(page, 'input-1:A')).toHaveAttribute('aria-label', /on GP21$/);
});

test('a row that is scrolled into view and pressed at once, as assistive technology does it, stays under the pointer', async ({ page }) => {
  await page.goto('/plans/hive-watch/chart');
  await expect(row(page, 'encoder-1:SW')).toBeAttached();
  const places = await page.getByRole('grid').evaluate(async (grid) => {
    const head = grid.querySelector('[data-row="encoder-1:SW"] [role=rowheader]') as HTMLElement;
    head.scrollIntoView({ block: 'center' });
    const before = head.getBoundingClientRect().top;
    head.click();
    const frame = () => new Promise((resolve) => requestAnimationFrame(resolve));
    for (let n = 0; n < 4; n += 1) await frame();
    return [before, head.getBoundingClientRect().top];
  });
  expect(places[1]).toBe(places[0]);
  await expect(page.getByText('Connects to ground when pressed')).toBeVisible();
});

test('command search leads to a pin, a wire, a finding and a command; "?" lists the keys', async ({ page }) => {
  await page.goto('/plans/hive-watch/stock');
  await expect(findings(page)).toContainText('GP22');
  const search = async (text: string, option: RegExp) => {
    await page.keyboard.press('Control+k');
    await page.getByPlaceholder('Search commands, parts, pins…').fill(text);
    await page
      .locator('.mantine-Spotlight-content')
      .getByRole('button', { name: option })
      .or(page.locator('.mantine-Spotlight-action', { hasText: option }))
      .first()
      .click();
  };
  await page.getByRole('heading', { name: 'Findings' }).click();
  await search('GP28', /GP28/);
  await expect(page.getByRole('region', { name: 'Terminal and pin in focus' })).toContainText('GP28 · position 34');
  await search('Motion INT', /Motion INT/);
  await expect(row(page, 'motion-1:INT')).toHaveAttribute('aria-selected', 'true');
  await search('conflict', /Pin conflict: GP22/);
  await expect(page).toHaveURL(/finding=pin-shared/);
  await search('Build sheet', /Open the Build sheet/);
  await expect(page.getByRole('heading', { name: 'Build sheet' })).toBeVisible();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keyboard shortcuts' })).toContainText('Move the wire to the next legal pin');
});

test('a remedy shows what it would do; what is safe is fixed in one step; a risk is accepted with a reason and exported', async ({
  page,
  request,
}) => {
  const id = await startPlan(page, 'Remedies');
  await addPart(page, ['ds3231 eeprom', /^Add and connect: Real-time clock DS3231 with EEPROM/]);
  await addPart(page, ['mpu6050', /^Add and connect: Motion, MPU-6050 /]);
  await view(page, 'Chart');
  await clickCell(page, 'sensor-1:AD0', 'Rail 3V3');
  await openFinding(page, 'Address conflict');
  const strap = findings(page).getByRole('button', { name: 'Tie Motion AD0 to 3V3 (address 0x69)' });
  await strap.focus();
  await expect(page.getByText('Motion AD0: open → 3V3')).toBeVisible();
  await expect(page.getByText('No new findings')).toBeVisible();
  await findings(page).getByRole('button', { name: 'Apply 1 safe fix' }).click();
  await expect(findings(page)).toContainText('No issues found');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(findings(page)).toContainText('Address conflict: 0x68 on I2C0 (2 devices)');
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect(findings(page)).toContainText('No issues found');
  // Somebody else's edit must follow the last of this page.
  await saved(page);

  await editPlan(request, id, [{ kind: 'wire', placement: 'clock-1', terminal: 'VCC', end: { to: 'rail', rail: 'vsys' } }]);
  await expect(findings(page)).toContainText('Clock VCC: supply may drop below the specified');
  await openFinding(page, 'Clock VCC: supply may drop');
  await findings(page).getByRole('region', { name: 'warnings' }).getByRole('button', { name: 'Accept' }).click();
  await findings(page).getByRole('textbox', { name: 'Reason for accepting' }).fill('Fed from three fresh cells.');
  await findings(page).getByRole('button', { name: 'Accept with this reason' }).click();
  await expect(findings(page)).toContainText('1 accepted');
  await saved(page);
  await page.reload();
  await findings(page).getByText('1 accepted').click();
  await openFinding(page, 'Clock VCC: supply may drop');
  await expect(findings(page)).toContainText('Fed from three fresh cells.');
  const { plan } = (await (await request.get(`/api/plans/${id}`)).json()) as { plan: { accepted: Record<string, string> } };
  expect(Object.values(plan.accepted)).toEqual(['Fed from three fresh cells.']);
});

test('a version is kept, compared, gone back to, and that undone', async ({ page }) => {
  await startPlan(page, 'Versions');
  await addPart(page, LED);
  await saved(page);
  await page.getByRole('button', { name: 'Versions', exact: true }).click();
  await page.getByRole('textbox', { name: /^Save the current plan/ }).fill('With the lamp');
  await page.getByRole('button', { name: 'Save version' }).click();
  await expect(page.getByRole('button', { name: 'Compare with With the lamp' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Remove LED' }).click();
  await page.getByRole('button', { name: 'Versions', exact: true }).click();
  await page.getByRole('button', { name: 'Compare with With the lamp' }).click();
  await expect(page.getByRole('dialog')).toContainText('LED added');
  await page.getByRole('button', { name: 'Restore With the lamp' }).click();
  await expect(page.getByRole('dialog')).toContainText('Identical to the current plan.');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'LED: rename this part' })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: 'LED: rename this part' })).toHaveCount(0);
});

test('a deep link leads to a finding’s place; a finding that is gone is no error', async ({ page }) => {
  const finding = encodeURIComponent('pin-shared/shared/GP22||encoder-1:SW,light-1:A');
  await page.goto(`/plans/hive-watch/chart?finding=${finding}`);
  await expect(row(page, 'encoder-1:SW')).toHaveAttribute('aria-selected', 'true');
  await expect(page.getByRole('gridcell')).toHaveAttribute('aria-label', /^GP22, .*connected here/);
  await page.goto('/plans/hive-watch/chart?finding=pin-shared%2Fshared%2Fgone');
  await expect(findings(page)).toContainText('Pin conflict: GP22 is used by 2 signals');
});

test('the command search knows what the trade calls things', async ({ page }) => {
  const id = await startPlan(page, 'Words');
  await addPart(page, ['20x4 pcf8574', /^Add and connect: Character LCD 20×4 with I2C backpack, 5 V/]);
  const choose = async (typed: string, option: RegExp) => {
    await page.keyboard.press('Control+k');
    await page.getByRole('textbox', { name: 'Search commands, parts, pins and findings' }).fill(typed);
    await page.getByRole('button', { name: option }).first().click();
  };
  for (const [typed, option, path] of [
    ['400 kHz', /^Open I2C0/, 'buses/i2c0'],
    ['I2C0', /^Open I2C0/, 'buses/i2c0'],
    ['level shifter', /^Open Levels/, 'levels'],
    ['daisy chain', /^Open Buses/, 'buses'],
    ['netlist', /^Open the Build sheet/, 'build'],
    ['contrast', /^Contrast voltage of a character LCD/, 'resistors?calculation=contrast'],
  ] as const) {
    await choose(typed, option);
    await expect(page).toHaveURL(new RegExp(`/plans/${id}/${path.replace('?', '\\?')}`));
  }
  await expect(page.getByRole('combobox', { name: 'Calculation' })).toHaveValue('contrast');
  // A fix is found by what it does, and is one step.
  await choose('remove the pull-ups', /^Remove the pull-ups of LCD/);
  await expect(page.getByText('idle level up to')).toHaveCount(0);
});
