import { copyOfExample, expect, findings, row, saved, startPlan, storedPlan, test, view } from './workplace';

test('eight LEDs are added at once by number, one step back takes all; a part is duplicated with its wiring', async ({ page, request }) => {
  const id = await startPlan(page, 'Several', 'BCM2711 single-board computer, 40-pin header');
  const search = page.getByRole('textbox', { name: 'Search parts' });
  await search.fill('8 × led red');
  await expect(page.getByRole('textbox', { name: 'Quantity' })).toHaveValue('× 8');
  await page.getByRole('button', { name: 'Add 8 and connect: LED, red, 5 mm' }).click();
  await expect(page.getByRole('heading', { name: /^In this plan 8/ })).toBeVisible();
  await saved(page);
  const stored = (await storedPlan(request, id)).plan;
  expect(stored.placements.map(({ name }) => name).slice(0, 2)).toEqual(['LED 1', 'LED 2']);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('heading', { name: /^In this plan 0/ })).toBeVisible();
  // The first display is where example programs have it; a second one of the same kind beside it.
  await search.fill('bme280');
  await page.getByRole('button', { name: 'Add and connect: Humidity, pressure, temperature BME280' }).first().click();
  await page.getByRole('button', { name: /^Duplicate Climate/ }).click();
  await expect(page.getByRole('heading', { name: /^In this plan 2/ })).toBeVisible();
  await view(page, 'Chart');
  for (const sensor of ['sensor-1', 'sensor-2']) {
    await expect(row(page, `${sensor}:SDA`)).toContainText('GPIO2');
    await expect(row(page, `${sensor}:SCL`)).toContainText('GPIO3');
  }
  await row(page, 'sensor-1:SDA').getByRole('rowheader').click();
  await page.getByRole('button', { name: 'Why here?' }).click();
  const why = page.getByRole('dialog').filter({ hasText: 'Additional cost there' });
  await expect(why).toContainText('The usual pin for this signal on this board.');
  await expect(why.getByRole('row', { name: /GPIO2 equivalent \(here now\)/ })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(findings(page)).not.toContainText('Address conflict');
});

test('a board is found by sight: traits and labels leave few pictures, and the chosen one starts the plan', async ({ page }) => {
  await page.goto('/');
  const boards = page.getByRole('region', { name: 'Boards' });
  await expect(boards.getByText('41 boards')).toBeVisible();
  await boards.getByText('USB-B', { exact: true }).first().click();
  await expect(boards.getByText('2 boards')).toBeVisible();
  await boards.getByRole('textbox', { name: 'Search boards' }).fill('A15');
  await expect(boards.getByText('1 board', { exact: true })).toBeVisible();
  const card = boards.getByRole('button', { name: /^ATmega2560 5 V/ });
  await card.click();
  await expect(card).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByRole('textbox', { name: 'Name' })).toBeFocused();
  // Its likeness is beside, with every label.
  await expect(page.getByRole('img', { name: /^ATmega2560 5 V/ })).toContainText('AREF');
  await page.keyboard.type('Loom');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Add parts' })).toBeVisible();
  await expect(page.getByRole('banner')).toContainText('ATmega2560');
});

test('the likeness of a part marks the labels that were read, and in steps the terminal of the wire', async ({ page, request }) => {
  const id = await copyOfExample(request, 'hive-watch');
  await page.goto(`/plans/${id}/stock`);
  await page.getByRole('button', { name: 'Identify by labels' }).click();
  await page.getByRole('textbox', { name: 'Printed labels' }).fill('GND VCC SCL SDA');
  await expect(page.getByRole('img', { name: /^OLED 128×64, 0.96", I2C; marked: GND, VCC, SCL, SDA$/ })).toBeVisible();
  await page.goto(`/plans/${id}/build?mode=steps`);
  const face = page.getByRole('img', { name: /; marked: / });
  while (!(await face.isVisible())) await page.getByRole('button', { name: 'Skip' }).click();
  await expect(face).toHaveAccessibleName(/; marked: GND$/);
});

test('a board is found by what is printed on it, and its labels are there to compare', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Identify by labels' }).click();
  await page.getByLabel('Labels printed at the edges').fill('GP0 GP1 GND GP2 GP3 XYZ');
  await expect(page.getByText('5 labels found; not on it: XYZ').first()).toBeVisible();
  // Two boards print the same: the chip tells them apart.
  await expect(page.getByText(/^Printed like RP2350 stick, 40 pins: read the chip, RP2040\.$/)).toBeVisible();
  await page.getByRole('button', { name: 'Use RP2040 stick, 40 pins' }).click();
  await page.getByText('Check the labels against yours').click();
  await expect(page.getByText(/^GP0 GP1 GND GP2 GP3/)).toBeVisible();
  // By traits; what does not match says what to do.
  const board = page.getByRole('combobox', { name: 'Board' });
  await board.fill('stamp bluetooth');
  await expect(page.getByRole('listbox').getByRole('option')).toHaveText([
    /^ESP32-C3 stamp/,
    /^ESP32-C6 stamp/,
    /^ESP32-S3 stamp/,
    /^nRF52840 stamp/,
  ]);
  await board.fill('no such board');
  await expect(page.getByText('No board matches. Identify it by its labels, or make it from its pin table.')).toBeVisible();
});

test('a plan is duplicated from the list, the list is sorted, and a plan file that is dropped on the page opens', async ({
  page,
  request,
}) => {
  await page.goto('/');
  const plans = page.getByRole('region', { name: 'Plans' });
  await plans.getByRole('button', { name: 'Duplicate Ferry dial' }).click();
  await expect(plans.getByRole('link', { name: /^Ferry dial \(copy\)/ })).toBeVisible();
  await plans.getByRole('combobox', { name: 'Sort by' }).selectOption('name');
  const names = await plans.getByRole('listitem').locator('strong').allTextContents();
  expect(names).toEqual(names.toSorted((a, b) => a.localeCompare(b)));
  expect(names).toContain('Ferry dial (copy)');
  const { plans: stored } = (await (await request.get('/api/plans')).json()) as { plans: { id: string; name: string; parts: number }[] };
  const [copy, original] = ['Ferry dial (copy)', 'Ferry dial'].map((name) => stored.find((plan) => plan.name === name)!);
  expect([copy!.parts, copy!.id === original!.id]).toEqual([original!.parts, false]);

  // Out of the way, and back.
  await expect(plans.getByRole('link', { name: /^Ferry dial \(copy\)/ })).toContainText('of 22 wires built');
  await plans.getByRole('button', { name: 'Archive Ferry dial (copy)' }).click();
  await expect(plans.getByRole('link', { name: /^Ferry dial \(copy\)/ })).toBeHidden();
  await plans.getByRole('button', { name: 'Archived plans: 1' }).click();
  await expect(plans.getByRole('listitem')).toHaveCount(1);
  await plans.getByRole('button', { name: 'Unarchive Ferry dial (copy)' }).click();
  await expect(plans.getByRole('button', { name: /^Archived plans/ })).toBeHidden();
  await expect(plans.getByRole('link', { name: /^Ferry dial \(copy\)/ })).toBeVisible();

  const { plan } = (await (await request.get(`/api/plans/${copy!.id}`)).json()) as { plan: object };
  const dropped = await page.evaluateHandle(
    (text) => {
      const data = new DataTransfer();
      data.items.add(new File([text], 'dropped.json', { type: 'application/json' }));
      return data;
    },
    JSON.stringify({ ...plan, id: 'dropped-plan', name: 'Dropped' }),
  );
  await page.dispatchEvent('main', 'dragover', { dataTransfer: dropped });
  await page.dispatchEvent('main', 'drop', { dataTransfer: dropped });
  await expect(page).toHaveURL(/\/plans\/dropped-plan\/chart$/);
  await expect(page.getByRole('heading', { name: /Dropped/ })).toBeVisible();
});
