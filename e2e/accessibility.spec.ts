import type { Page } from '@playwright/test';
import { violations } from './accessibilityScan';
import { expect, findings, openFinding, row, test } from './workplace';

const VIEWS = [
  '/',
  '/plans/hive-watch/stock',
  '/plans/hive-watch/chart',
  '/plans/hive-watch/build',
  '/plans/hive-watch/build?mode=steps',
  '/plans/hive-watch/build?mode=wiring',
  '/plans/hive-watch/build?mode=holes',
  '/plans/hive-watch/bring-up',
  '/plans/hive-watch/buses',
  '/plans/hive-watch/buses/spi0',
  '/plans/hive-watch/buses/lines',
  '/plans/hive-watch/levels',
  '/plans/workbench-scoreboard/resistors',
  '/plans/ferry-dial/supply',
  '/plans/workbench-scoreboard/readout',
  '/plans/hive-watch/fits',
  '/plans/hive-watch/fits/parts',
];

/** The plan whose name shows that a view is there. */
const planIn = (path: string): string =>
  path.includes('scoreboard') ? 'Workbench scoreboard' : path.includes('ferry') ? 'Ferry dial' : 'Hive watch';

/** Colours of the library change over a moment: one in between is neither theme's. */
async function useTheme(page: Page, colorScheme: 'light' | 'dark'): Promise<void> {
  await page.emulateMedia({ colorScheme });
  await expect(page.locator('html')).toHaveAttribute('data-mantine-color-scheme', colorScheme);
  await page.waitForTimeout(300);
}

/** Scans a page in the light theme, then what a theme can change in the dark one.
 *  @param within a selector: that part of the page alone */
async function expectAccessible(page: Page, within?: string): Promise<void> {
  await useTheme(page, 'light');
  expect(await violations(page, 'all', within)).toEqual([]);
  await useTheme(page, 'dark');
  expect({ theme: 'dark', violations: await violations(page, 'colours', within) }).toEqual({ theme: 'dark', violations: [] });
}

async function expectWidth(page: Page, ...widths: readonly number[]): Promise<void> {
  for (const width of widths) {
    await page.setViewportSize({ width, height: 800 });
    await expect.poll(() => page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
  }
}

const SHEET_PAGES = [
  ['/sheets', '41 boards and'],
  ['/sheets/esp32-stick-38', 'Strapping pins'],
  ['/sheets/motion-mpu6050', 'Thresholds are relative to the regulated supply'],
  ['/sheets/motion-mpu6050/edit?copy', 'Valid'],
  ['/sheets/new-part/edit', 'faults:'],
  ['/plans/hive-watch/facts', 'Facts of this plan'],
  ['/sheets/new-board', 'Paste the table'],
] as const;

/** Goes to a path as the back button would, without loading the page anew: a scan takes less time than a load. */
async function visit(page: Page, path: string): Promise<void> {
  if (page.url() === 'about:blank') await page.goto(path);
  else
    await page.evaluate((to) => {
      history.pushState(null, '', to);
      dispatchEvent(new PopStateEvent('popstate'));
    }, path);
}

test('the pages of sheets pass the accessibility scan in both themes and fit 1024 wide', async ({ page }) => {
  for (const [path, text] of SHEET_PAGES)
    await test.step(path, async () => {
      await page.setViewportSize({ width: 1024, height: 800 });
      await visit(page, path);
      await expect(page.getByText(text).first()).toBeVisible();
      // Of three hundred likenesses a few are enough.
      if (path === '/sheets') await page.getByRole('textbox', { name: /^Search/ }).fill('oled');
      await expectAccessible(page);
      await expectWidth(page, 1024);
    });
});

test('the forms of a part side by side pass the accessibility scan', async ({ page }) => {
  await page.goto('/plans/hive-watch/stock');
  await page.getByRole('button', { name: '1 other version: compare with OLED 128×64' }).click();
  await expect(page.getByRole('dialog').getByRole('row', { name: /^Dedicated pins/ })).toBeVisible();
  expect(await violations(page)).toEqual([]);
});

test('identify passes the accessibility scan with candidates in sight', async ({ page }) => {
  await page.goto('/plans/hive-watch/stock');
  await page.getByRole('button', { name: 'Identify by labels' }).click();
  await page.getByLabel('Printed labels').fill('VIN GND SCL SDA');
  await expect(page.getByText('Several parts match')).toBeVisible();
  expect(await violations(page)).toEqual([]);
});

async function expectView(page: Page, path: string): Promise<void> {
  await page.setViewportSize({ width: 1280, height: 800 });
  await visit(page, path);
  await expect(page.getByText(planIn(path)).first()).toBeVisible();
  if (path.includes('hive')) await expect(findings(page).getByText('Pin conflict: GP22 is used by 2 signals').first()).toBeVisible();
  if (path.endsWith('chart')) await row(page, 'motion-1:INT').getByRole('rowheader').click();
  await expectAccessible(page);
  await expectWidth(page, 1280, 1024);
}

// Two tests, so that each worker has its share.
for (const [at, share] of [VIEWS.slice(0, 8), VIEWS.slice(8)].entries())
  test(`the views pass the accessibility scan in both themes and fit 1280 and 1024 wide, ${['first', 'second'][at]} half`, async ({
    page,
  }) => {
    for (const path of share) await test.step(path, () => expectView(page, path));
  });

/** What is opened over a view or in it: its name, where it is, and how it is opened. The view around it is scanned above. */
const DIALOGS: readonly (readonly [string, string, (page: Page) => Promise<void>])[] = [
  ['command search', '[role=dialog]', async (page) => page.keyboard.press('Control+k')],
  ['list of keys', '[role=dialog]', async (page) => page.keyboard.press('?')],
  ['versions', '[role=dialog]', async (page) => page.getByRole('button', { name: 'Versions', exact: true }).click()],
  [
    'preview of a fix',
    'aside[aria-label=Findings]',
    async (page) => {
      await openFinding(page, 'Address conflict');
      await page.getByRole('button', { name: 'Tie Motion AD0 to 3V3 (address 0x69)' }).focus();
    },
  ],
  [
    'import of wires',
    'main',
    async (page) => {
      await visit(page, '/plans/hive-watch/build');
      await page.getByRole('button', { name: 'Import wires' }).click();
      await page.getByRole('textbox', { name: 'Wire list' }).fill('Encoder SW -> GP3');
    },
  ],
  [
    'bench note of a wire',
    'main',
    async (page) => {
      await visit(page, '/plans/hive-watch/chart');
      await visit(page, '/plans/hive-watch/build');
      await page.getByRole('button', { name: 'Bench note on Motion INT' }).click();
    },
  ],
  [
    'bench that was checked part by part',
    'main',
    async (page) => {
      await visit(page, '/plans/proofing-box/bring-up');
      await page.getByLabel('Simulated bench: fault to simulate').selectOption({ label: 'Heater SIG is one header position off, at D10' });
      await page.getByRole('button', { name: 'Test the simulated bench' }).click();
      await page.getByRole('button', { name: /^Run all/ }).click();
      await expect(page.getByRole('button', { name: /^Run all/ })).toBeHidden();
      await page.getByText(/differences? in \d+ answers/).click();
    },
  ],
];

test('dialogs and panels pass the accessibility scan in both themes', async ({ page }) => {
  await page.goto('/plans/hive-watch/chart');
  await expect(page.getByText('Pin conflict: GP22 is used by 2 signals').first()).toBeVisible();
  await page.getByRole('heading', { name: 'Findings' }).click();
  for (const [name, place, open] of DIALOGS)
    await test.step(name, async () => {
      await open(page);
      await page.waitForTimeout(300);
      await expectAccessible(page, place);
      await page.keyboard.press('Escape');
      await page
        .getByRole('heading', { level: 1 })
        .or(page.getByRole('banner'))
        .first()
        .click({ position: { x: 2, y: 2 } });
    });
});

test('a tablet held upright: nothing is cut off sideways, the list has targets for a finger', async ({ page }) => {
  await page.setViewportSize({ width: 768, height: 1024 });
  await page.goto('/plans/hive-watch/build');
  await expect(page.getByRole('heading', { name: 'Build sheet' })).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(768);
  const line = (await page.getByRole('listitem').filter({ hasText: 'MOSI' }).first().boundingBox())!;
  expect(line.height).toBeGreaterThanOrEqual(44);
  await page.goto('/plans/hive-watch/chart');
  const before = (await row(page, 'motion-1:INT').boundingBox())!;
  await page.getByRole('button', { name: 'Larger rows' }).click();
  const after = (await row(page, 'motion-1:INT').boundingBox())!;
  expect(before.height).toBeLessThan(20);
  expect(after.height).toBeGreaterThanOrEqual(28);
});

test('the build list prints without the frame around it', async ({ page }) => {
  await page.goto('/plans/hive-watch/build');
  await expect(page.getByRole('heading', { name: 'Build sheet' })).toBeVisible();
  await page.emulateMedia({ media: 'print' });
  for (const gone of [
    page.getByRole('banner'),
    page.getByRole('navigation', { name: 'Views' }),
    page.getByRole('complementary', { name: 'Findings' }),
    page.getByRole('button', { name: 'Print' }),
  ]) {
    await expect(gone).toBeHidden();
  }
  // The whole list is on the paper, not only what fits the window.
  const last = page.getByRole('listitem').last();
  expect((await last.boundingBox())!.y).toBeGreaterThan(800);
  expect(await last.evaluate((e) => getComputedStyle(e.closest('main')!).overflow)).toBe('visible');
});
