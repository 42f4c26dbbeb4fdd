// node scripts/screenshots.mjs: one current picture of each view, from the demo data, into docs/screenshots/.
import { spawn } from 'node:child_process';
import { copyFileSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build, checkNode, install, main, root, run, tool } from './steps.mjs';

const PORT = 4397;
const base = `http://127.0.0.1:${PORT}`;
const hive = `${base}/plans/hive-watch`;

/** Each picture: its name, its theme, and how to come to it. */
const PICTURES = [
  ['plans', 'light', async (page) => page.goto(base)],
  ['stock', 'light', async (page) => page.goto(`${hive}/stock`)],
  [
    'chart',
    'light',
    async (page) => {
      await page.goto(`${hive}/chart`);
      await page.locator('[data-row="encoder-1:SW"] [role=rowheader]').click();
    },
  ],
  [
    'chart-dark',
    'dark',
    async (page) => {
      await page.goto(`${hive}/chart`);
      await page.getByRole('button', { name: 'GP22 carries 2 signals' }).click();
    },
  ],
  [
    'search',
    'light',
    async (page) => {
      await page.goto(`${hive}/chart`);
      await page.getByText('GP22 carries 2 signals').waitFor();
      await page.keyboard.press('Control+k');
      await page.getByPlaceholder('Do anything…').fill('gp2');
    },
  ],
  [
    'chart-large',
    'light',
    async (page) => {
      await page.goto(`${base}/plans/large/chart`);
      await page.locator('[data-row="light-1:A"] [role=rowheader]').click();
    },
  ],
  ['build', 'light', async (page) => page.goto(`${hive}/build`)],
];

await main(async () => {
  checkNode();
  await install();
  await build();
  const { chromium } = await import('@playwright/test');
  const data = mkdtempSync(join(tmpdir(), 'roof-chart-shots-'));
  // The large plan is made up for measuring; its board joins the catalogue for these pictures only.
  await run(process.execPath, [tool('vite/bin/vite.js'), 'build', '--logLevel', 'warn'], { cwd: join(root, 'bench'), quiet: true });
  await run(process.execPath, [join(root, 'bench/dist/main.mjs'), join(data, 'large')], { quiet: true });
  copyFileSync(join(root, 'demo/plans/hive-watch.json'), join(data, 'large/plans/hive-watch.json'));
  const extra = ['--catalogue', join(data, 'large/catalogue'), '--examples', join(data, 'large/plans')];
  const server = spawn(
    process.execPath,
    [join(root, 'packages/server/dist/main.mjs'), '--port', String(PORT), '--data', data, '--demo', ...extra],
    { stdio: 'ignore' },
  );
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM_PATH ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu'],
  });
  try {
    for (let n = 0; n < 40 && !(await fetch(`${base}/api/health`).catch(() => null)); n += 1) await new Promise((r) => setTimeout(r, 100));
    for (const [name, colorScheme, go] of PICTURES) {
      const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, colorScheme });
      await go(page);
      await page.waitForTimeout(700);
      await page.screenshot({ path: join(root, 'docs/screenshots', `${name}.png`) });
      await page.close();
      console.log(`docs/screenshots/${name}.png`);
    }
  } finally {
    await browser.close();
    server.kill();
    rmSync(data, { recursive: true, force: true });
  }
});
