import { cpSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, renameSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort, root, startServer } from './faults/realServer.mjs';
import { addPart, expect, saved, test } from './workplace';

test.use({ serviceWorkers: 'allow' });

/** The built application in a folder of its own, where a newer build can take its place. */
function copyOfBuild(): string {
  const folder = mkdtempSync(join(tmpdir(), 'roof-chart-version-'));
  for (const part of ['packages/server/dist', 'packages/web/dist']) cpSync(join(root, part), join(folder, part), { recursive: true });
  mkdirSync(join(folder, 'packages'), { recursive: true });
  for (const part of ['packages/catalogue', 'demo', 'node_modules', 'package.json']) symlinkSync(join(root, part), join(folder, part));
  return folder;
}

const textFiles = (folder: string): readonly string[] =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .map((name) => join(folder, name))
    .filter((path) => /\.(?:js|html|css|webmanifest)$/.test(path));

/** Makes the build another one, as a change of the code would: its first script has another name, in every file that names it.
 *  @returns the names before and after */
function rebuild(folder: string): readonly [string, string] {
  const web = join(folder, 'packages/web/dist');
  const before = /assets\/(index-[\w-]+)\.js/.exec(readFileSync(join(web, 'index.html'), 'utf8'))![1]!;
  const after = `${before}2`;
  for (const path of textFiles(web)) {
    const text = readFileSync(path, 'utf8');
    if (text.includes(before)) writeFileSync(path, text.replaceAll(`${before}.js`, `${after}.js`));
  }
  renameSync(join(web, 'assets', `${before}.js`), join(web, 'assets', `${after}.js`));
  return [before, after];
}

test('a newer build is announced, takes over at a press with no edit lost, and the files of the old one go', async ({ page }) => {
  const folder = copyOfBuild();
  const port = await freePort();
  const start = async () => {
    const server = startServer({ port, data: join(folder, 'data'), program: join(folder, 'packages/server/dist/main.mjs') });
    await server.ready;
    return server;
  };
  let server = await start();
  try {
    await page.goto(`http://127.0.0.1:${port}/`);
    await page.getByRole('button', { name: 'Start the guided example' }).click();
    await expect(page.getByRole('textbox', { name: 'Search parts' })).toBeVisible();
    await saved(page);
    await page.evaluate(() => navigator.serviceWorker.ready);
    // From the second page on the worker serves it.
    await page.reload();
    await saved(page);

    server.child.kill('SIGTERM');
    await server.ended;
    const [before, after] = rebuild(folder);
    server = await start();
    await page.evaluate(async () => (await navigator.serviceWorker.getRegistration())?.update());
    await expect(page.getByText('A new version of Roof Chart is ready.')).toBeVisible();
    await addPart(page, ['led red', /^Add and connect: LED, red, 5 mm/]);
    await page.getByRole('button', { name: 'Reload', exact: true }).click();

    const script = page.locator('script[type=module]').first();
    await expect(script).toHaveAttribute('src', new RegExp(`${after}\\.js$`));
    await expect(page.getByRole('button', { name: 'LED: rename this part' })).toBeVisible();
    await saved(page);
    const kept = (name: string) =>
      page.evaluate(async (path) => (await caches.match(path, { ignoreSearch: true })) !== undefined, `/assets/${name}.js`);
    await expect.poll(() => kept(after)).toBe(true);
    await expect.poll(() => kept(before)).toBe(false);
  } finally {
    server.child.kill('SIGTERM');
    await server.ended;
    rmSync(folder, { recursive: true, force: true });
  }
});
