import { violations } from './accessibilityScan';
import { copyOfExample, expect, planWith, test } from './workplace';

test('parts are placed on a breadboard, moved by keyboard with the rest making room, undone, printed; steps name both holes', async ({
  page,
  request,
}) => {
  const id = await copyOfExample(request, 'hive-watch');
  await page.goto(`/plans/${id}/build`);
  await page.getByRole('button', { name: 'Hole plan' }).press('Enter');
  await page.getByRole('button', { name: 'Place the parts' }).press('Enter');
  const placement = page.getByRole('region', { name: 'Placement' });
  await expect(placement).toContainText(/Proved|at least \d+ are needed/);
  const holes = page.getByRole('group', { name: 'Hole plan', exact: true });
  await expect(holes).toBeFocused();
  await expect(page.getByRole('region', { name: 'Not on the breadboard' })).toContainText('Level shifter');

  // What its sheet does not state, a ruler tells: the module is then on the breadboard.
  await page.getByRole('combobox', { name: 'Row distance of Level shifter' }).selectOption({ label: '12.70 mm' });
  await expect(holes.getByRole('button', { name: /^Level shifter, across the gap/ })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('region', { name: 'Not on the breadboard' })).toContainText('Level shifter');

  // By keyboard to another row: it is locked there, everything else has room, and one undo takes all of it back.
  const encoder = holes.getByRole('button', { name: /^Encoder, / });
  const before = await encoder.getAttribute('aria-label');
  await encoder.press('Enter');
  const card = page.getByRole('region', { name: 'Encoder on the breadboard' });
  await expect(card).toContainText(/CLK in \d+ [aj]/);
  await card.getByLabel('First row').fill('40');
  await card.getByLabel('First row').press('Enter');
  await expect(encoder).toHaveAttribute('aria-label', /from row 40/);
  await expect(card.getByRole('img', { name: 'locked in its place' }).or(card.getByLabel('locked in its place'))).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(encoder).toHaveAttribute('aria-label', before!);
  await encoder.press('ArrowRight');
  await expect(encoder).not.toHaveAttribute('aria-label', before!);

  // By keyboard past a choice to the one after it: the search for the first gives way to that for the second.
  const boards = page.getByRole('radiogroup', { name: 'Breadboards, end to end or side by side' });
  await boards.getByRole('radio', { checked: true }).focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect(boards.getByRole('radio', { name: '2 side by side' })).toBeChecked();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(boards.getByRole('radio', { name: '1 ×' })).toBeChecked();

  // On one landscape sheet of paper.
  const paper = (await page.pdf({ preferCSSPageSize: true })).toString('latin1');
  expect(paper.match(/\/Type \/Page\b/g)).toHaveLength(1);
  expect(paper).toMatch(/MediaBox \[0 0 841\.\d+ 59\d\.\d+\]/);

  // The sheet says where everything goes, and a step leads to its two strips.
  await page.getByRole('button', { name: 'Build sheet' }).click();
  await expect(page.getByRole('region', { name: 'Breadboard', exact: true })).toContainText('GP0 in 1 h');
  await expect(page.getByRole('region', { name: 'Signals', exact: true })).toContainText(/Jumper \d+ [a-j] → \d+ [a-j]/);
  await page.goto(`/plans/${id}/build?mode=holes&mark=${encodeURIComponent('wire motion-1:INT')}`);
  await expect(page.getByRole('main').getByRole('status')).toContainText(/^GP20: \d+ [ab] → \d+ [a-j]/);
  await page.keyboard.press('Escape');

  // For all, in both themes, and on a phone.
  expect(await violations(page, 'all', 'main')).toEqual([]);
  await page.emulateMedia({ colorScheme: 'dark' });
  await expect(page.locator('html')).toHaveAttribute('data-mantine-color-scheme', 'dark');
  await page.waitForTimeout(300);
  expect(await violations(page, 'colours', 'main')).toEqual([]);
  await page.setViewportSize({ width: 390, height: 844 });
  await expect.poll(() => page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await expect(holes).toBeVisible();
});

test('a stick that is too wide for one breadboard goes over two side by side, by itself or at a press', async ({ page, request }) => {
  const id = await planWith(
    request,
    'esp32-stick-38',
    ['oled-096-ssd1306-i2c', 'button-push'],
    [
      { kind: 'wire', placement: 'p0', terminal: 'SDA', end: { to: 'pin', pin: 'IO21' } },
      { kind: 'wire', placement: 'p1', terminal: 'C1', end: { to: 'pin', pin: 'IO32' } },
    ],
  );
  await page.goto(`/plans/${id}/build?mode=holes`);
  const boards = page.getByRole('radiogroup', { name: 'Breadboards, end to end or side by side' });
  await expect(boards.getByRole('radio', { name: '2 side by side' })).toBeChecked();
  await page.getByRole('button', { name: 'Place the parts' }).click();
  const holes = page.getByRole('group', { name: 'Hole plan', exact: true });
  const stick = holes.getByRole('button', { name: /^ESP32 stick, 38 pins, / });
  await expect(stick).toHaveAttribute('aria-label', /across both breadboards from row B1 1/);

  // A module that reaches over the rails has its legs in an outer half; its card offers the two there are.
  await holes.getByRole('button', { name: /^Part 0, / }).click();
  const halves = page.getByRole('radiogroup', { name: 'Half of the breadboard' });
  await expect(halves.getByRole('radio')).toHaveCount(2);
  await halves.getByText('B1 a–e').click();
  await expect(holes.getByRole('button', { name: /^Part 0, / })).toHaveAttribute('aria-label', /a–e from row B1 \d+/);

  // On one board it does not fit, which is said with what helps.
  await boards.getByText('1 ×').click();
  const off = page.getByRole('region', { name: 'Not on the breadboard' });
  await expect(off).toContainText('too far apart for one breadboard');
  await off.getByRole('button', { name: 'Use two side by side' }).click();
  await expect(stick).toBeVisible();
  expect(await violations(page, 'all', 'main')).toEqual([]);
  await page.getByRole('button', { name: 'Build sheet' }).click();
  await expect(page.getByRole('region', { name: 'Breadboard', exact: true })).toContainText('lay them side by side');
});
