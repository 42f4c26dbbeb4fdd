// node scripts/screenshots.mjs: one current picture of each view, from the demo data, into docs/screenshots/.
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build, checkNode, install, main, root } from './steps.mjs';

const base = 'http://127.0.0.1:4397';
const hive = `${base}/plans/hive-watch`;

/** Each picture: its name, its theme, and how to come to it. */
const PICTURES = [
  ['plans', 'light', async (page) => page.goto(base)],
  [
    'library',
    'light',
    async (page) => {
      await page.goto(`${base}/sheets`);
      await page.getByText(/boards and .* parts\. Choose one/).waitFor();
    },
  ],
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
    'settle',
    'light',
    async (page) => {
      await page.goto(`${hive}/chart`);
      await page.getByRole('button', { name: 'Assign pins', exact: true }).click();
      await page.getByRole('region', { name: 'Proposal' }).waitFor();
    },
  ],
  [
    'buses',
    'light',
    async (page) => {
      await page.goto(`${hive}/buses`);
      await page.getByRole('heading', { name: /Bus load/ }).waitFor();
    },
  ],
  [
    'wiring',
    'light',
    async (page) => {
      await page.goto(`${hive}/build?mode=wiring`);
      await page.getByRole('group', { name: /^Wiring of / }).waitFor();
    },
  ],
  [
    'fits',
    'light',
    async (page) => {
      await page.goto(`${hive}/fits`);
      await page.getByText(/^These parts fit on/).waitFor();
      await page
        .getByRole('row', { name: /^ESP32 stick, 38 pins/ })
        .getByRole('button')
        .click();
    },
  ],
  [
    'levels',
    'dark',
    async (page) => {
      await page.goto(`${hive}/levels`);
      await page.getByRole('group', { name: 'Levels of the signals' }).waitFor();
    },
  ],
  [
    'resistors',
    'light',
    async (page) => {
      await page.goto(`${base}/plans/workbench-scoreboard/resistors`);
      await page.getByText(/nominal, /).waitFor();
    },
  ],
  [
    'supply',
    'light',
    async (page) => {
      await page.goto(`${base}/plans/ferry-dial/supply`);
      await page.getByRole('group', { name: 'Current of 5V' }).waitFor();
    },
  ],
  [
    'readout',
    'light',
    async (page) => {
      await page.goto(`${base}/plans/workbench-scoreboard/readout`);
      await page.getByText(/^Segments as wired/).waitFor();
    },
  ],
  [
    'facts',
    'dark',
    async (page) => {
      await page.goto(`${hive}/facts/oled-096-ssd1306-i2c?q=supply`);
      await page.getByRole('heading', { name: /^OLED/ }).waitFor();
    },
  ],
  [
    'identify',
    'light',
    async (page) => {
      await page.goto(`${hive}/stock`);
      await page.getByRole('button', { name: 'Identify by labels' }).click();
      await page.getByLabel('Printed labels').fill('GND VCC D0 D1 RES DC CS');
      await page.getByText('Several parts match').waitFor();
    },
  ],
  [
    'sheet-editor',
    'light',
    async (page) => {
      await page.goto(`${base}/sheets/motion-mpu6050/edit?copy`);
      await page.getByLabel('Summary').waitFor();
      await page.locator('summary', { hasText: /^Supply/ }).click();
      await page.getByRole('group', { name: 'Supply voltage' }).getByLabel('Maximum, V').fill('-5.5');
      await page.getByRole('button', { name: /Supply › Supply voltage › Maximum/ }).click();
    },
  ],
  ['build', 'light', async (page) => page.goto(`${hive}/build`)],
  [
    'holes',
    'light',
    async (page) => {
      await page.goto(`${hive}/build?mode=holes`);
      await page.getByRole('button', { name: 'Place the parts' }).click();
      await page
        .getByRole('region', { name: 'Placement' })
        .getByText(/needed|Proved/)
        .waitFor();
    },
  ],
  [
    'build-steps',
    'light',
    async (page) => {
      await page.goto(`${hive}/build?mode=steps`);
      await page.getByRole('heading', { name: 'Disconnect power' }).waitFor();
      for (let n = 0; n < 45; n += 1) await page.locator('body').press('ArrowRight');
    },
  ],
  [
    'bring-up',
    'dark',
    async (page) => {
      await page.goto(`${hive}/bring-up`);
      await page.getByLabel('Scan result').fill('0x27 0x3C 0x44 0x57 0x68 0x69');
      await page.getByLabel('Simulated bench: fault to simulate').selectOption({ label: 'Humidity, roof: ground not connected' });
      await page.getByRole('button', { name: 'Test the simulated bench' }).click();
      await page.getByText(/differences? in \d+ answers/).waitFor();
      await page.getByRole('button', { name: /^Run all/ }).click();
      await page.getByRole('button', { name: /^Run all/ }).waitFor({ state: 'hidden' });
      await page.getByRole('region', { name: 'Live bench' }).evaluate((region) => region.scrollIntoView());
    },
  ],
];

await main(async () => {
  checkNode();
  await install();
  await build();
  const { chromium } = await import('@playwright/test');
  const data = mkdtempSync(join(tmpdir(), 'roof-chart-shots-'));
  const server = spawn(
    process.execPath,
    [join(root, 'packages/server/dist/main.mjs'), '--port', new URL(base).port, '--data', data, '--demo'],
    { stdio: 'ignore' },
  );
  const answers = () => fetch(`${base}/api/health`).catch(() => null);
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM_PATH ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu'],
  });
  try {
    for (let n = 0; n < 100 && !(await answers()); n += 1) await new Promise((r) => setTimeout(r, 100));
    for (const [name, colorScheme, go] of PICTURES) {
      const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, colorScheme });
      await go(page);
      // The ledgers at the foot of a plan stand there once it is reviewed.
      if (page.url().includes('/plans/'))
        await page
          .getByText(/^\d+\/\d+$/)
          .first()
          .waitFor();
      await page.waitForTimeout(700);
      await page.waitForTimeout(300);
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
