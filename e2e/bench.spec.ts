import { spawn } from 'node:child_process';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, planWith, saved, storedPlan, test, editPlan } from './workplace';

const wire = (placement: string, terminal: string, end: object) => ({ kind: 'wire', placement, terminal, end });
const pin = (name: string) => ({ to: 'pin', pin: name });
const glass = [
  wire('p0', 'SDA', pin('GP4')),
  wire('p0', 'SCL', pin('GP5')),
  wire('p0', 'GND', { to: 'ground' }),
  wire('p0', 'VCC', { to: 'rail', rail: '3v3' }),
];

test('step by step by keyboard on a small screen; what was built is told apart from what is planned later', async ({ page, request }) => {
  const id = await planWith(request, 'rp2040-stick-40', ['oled-096-ssd1306-i2c'], glass);
  await page.setViewportSize({ width: 1024, height: 768 });
  await page.goto(`/plans/${id}/build`);
  await page.getByRole('button', { name: 'Step by step' }).click();
  const steps = page.getByRole('region', { name: 'Step by step' });
  await expect(steps.getByRole('heading', { name: 'Disconnect power' })).toBeVisible();
  await page.locator('body').press('Enter');
  await expect(steps.getByRole('heading', { name: /GND$/ })).toBeVisible();
  for (const _ of [1, 2, 3, 4]) await page.locator('body').press('Enter');
  await expect(steps.getByText(/5 done/)).toBeVisible();
  const done = steps.getByRole('button', { name: 'Done' });
  expect((await done.boundingBox())!.height).toBeGreaterThanOrEqual(48);
  await page.locator('body').press('Escape');
  await expect(page.getByText('4 wires, 4 done')).toBeVisible();
  await page.getByRole('button', { name: 'Mark as built' }).click();
  await expect(page.getByText(/no changes since/)).toBeVisible();
  await saved(page);
  await editPlan(request, id, [wire('p0', 'SDA', pin('GP8')), { kind: 'unwire', placement: 'p0', terminal: 'SCL' }]);
  await page.reload();
  const changed = page.getByRole('region', { name: 'Changes since the build' });
  await expect(changed.getByRole('listitem')).toHaveText(['Part 0 SCL: remove from GP5', 'Part 0 SDA: move from GP4 to GP8']);
});

test('a note on a wire says how it was found, and counts on the bench', async ({ page, request }) => {
  const id = await planWith(request, 'rp2040-stick-40', ['oled-096-ssd1306-i2c'], glass);
  await page.goto(`/plans/${id}/build`);
  await page.getByRole('button', { name: 'Bench note on Part 0 SDA' }).click();
  const dialog = page.getByRole('dialog', { name: 'Bench note' });
  await expect(dialog.getByRole('button', { name: 'Save note' })).toBeDisabled();
  await dialog.getByLabel('Method').fill('<i>metered</i>');
  await dialog.getByLabel('Date').fill('2026-11-26');
  await dialog.getByRole('button', { name: 'Save note' }).click();
  await expect(page.getByText('Confirmed 2026-11-26: <i>metered</i>')).toBeVisible();
  await page.goto(`/plans/${id}/bring-up`);
  await expect(page.getByText('1 of 2 wires confirmed')).toBeVisible();
  await page.goto(`/plans/${id}/build`);
  await page.getByRole('button', { name: 'Bench note on Part 0 SDA' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Remove' }).click();
  await expect(page.getByText(/^Found there/)).toBeHidden();
});

test('constants are saved as files, and a list of wires is held against the plan before it is taken', async ({ page, request }) => {
  const id = await planWith(request, 'rp2040-stick-40', ['oled-096-ssd1306-i2c', 'led-red-5mm'], glass);
  await page.goto(`/plans/${id}/build`);
  await page.getByRole('button', { name: 'Export' }).click();
  const saving = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: /Constants for C\+\+/ }).click();
  const file = await saving;
  expect(file.suggestedFilename()).toMatch(/\.hpp$/);
  expect(await readFile(await file.path(), 'utf8')).toMatch(/namespace part_0 \{[^]*constexpr uint8_t pin_sda = 4;[^]*address = 0x3C;/);
  await page.getByRole('button', { name: 'Export' }).click();
  await expect(page.getByRole('menuitem', { name: /Device tree overlay/ })).toBeDisabled();
  await page.keyboard.press('Escape');

  await page.getByRole('button', { name: 'Import wires' }).click();
  const dialog = page.getByRole('dialog');
  await dialog
    .getByLabel('Wire list')
    .fill('Part 1 anode -> GP2\nPart 1 cathode -> GND\nPart 0 SDA -> GP4\nPart 7 X -> GP3\nPart 1 anode -> GP99');
  await expect(dialog.getByRole('row')).toHaveCount(5);
  await expect(dialog.getByRole('row').nth(2)).toContainText('already in the plan');
  await expect(dialog.getByPlaceholder('No such terminal. Which one?')).toBeVisible();
  await expect(dialog.getByRole('button', { name: 'Import 2 wires' })).toBeEnabled();
  // What is not understood is asked.
  await dialog.getByLabel('Pin meant in line 5').click();
  await page.getByRole('option', { name: 'GP7', exact: true }).click();
  await dialog.getByRole('button', { name: 'Import 3 wires' }).click();
  await expect(dialog).toBeHidden();
  await saved(page);
  const { plan } = await storedPlan(request, id);
  expect((plan as unknown as { wires: Record<string, { end: unknown }> }).wires['p1:A']!.end).toEqual(pin('GP7'));
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('4 wires, 0 done')).toBeVisible();
});

test('a pasted scan is held against the plan, a found address is taken, and what was found counts as verified', async ({
  page,
  request,
}) => {
  const id = await planWith(
    request,
    'rp2040-stick-40',
    ['oled-096-ssd1306-i2c', 'light-bh1750'],
    [...glass, wire('p1', 'SDA', pin('GP4')), wire('p1', 'SCL', pin('GP5'))],
  );
  await page.goto(`/plans/${id}/bring-up`);
  const scan = page.getByRole('region', { name: 'Bus scan' });
  await scan.getByLabel('Scan result').fill('<b>no</b>');
  await expect(scan.getByText(/No addresses found in this text/)).toBeVisible();
  await scan.getByLabel('Scan result').fill('Scanning...\nI2C device found at address 0x3C !\nI2C device found at address 0x5C !\n');
  await expect(scan.getByRole('row', { name: /0x23 not found/ })).toBeVisible();
  await scan.getByRole('button', { name: 'Set 0x5C in the plan for Part 1' }).click();
  await expect(scan.getByRole('row', { name: /0x5C as planned/ })).toBeVisible();
  await scan.getByRole('button', { name: 'Record 2 parts as found' }).click();
  await expect(page.getByText(/^2 of 2 parts verified on the bench/)).toBeVisible();
  await page.getByRole('checkbox', { name: 'Part 0: works' }).check();
  await saved(page);
  const { plan } = await storedPlan(request, id);
  expect(Object.keys((plan as unknown as { steps: object }).steps).sort()).toEqual(
    ['found:p0:display', 'found:p1:sensor', 'light:p0'].sort(),
  );
});

test('the simulated bench answers as planned, a fault in it is named, and a check can be stopped', async ({ page }) => {
  await page.goto('/plans/proofing-box/bring-up');
  const live = page.getByRole('region', { name: 'Live bench' });
  await live.getByRole('button', { name: 'Test the simulated bench' }).click();
  await expect(
    live.getByText(/^All \d+ answers as planned\. Inputs of parts cannot be measured: 9 parts and lines to test below/),
  ).toBeVisible();
  await live.getByRole('button', { name: 'Run all 9 tests' }).click();
  await expect(live.getByText(/^All \d+ answers as planned\. Every wire was tested/)).toBeVisible();
  await live.getByRole('button', { name: /^Record \d+ wires? as confirmed, 5 parts as working$/ }).click();
  await expect(page.getByText(/, [1-9]\d* of \d+ wires confirmed/)).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText(/, 0 of \d+ wires confirmed/)).toBeVisible();
  // What only listens is found once somebody looks.
  await live.getByLabel('Simulated bench: fault to simulate').selectOption({ label: 'Heater SIG is one header position off, at D10' });
  await live.getByRole('button', { name: 'Test the simulated bench' }).click();
  await expect(live.getByText(/^All \d+ answers as planned/)).toBeVisible();
  await live.getByRole('button', { name: 'Heater: Run' }).click();
  await expect(live.getByRole('row', { name: /^Heater .* not as expected/ })).toBeVisible();
  await live.getByRole('button', { name: 'Buzzer: Run' }).click();
  await expect(live.getByRole('row', { name: /^Buzzer .* others too/ })).toBeVisible();
  await expect(live.getByRole('listitem')).toHaveText(['Heater SIG is one header position off, at D10']);
  await page.goto('/plans/hive-watch/bring-up');
  const fault = live.getByLabel('Simulated bench: fault to simulate');
  for (const words of [
    'OLED 128×64 SCL and OLED 128×64 SDA are swapped',
    'I2C0: no pull-up resistors',
    'Humidity, roof: ground not connected',
  ]) {
    await fault.selectOption({ label: words });
    await live.getByRole('button', { name: 'Test the simulated bench' }).click();
    await expect(live.getByRole('listitem').filter({ hasText: words })).toBeVisible();
  }
  const saving = page.waitForEvent('download');
  await live.getByRole('button', { name: 'Download probe for MicroPython' }).click();
  expect(await readFile(await (await saving).path(), 'utf8')).toContain('BOARD = "rp2040-stick-40"');
});

test('a real bench over a serial port: the probe answers, somebody acts and looks, outputs move only with leave', async ({
  page,
  request,
}) => {
  const { plan } = await storedPlan(request, 'proofing-box');
  const folder = await mkdtemp(join(tmpdir(), 'roof-chart-bench-'));
  await writeFile(join(folder, 'plan.json'), JSON.stringify(plan));
  // The simulated bench of the command line stands for the board at the other end of the cable.
  const cli = join(process.cwd(), 'scripts/cli.mjs');
  const board = spawn(process.execPath, [cli, 'bench', join(folder, 'plan.json'), '--fault', 'one-off display-1:CLK D12']);
  await page.exposeFunction('sendToBoard', (text: string) => board.stdin.write(text));
  await page.addInitScript(() => {
    const bench = window as unknown as { sendToBoard(text: string): Promise<void>; hearBoard(text: string): void };
    let hear: ReadableStreamDefaultController<Uint8Array>;
    bench.hearBoard = (text) => hear.enqueue(new TextEncoder().encode(text));
    const port = () => ({
      open: () => Promise.resolve(),
      close: () => Promise.resolve(),
      readable: new ReadableStream<Uint8Array>({ start: (controller) => void (hear = controller) }),
      writable: new WritableStream<Uint8Array>({ write: (bytes) => bench.sendToBoard(new TextDecoder().decode(bytes)) }),
    });
    Object.defineProperty(navigator, 'serial', { value: { requestPort: () => Promise.resolve(port()) } });
  });
  await page.goto('/plans/proofing-box/bring-up');
  board.stdout.on('data', (data: Buffer) => {
    void page.evaluate((text) => (window as unknown as { hearBoard(text: string): void }).hearBoard(text), data.toString());
  });
  const live = page.getByRole('region', { name: 'Live bench' });
  await live.getByRole('button', { name: 'Test the board' }).click();
  await expect(live.getByText(/answers as planned\. Inputs of parts cannot be measured/)).toBeVisible();
  // Nothing moves before somebody lets it.
  await expect(live.getByRole('button', { name: 'Heater: Run' })).toBeDisabled();
  await live.getByRole('checkbox', { name: /Allow outputs to move/ }).check();
  await live.getByRole('button', { name: 'Heater: Run' }).click();
  await live.getByRole('button', { name: 'Heater: Yes, only that' }).click();
  await expect(live.getByRole('row', { name: /^Heater .* as expected/ })).toBeVisible();
  await live.getByRole('button', { name: 'Keys OUT: Watch' }).click();
  await expect(live.getByRole('row', { name: /^Keys OUT .* moves/ })).toBeVisible();
  await live.getByRole('button', { name: 'Time and warmth: Run' }).click();
  await live.getByRole('button', { name: 'Time and warmth: No' }).click();
  await expect(live.getByRole('listitem').filter({ hasText: 'Time and warmth CLK is one header position off, at D12' })).toBeVisible();
  await live.getByRole('button', { name: 'Disconnect the probe' }).click();
  await expect(live.getByRole('button', { name: 'Fan: Run' })).toBeDisabled();
  // Plugged in again, what was seen stays seen.
  await live.getByRole('button', { name: 'Test the board' }).click();
  await expect(live.getByRole('button', { name: 'Fan: Run' })).toBeEnabled();
  await expect(live.getByRole('row', { name: /^Time and warmth .* not as expected/ })).toBeVisible();
  await expect(live.getByRole('listitem').filter({ hasText: 'Time and warmth CLK is one header position off, at D12' })).toBeVisible();
  board.kill();
  await rm(folder, { recursive: true });
});

test('a damaged plan file opens as far as it goes, and what does not is handed back', async ({ page, request }) => {
  const id = await planWith(request, 'rp2040-stick-40', ['oled-096-ssd1306-i2c'], glass);
  const { plan } = (await storedPlan(request, id)) as unknown as { plan: Record<string, unknown> & { wires: Record<string, unknown> } };
  const broken = { ...plan, formatVersion: 3, hologram: true, wires: { ...plan.wires, 'p0:SDA': { end: 'somewhere' } } };
  await page.goto('/');
  const open = (name: string, text: string) =>
    page.getByLabel('Plan file to open').setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(text) });
  await open('half.json', JSON.stringify(broken).slice(0, 200));
  await expect(page.getByText(/half\.json: not valid JSON.*Nothing was opened/)).toBeVisible();
  const saving = page.waitForEvent('download');
  await open('future.json', JSON.stringify(broken));
  const leftovers = JSON.parse(await readFile(await (await saving).path(), 'utf8')) as { path: string }[];
  expect(leftovers.map((one) => one.path).sort()).toEqual(['formatVersion', 'hologram', 'wires.p0:SDA']);
  await expect(page).toHaveURL(/\/chart$/);
  await expect(page.getByText(/3 entries of future\.json could not be read and were left out/)).toBeVisible();
});

test('charts are saved as pictures, with the names that stand beside them', async ({ page }) => {
  await page.goto('/plans/hive-watch/buses');
  const save = async (name: RegExp, kind: string) => {
    await page.getByRole('button', { name }).click();
    const saving = page.waitForEvent('download');
    await page.getByRole('menuitem', { name: kind }).click();
    return readFile(await (await saving).path());
  };
  const svg = (await save(/^Save as image: .*[Aa]ddress/, 'As SVG')).toString('utf8');
  expect(svg).toMatch(/^<svg [^]*Humidity, brood[^]*0x44[^]*<\/svg>\s*$/);
  const png = await save(/^Save as image: .*[Aa]ddress/, 'As PNG');
  expect([...png.subarray(0, 8)]).toEqual([137, 80, 78, 71, 13, 10, 26, 10]);
  expect(png.length).toBeGreaterThan(10_000);
  // Curves take their looks with them, as nothing of the page's styles goes along.
  const curve = (await save(/^Save as image: Rise of the line$/, 'As SVG')).toString('utf8');
  expect(curve).toMatch(/<path [^>]*stroke="rgb\(/);
  expect(curve).not.toContain('var(--');
  const second = (await save(/^Save as image: Bus load/, 'As SVG')).toString('utf8');
  expect(second).toContain('Humidity, brood');
});
