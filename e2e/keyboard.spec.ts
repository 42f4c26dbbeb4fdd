import type { Locator, Page } from '@playwright/test';
import { expect, findings, row, saved, storedPlan, test } from './workplace';

/** Tab (or Shift-Tab) until the element has the focus: what a person without a mouse does. */
async function tabTo(page: Page, target: Locator, key: 'Tab' | 'Shift+Tab' = 'Tab'): Promise<void> {
  await expect(target).toBeVisible();
  for (let n = 0; n < 140; n += 1) {
    if (await target.evaluate((e) => e === document.activeElement)) return;
    await page.keyboard.press(key);
  }
  throw new Error(`${target} is not reached by ${key}`);
}

const PARTS = [
  'oled 0.96 i2c',
  'sht31',
  'sht31',
  'ds3231 eeprom',
  'mpu6050',
  '20x4 pcf8574',
  'hx711',
  'sd card socket bare',
  'encoder switch',
  'led red status',
];

test('the whole hive plan by keyboard only: board, parts, a clash made and mended, build list ticked', async ({ page, request }) => {
  // Some hundred single key presses, each waited for: a slow machine needs minutes.
  test.setTimeout(400_000);
  await page.goto('/');
  await tabTo(page, page.getByRole('link', { name: 'Skip the list: new plan' }));
  await page.keyboard.press('Enter');
  await tabTo(page, page.getByRole('combobox', { name: 'Board' }));
  await page.keyboard.type('RP2040 stick');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await tabTo(page, page.getByRole('textbox', { name: 'Name' }));
  await page.keyboard.type('Hive by keys');
  await page.keyboard.press('Enter');

  const search = page.getByRole('textbox', { name: 'Search parts' });
  await expect(search).toBeFocused();
  for (const [n, part] of PARTS.entries()) {
    await tabTo(page, search, 'Shift+Tab');
    await page.keyboard.press('Control+a');
    await page.keyboard.type(part);
    // What was found for the part before has a button of the same name, which goes when the new results come.
    await expect(page.getByRole('list', { name: 'Parts found' })).toHaveAttribute('aria-busy', 'false');
    const add = page.getByRole('button', { name: /^Add and connect: / });
    await expect(add).toHaveCount(1);
    await expect(add).toBeEnabled();
    await tabTo(page, add);
    await expect(add).toBeFocused();
    await expect(add).toBeEnabled();
    await page.keyboard.press('Enter');
    await expect(page.getByRole('region', { name: 'In this plan' }).getByRole('listitem')).toHaveCount(n + 1);
  }
  // The display's pull-ups are one too many, and go to 5 V: the remedy cuts them.
  const line = (title: string | RegExp) => findings(page).locator('button[aria-expanded]').filter({ hasText: title }).first();
  const open = async (title: string | RegExp) => {
    await expect(line(title)).toBeVisible();
    await tabTo(page, line(title));
    if ((await line(title).getAttribute('aria-expanded')) !== 'true') await page.keyboard.press('Enter');
  };
  await open('pull-ups too strong');
  const cut = findings(page)
    .getByRole('button', { name: /^Remove the pull-ups of LCD/ })
    .first();
  await expect(cut).toBeVisible();
  await tabTo(page, cut);
  await page.keyboard.press('Enter');
  // Then it must go behind a level shifter, and one more module's pull-ups are too many.
  for (const [title, name] of [
    [/[Hh]igh level too low|noise margin/, /^Level-shift 2 lines with Level shifter/],
    ['pull-ups too strong', /^Remove the pull-ups of /],
  ] as const) {
    await open(title);
    const remedy = findings(page).getByRole('button', { name }).first();
    await expect(remedy).toBeVisible();
    await tabTo(page, remedy);
    await page.keyboard.press('Enter');
  }
  await expect(findings(page)).toContainText('No issues found');

  // Through the command search to the wire of the LED, and onto the pin of the encoder.
  const id = /plans\/([^/]+)/.exec(page.url())![1]!;
  await saved(page);
  const taken = ((await storedPlan(request, id)).plan.wires['input-1:A']!.end as { pin: string }).pin;
  await page.keyboard.press('Control+k');
  await page.keyboard.type('LED anode');
  await page.keyboard.press('Enter');
  await expect(row(page, 'light-1:A')).toHaveAttribute('aria-selected', 'true');
  await tabTo(page, page.getByRole('grid'));
  const cell = page.getByRole('gridcell');
  await page.keyboard.press('Home');
  for (let n = 0; n < 60 && !(await cell.getAttribute('aria-label'))!.startsWith(`${taken}, `); n += 1)
    await page.keyboard.press('ArrowRight');
  await expect(cell).toHaveAttribute('aria-label', /error, in use$/);
  await page.keyboard.press('Enter');
  await expect(findings(page)).toContainText(`Pin conflict: ${taken} is used by 2 signals`);
  await page.keyboard.press('f');
  await expect(page.locator('[data-row][aria-selected=true]')).toHaveAttribute('aria-label', /error/);
  await tabTo(page, findings(page).getByRole('button', { name: /^Move LED anode to/ }));
  await expect(page.getByText('No new findings')).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(findings(page)).toContainText('No issues found');

  await page.keyboard.press('Control+k');
  await page.keyboard.type('Build sheet');
  await page.keyboard.press('Enter');
  await tabTo(page, page.getByRole('checkbox', { name: /^OLED 128×64 GND to GND: done/ }));
  await page.keyboard.press(' ');
  await expect(page.getByText(/1 done/)).toBeVisible();
  await saved(page);
  expect((await storedPlan(request, id)).plan.placements).toHaveLength(PARTS.length + 1);
});
