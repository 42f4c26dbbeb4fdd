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
  timeout: 120_000,
  expect: { timeout: 15_000 },
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
    trace: 'retain-on-failure',
  },
});
