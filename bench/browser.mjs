// Edit to painted in Chromium, and server times with 10 000 plans, against the built application. Called by npm run bench.
import { spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { chromium } from '@playwright/test';

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const port = 4396;
const base = `http://127.0.0.1:${port}`;

const quantile = (sorted, q) => sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * q))];

function report(name, times) {
  const sorted = [...times].sort((a, b) => a - b);
  console.log(
    `| ${name} | ${times.length} | ${quantile(sorted, 0.5).toFixed(1)} | ${quantile(sorted, 0.95).toFixed(1)} | ${quantile(sorted, 0.99).toFixed(1)} |`,
  );
}

async function startServer(data, folder) {
  const from = performance.now();
  const args = [
    '--port',
    String(port),
    '--data',
    data,
    '--demo',
    '--catalogue',
    join(folder, 'catalogue'),
    '--examples',
    join(folder, 'plans'),
  ];
  const child = spawn(process.execPath, [join(root, 'packages/server/dist/main.mjs'), ...args], { stdio: ['ignore', 'pipe', 'inherit'] });
  await new Promise((resolve) => child.stdout.on('data', resolve));
  return { child, ms: performance.now() - from };
}

/** Time from a key to the frame after the chart shows it. */
async function editToPainted(page) {
  await page.goto(`${base}/plans/large/chart`);
  await page.locator('[data-row]').first().waitFor();
  const row = page.locator('[data-row^="light-"]').first();
  await row.getByRole('rowheader').click();
  return page.evaluate(async () => {
    const grid = document.querySelector('[role=grid]');
    grid.focus();
    const focused = () => document.querySelector('[role=row][aria-selected=true]');
    const times = [];
    for (let n = 0; n < 120; n += 1) {
      const before = focused().getAttribute('aria-label');
      const from = performance.now();
      const key = n % 40 < 20 ? 'ArrowRight' : 'ArrowLeft';
      grid.dispatchEvent(new KeyboardEvent('keydown', { key, shiftKey: true, bubbles: true }));
      await new Promise((resolve) => {
        // In the frame that has the change, a message posted now is handled right after the frame is painted.
        const { port1, port2 } = new MessageChannel();
        port1.onmessage = () => resolve();
        const look = () => (focused().getAttribute('aria-label') !== before ? port2.postMessage(0) : requestAnimationFrame(look));
        requestAnimationFrame(look);
      });
      times.push(performance.now() - from);
      await new Promise((resolve) => setTimeout(resolve, 60));
    }
    return times.slice(20);
  });
}

/** Longest frames while the field scrolls from one end to the other. */
async function scrollFrames(page) {
  return page.evaluate(async () => {
    const box = document.querySelector('[role=grid]');
    const frames = [];
    let last = performance.now();
    for (let n = 0; n < 120; n += 1) {
      box.scrollTop = (box.scrollHeight * (n % 60)) / 60;
      box.scrollLeft = (box.scrollWidth * (n % 40)) / 40;
      await new Promise(requestAnimationFrame);
      frames.push(performance.now() - last);
      last = performance.now();
    }
    return frames.slice(5);
  });
}

/** Time from a change of the plan to the verdict on the last of all parts, in the list of what else fits. Each time another part comes or
 *  goes, so that no plan is one that was asked about before, but that of twelve parts itself. */
async function sweep(page) {
  await page.goto(`${base}/plans/twelve/fits/parts`);
  await page.getByText(/parts fit without changes/).waitFor();
  await page.waitForTimeout(1500);
  const found = [];
  for (let n = 0; n < 28; n += 1) {
    found.push(
      await page.evaluate(async (n) => {
        const status = [...document.querySelectorAll('[role=status]')].find((one) => /parts fit without/.test(one.textContent));
        const said = () => /parts fit without changes/.test(status.textContent);
        const fitting = [...document.querySelectorAll('[role=row]')].filter((row) => row.children[1]?.textContent === 'Fits');
        const from = performance.now();
        if (n % 2) document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'z', ctrlKey: true, bubbles: true }));
        else fitting[(n * 11) % fitting.length].querySelector('button').click();
        // Watched, not asked frame by frame: to draw frames that nobody needs would take what is to be measured.
        for (const wanted of [false, true])
          await new Promise((resolve) => {
            const watch = new MutationObserver(() => {
              if (said() !== wanted) return;
              watch.disconnect();
              resolve();
            });
            watch.observe(status.parentElement, { subtree: true, childList: true, characterData: true });
          });
        // In the next frame, a message posted now is handled right after the frame is painted.
        await new Promise((resolve) => {
          const { port1, port2 } = new MessageChannel();
          port1.onmessage = resolve;
          requestAnimationFrame(() => port2.postMessage(0));
        });
        return performance.now() - from;
      }, n),
    );
    await page.waitForTimeout(100);
  }
  return found.slice(8);
}

async function times(count, work) {
  const found = [];
  for (let n = 0; n < count; n += 1) {
    const from = performance.now();
    await work(n);
    found.push(performance.now() - from);
  }
  return found;
}

const json = { 'Content-Type': 'application/json' };

async function withManyPlans() {
  const ids = [];
  const etags = [];
  const create = async (n) => {
    const response = await fetch(`${base}/api/plans`, {
      method: 'POST',
      headers: json,
      body: JSON.stringify({ name: `Plan ${n}`, board: 'rp2040-stick-40' }),
    });
    ids.push((await response.json()).plan.id);
    etags.push(response.headers.get('ETag'));
  };
  for (let n = 0; n < (Number(process.env.BENCH_PLANS) || 10_000); n += 1) await create(n);
  report('list of plans, 10 000 stored', await times(300, async () => (await fetch(`${base}/api/plans`)).json()));
  report(
    'open a plan, 10 000 stored',
    await times(500, async (n) => (await fetch(`${base}/api/plans/${ids[(n * 7919) % ids.length]}`)).json()),
  );
  report(
    'acknowledge an edit, 10 000 stored',
    await times(300, async (n) => {
      const edits = [{ kind: 'rename-plan', name: `Edited ${n}` }];
      await (
        await fetch(`${base}/api/plans/${ids[n]}/edits`, {
          method: 'POST',
          headers: { ...json, 'If-Match': etags[n] },
          body: JSON.stringify({ batches: [{ batch: randomUUID(), edits }] }),
        })
      ).json();
    }),
  );
}

const folder = process.argv[2];
const data = mkdtempSync(join(tmpdir(), 'roof-chart-bench-'));
const server = await startServer(data, folder);
console.log('\n| in the browser and on the server | runs | median ms | p95 ms | p99 ms |\n|---|---:|---:|---:|---:|');
try {
  report('start of the server', [server.ms]);
  const executablePath = [process.env.CHROMIUM_PATH, '/usr/bin/chromium'].find((path) => path && existsSync(path));
  if (executablePath) {
    const browser = await chromium.launch({ executablePath, args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'] });
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    report('edit to painted, 30 parts on 144 pins', await editToPainted(page));
    report('frames while scrolling, 30 parts on 144 pins', await scrollFrames(page));
    report('what else fits: every part of the catalogue beside 12, from an edit to the last', await sweep(page));
    await browser.close();
  } else console.log('| (no Chromium here: browser not measured) | | | | |');
  if (process.env.BENCH_PLANS !== '0') await withManyPlans();
} finally {
  server.child.kill();
  rmSync(data, { recursive: true, force: true });
}
