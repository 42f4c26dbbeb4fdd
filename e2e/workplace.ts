import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { type APIRequestContext, expect, type Page, test as base } from '@playwright/test';
import { OwnServer } from './ownServer';

/** A server with a database for each worker, and a page on which any console error, refused policy or uncaught exception fails the
 *  test. */
export const test = base.extend<{ quiet: undefined }, { server: OwnServer }>({
  server: [
    async ({}, use) => {
      const server = new OwnServer();
      await server.start();
      await use(server);
      await server.stop();
      server.remove();
    },
    { scope: 'worker' },
  ],
  baseURL: ({ server }, use) => use(server.address),
  quiet: [
    async ({ page }, use) => {
      const noise: string[] = [];
      page.on('console', (message) => {
        // The tests themselves cause these answers; everything else is a fault.
        if (
          message.type() === 'error' &&
          !/status of (401|412|404)|ERR_INTERNET_DISCONNECTED|ERR_FAILED|ERR_CONNECTION_REFUSED|ERR_INCOMPLETE_CHUNKED/.test(message.text())
        )
          noise.push(message.text());
      });
      page.on('pageerror', (error) => noise.push(error.message));
      await use(undefined);
      expect(noise).toEqual([]);
    },
    { auto: true },
  ],
});

export { expect };

/** Starts a plan through the interface and waits for its Stock. */
export async function startPlan(page: Page, name: string, board = 'RP2040 stick, 40 pins'): Promise<string> {
  await page.goto('/');
  await page.getByRole('combobox', { name: 'Board' }).click();
  await page.getByRole('option', { name: board }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill(name);
  await page.getByRole('button', { name: 'Create plan' }).click();
  await expect(page.getByRole('heading', { name: 'Add parts' })).toBeVisible();
  return /plans\/([^/]+)/.exec(page.url())![1]!;
}

export const view = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'Views' }).getByRole('link', { name }).first().click();
/** Adds a part by a search and the name of its button. */
export async function addPart(page: Page, [query, title]: readonly [string, RegExp]): Promise<void> {
  await page.getByRole('textbox', { name: 'Search parts' }).fill(query);
  await page.getByRole('button', { name: title }).click();
}

export const findings = (page: Page) => page.getByRole('complementary', { name: 'Findings' });
/** Opens a finding in the rail, so that its text and its fixes are there. */
export async function openFinding(page: Page, title: string | RegExp): Promise<void> {
  const line = findings(page).locator('button[aria-expanded]').filter({ hasText: title }).first();
  await expect(line).toBeVisible();
  if ((await line.getAttribute('aria-expanded')) !== 'true') await line.click();
  await expect(line).toHaveAttribute('aria-expanded', 'true');
}
export const saved = (page: Page) => expect(page.getByTestId('save-state')).toHaveText('Saved');
export const row = (page: Page, key: string) => page.locator(`[data-row="${key}"]`);

/** Clicks the crossing of a row and a column of the chart. */
export async function clickCell(page: Page, key: string, column: string): Promise<void> {
  const head = (await page.getByRole('columnheader', { name: new RegExp(`^${column}, `) }).boundingBox())!;
  await row(page, key).scrollIntoViewIfNeeded();
  const box = (await row(page, key).boundingBox())!;
  await page.mouse.click(head.x + head.width / 2, box.y + box.height / 2);
}

/** The plan as the server holds it. */
export async function storedPlan(
  request: APIRequestContext,
  id: string,
): Promise<{
  plan: {
    board: { id: string };
    wires: Record<string, { end: unknown; locked: boolean }>;
    steps: Record<string, string>;
    wishes: Record<string, unknown>;
    softwareBuses: readonly string[];
    placements: { id: string; name: string; sheet: { id: string } }[];
  };
  revision: number;
}> {
  return (await request.get(`/api/plans/${id}`)).json();
}

/** A copy of an example: a test that changes a plan must not decide what the next one finds. */
export async function copyOfExample(request: APIRequestContext, example: string): Promise<string> {
  const file = JSON.parse(await readFile(join(process.cwd(), 'demo/plans', `${example}.json`), 'utf8')) as object;
  const answer = await request.post('/api/plans/file', { data: { ...file, id: `copy-${randomUUID()}`, name: 'Copy of an example' } });
  expect(answer.ok(), await answer.text()).toBe(true);
  return ((await answer.json()) as { plan: { id: string } }).plan.id;
}

/** Edits a plan as somebody else would: on the revision that the server holds now. */
export async function editPlan(request: APIRequestContext, id: string, edits: readonly object[]): Promise<void> {
  const etag = (await request.get(`/api/plans/${id}`)).headers()['etag']!;
  const data = { batches: [{ batch: randomUUID(), edits }] };
  const answer = await request.post(`/api/plans/${id}/edits`, { headers: { 'If-Match': etag }, data });
  expect(answer.ok(), await answer.text()).toBe(true);
}

/** A plan with these parts, p0, p1 and so on, not wired, made through the server. */
export async function planWith(
  request: APIRequestContext,
  board: string,
  parts: readonly string[],
  wires: readonly object[] = [],
): Promise<string> {
  const made = (await (await request.post('/api/plans', { data: { name: 'Made for a test', board } })).json()) as { plan: { id: string } };
  const edits = parts.map((id, at) => ({
    kind: 'add-placement',
    placement: { id: `p${at}`, sheet: { id, version: 1 }, name: `Part ${at}`, straps: {} },
  }));
  await editPlan(request, made.plan.id, [...edits, ...wires]);
  return made.plan.id;
}
