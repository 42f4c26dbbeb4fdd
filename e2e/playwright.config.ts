import { existsSync } from 'node:fs';
import { defineConfig } from '@playwright/test';

const candidates = [process.env.CHROMIUM_PATH, '/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome-stable'];
const executablePath = candidates.find((path) => path && existsSync(path));

// The built application in two workers, each with the real server over a database that begins empty but for the examples (workplace.ts).
export default defineConfig({
  testDir: '.',
  fullyParallel: true,
  workers: Number(process.env.E2E_WORKERS ?? 2),
  retries: 0,
  // Far above what any test takes: a machine that does other things, too, is no fault of the product’s.
  timeout: 300_000,
  expect: { timeout: 45_000 },
  outputDir: '../test-results',
  reporter: [['line'], ['json', { outputFile: '../test-results/e2e.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      ...(executablePath ? { executablePath } : {}),
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
      ],
    },
    // Each test has a browser of its own, which would first fetch and keep the whole application (offline.spec.ts does).
    serviceWorkers: 'block',
    // A trace costs a third of the time: `--trace on` where a failure needs one.
    trace: 'off',
  },
});
