import { violations } from './accessibilityScan';
import { OwnServer } from './ownServer';
import { addPart, expect, findings, openFinding, test } from './workplace';

test('an empty installation opens on the guided example: four steps from a board to a build, and left at any time', async ({ page }) => {
  const server = new OwnServer({}, false);
  try {
    await server.start();
    await page.goto(server.address);
    await expect(page.getByRole('heading', { name: 'From a board to a build in five minutes' })).toBeVisible();
    await page.getByRole('button', { name: 'Start the guided example' }).press('Enter');
    const guide = page.getByRole('region', { name: 'Guided example' });
    const current = guide.getByRole('listitem').and(page.locator('[aria-current=step]'));
    await expect(current).toContainText('Add a display');
    expect(await violations(page, 'all')).toEqual([]);

    await addPart(page, ['OLED', /^Add and connect: OLED 128×64, 0.96", I2C/]);
    await expect(current).toContainText('Add a 5 V sensor');
    await addPart(page, ['ultrasonic, needs 5 V', /^Add and connect: Distance, ultrasonic, 5 V/]);
    await expect(current).toContainText('Resolve the error');
    await openFinding(page, /^Board input ECHO: up to 5.25 V/);
    await findings(page)
      .getByRole('button', { name: /divider/i })
      .first()
      .click();
    await expect(current).toContainText('Build it');

    // It goes on after a reload, and on a phone within its width.
    await page.reload();
    await expect(current).toContainText('Build it');
    await guide.getByRole('link', { name: 'Open Build' }).click();
    await page.getByRole('checkbox', { name: /^Disconnect power/ }).check();
    await expect(guide).toContainText('From parts to build sheet.');
    await page.setViewportSize({ width: 390, height: 844 });
    await expect.poll(() => page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
    await guide.getByRole('button', { name: 'Leave the guided example' }).click();
    await expect(guide).toBeHidden();
    await expect(page.getByRole('heading', { name: 'Build sheet' })).toBeVisible();
  } finally {
    await server.stop();
    server.remove();
  }
});
