import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect, row, test } from './workplace';

const VIEWS = ['/', '/plans/hive-watch/stock', '/plans/hive-watch/chart', '/plans/hive-watch/build'];

async function violations(page: Page): Promise<string[]> {
  const result = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'])
    .analyze();
  // A scan that looked at nothing would be clean, too.
  expect(result.passes.length).toBeGreaterThan(10);
  return result.violations.map(
    (v) =>
      `${v.id}: ${v.nodes
        .map((n) => `${n.target.join(' ')} ${n.failureSummary ?? ''}`)
        .slice(0, 4)
        .join(' | ')}`,
  );
}

for (const scheme of ['light', 'dark'] as const) {
  for (const path of VIEWS) {
    test(`${path} in the ${scheme} theme passes the accessibility scan`, async ({ page }) => {
      await page.emulateMedia({ colorScheme: scheme });
      await page.goto(path);
      await expect(page.getByText('Hive watch').first()).toBeVisible();
      if (path.includes('hive')) await expect(page.getByText('GP22 carries 2 signals').first()).toBeVisible();
      if (path.endsWith('chart')) await row(page, 'motion-1:INT').getByRole('rowheader').click();
      expect(await violations(page)).toEqual([]);
    });
  }
}

for (const path of VIEWS) {
  test(`${path} fits 1280 and 1024 wide without scrolling the page sideways`, async ({ page }) => {
    for (const width of [1280, 1024]) {
      await page.setViewportSize({ width, height: 800 });
      await page.goto(path);
      await expect(page.getByText('Hive watch').first()).toBeVisible();
      expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
    }
  });
}
