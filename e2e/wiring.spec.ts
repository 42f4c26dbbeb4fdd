import { copyOfExample, expect, test } from './workplace';

test('the wiring picture shows where a part, a pin and the wire of a step lead; its file has the same wires', async ({ page, request }) => {
  const id = await copyOfExample(request, 'hive-watch');
  await page.goto(`/plans/${id}/build`);
  await page.getByRole('button', { name: 'Wiring picture' }).press('Enter');
  await expect(page.getByRole('group', { name: 'Wiring picture', exact: true })).toBeFocused();
  const picture = page.getByRole('group', { name: /^Wiring of / });
  const caption = page.getByRole('main').getByRole('status');
  await expect(caption).toContainText('supplies are thick bars');

  // By the list, by keyboard on the picture, and off again.
  await page.getByRole('combobox', { name: 'Highlight a part or a net' }).click();
  await page.getByRole('option', { name: 'Encoder', exact: false }).click();
  await expect(caption).toContainText('GP11');
  // A part is moved by its buttons and by keyboard; each move is one step to undo.
  const moves = page.getByRole('group', { name: 'Move in the picture' });
  await moves.getByRole('button', { name: 'Turn' }).click();
  await expect(moves.getByRole('button', { name: 'Automatic place' })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(moves.getByRole('button', { name: 'Automatic place' })).toBeHidden();
  const encoder = picture.getByRole('button', { name: /^Encoder/ });
  const x = (await encoder.boundingBox())!.x;
  await encoder.press('ArrowRight');
  await expect.poll(async () => (await encoder.boundingBox())!.x).not.toBe(x);
  const pin = picture.getByRole('button', { name: 'Pin GP4' });
  await pin.focus();
  await page.keyboard.press('Enter');
  await expect(pin).toHaveAttribute('aria-pressed', 'true');
  await expect(caption).toContainText(/^GP4: .*OLED 128×64 SDA/);
  await page.keyboard.press('Escape');
  await expect(caption).toContainText('supplies are thick bars');

  // On one landscape sheet of paper.
  const paper = (await page.pdf({ preferCSSPageSize: true })).toString('latin1');
  expect(paper.match(/\/Type \/Page\b/g)).toHaveLength(1);
  expect(paper).toMatch(/MediaBox \[0 0 841\.\d+ 59\d\.\d+\]/);

  // From a step and back to the list.
  await page.goto(`/plans/${id}/build?mode=wiring&mark=${encodeURIComponent('wire motion-1:INT')}`);
  await expect(caption).toContainText(/Motion INT/);
  await page.getByRole('button', { name: 'Build sheet' }).click();
  await page.getByRole('button', { name: 'Export', exact: true }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: /^Wiring picture, SVG/ }).click();
  expect((await download).suggestedFilename()).toMatch(/\.wiring\.svg$/);
});
