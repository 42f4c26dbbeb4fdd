import { copyOfExample, expect, findings, saved, test, view } from './workplace';

const TABLE = `Pin,Name,GPIO,Functions,Side
1,3V3,,,left
2,GND,,,left
3,SD0,PA0,"I2C0 SDA, ADC0",left
4,SC0,PA1,"I2C0 SCL, ADC1",left
1,5V,,,right
2,D2,PA2,PWM,right
3,D2,PA3,INT0,right`;

test('an own board from a pasted table: faults named by line, then planned on', async ({ page }) => {
  await page.goto('/sheets');
  await page.getByRole('link', { name: 'New board from pin table' }).click();
  await page.getByRole('textbox', { name: 'Title' }).fill('XC8 stick, 7 pins');
  await page.getByRole('textbox', { name: 'Chip' }).fill('ATmega328P-PU');
  // At 3.3 V the board of the same voltage has the levels; another chip is there at 5 V only.
  await expect(page.getByText(/^Copied from ATmega328P 3\.3 V mini board/)).not.toContainText('different supply');
  await page.getByRole('textbox', { name: 'Chip' }).fill('ATmega2560');
  await expect(page.getByText(/^Copied from ATmega2560 5 V/)).toContainText('its levels are for a different supply');
  await page.getByRole('textbox', { name: 'Chip' }).fill('XC8');
  await expect(page.getByText('No sheet has this chip')).toBeVisible();
  await page.getByRole('textbox', { name: 'Pin table' }).fill(TABLE);
  await expect(page.getByRole('list', { name: 'Faults in the table' })).toHaveText('line 8: pin D2 is already on line 7');
  await expect(page.getByRole('button', { name: 'Create the board' })).toBeDisabled();
  await page.getByRole('textbox', { name: 'Pin table' }).fill(TABLE.replace('3,D2', '3,D3'));
  await expect(page.getByRole('table', { name: 'Recognised pins' }).getByRole('row')).toHaveCount(8);
  await page.getByRole('button', { name: 'Create the board' }).click();
  await expect(page.getByRole('heading', { name: 'XC8 stick, 7 pins' })).toBeVisible();
  await expect(page.getByText('typical CMOS values assumed')).toBeVisible();

  await page.getByRole('link', { name: '← Plans' }).click();
  await page.getByRole('combobox', { name: 'Board' }).click();
  await page.getByRole('option', { name: 'XC8 stick, 7 pins' }).click();
  await page.getByRole('button', { name: 'Create plan' }).click();
  await page.getByRole('textbox', { name: 'Search parts' }).fill('oled 0.96 i2c');
  await page.getByRole('button', { name: /^Add and connect: OLED 128×64, 0.96", I2C/ }).click();
  await expect(findings(page)).toContainText('No issues found');
  await saved(page);
  await view(page, 'Chart');
  await expect(page.getByRole('row', { name: /^OLED 128×64 SDA, on SD0/ })).toBeVisible();
});

test('a part is copied, spoilt, mended and kept in versions; a plan keeps its own', async ({ page }) => {
  await page.goto('/sheets/motion-mpu6050');
  await page.getByRole('link', { name: 'Copy to my sheets' }).click();
  const text = page.getByRole('textbox', { name: 'The sheet as JSON' });
  const asText = () => page.getByText('Text (JSON)', { exact: true }).click();
  await expect(page.getByText('Valid')).toBeVisible();
  await asText();
  const sound = await text.inputValue();
  await text.fill(sound.replace('"max": 5.5', '"max": -5.5'));
  await expect(page.getByText('1 fault')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Save to my sheets' })).toBeDisabled();
  await page.getByRole('button', { name: /^line \d+ supply.volts.max/ }).click();
  expect(await text.evaluate((e: HTMLTextAreaElement) => e.value.slice(e.selectionStart, e.selectionEnd))).toBe('-5.5');

  // What was typed is there again after a reload.
  await page.reload();
  await expect(page.getByText('Unsaved changes from your last visit')).toBeVisible();
  await asText();
  await text.fill(sound);
  await page.getByRole('button', { name: 'Save to my sheets' }).click();
  await expect(page.getByText('my-motion-mpu6050, version 1, your own')).toBeVisible();

  await page.getByRole('link', { name: 'Edit' }).click();
  await asText();
  await text.fill((await text.inputValue()).replace('"summary": "', '"summary": "Better than before. '));
  await expect(page.getByText('Summary', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Save as a new version' }).click();
  await expect(page.getByText('version 2, your own')).toBeVisible();
  await expect(page.getByRole('table', { name: 'Changed facts' })).toContainText('Better than before.');
  await page.getByRole('button', { name: 'Remove' }).click();
  await expect(page.getByText('Its last version was downloaded')).toBeVisible();
});

test('a part from a blank sheet by its fields alone: a fault leads to its field, and is gone when it is filled', async ({ page }) => {
  await page.goto('/sheets');
  await page.getByRole('link', { name: 'New part' }).click();
  await expect(page.getByRole('textbox', { name: 'Chip' })).toBeVisible();
  const fill = async (fault: string, said: string, words: string) => {
    const button = page.getByRole('button', { name: new RegExp(`^${said} is not`) });
    await button.click();
    // The field has the focus once the fault is gone to.
    await expect(page.locator(`#fact-${fault.replaceAll('.', '-')}`)).toBeFocused();
    await page.keyboard.insertText(words);
    await expect(button).toBeHidden();
  };
  for (const [fault, said, words] of [
    ['chip', 'Chip', 'RD1'],
    ['title', 'Title', 'Reed switch on a board'],
    ['short', 'Short name', 'Reed'],
    ['summary', 'Summary', 'Closes near a magnet.'],
    ['terminals.list.2.label', 'Terminals › 2 › Label', 'DO'],
    ['firstLight.see', 'First power-up › Expected behaviour', 'The level changes at a magnet.'],
    ...(
      [
        ['terminals', 'Terminals'],
        ['bus', 'Bus'],
        ['supply', 'Supply'],
        ['module', 'Components on the module'],
        ['firstLight', 'First power-up'],
      ] as const
    ).map(([group, said]) => [`${group}.source.document`, `${said} › Source › Document`, 'Own measurement'] as const),
  ] as const)
    await fill(fault, said, words);
  await expect(page.getByText('Valid')).toBeVisible();
  const volts = page.getByRole('group', { name: 'Supply voltage' }).first();
  await page.locator('summary', { hasText: /^Supply/ }).click();
  await volts.getByRole('textbox', { name: 'Minimum, V' }).fill('three');
  await expect(volts.getByText('must be a number')).toBeVisible();
  await volts.getByRole('textbox', { name: 'Minimum, V' }).fill('2.7');
  await page.locator('summary', { hasText: 'Terminals' }).click();
  await page.getByRole('button', { name: 'Add an entry' }).click();
  await expect(page.getByText(/faults?:/)).toBeVisible();
  await page
    .getByRole('button', { name: /^Remove \d+$/ })
    .last()
    .click();
  await page.getByRole('button', { name: 'Save to my sheets' }).click();
  await expect(page.getByText('my-part, version 1, your own')).toBeVisible();
  await expect(page.getByText('2.7 V to 3.6 V')).toBeVisible();
});

test('a bench note goes before the sheet wherever the fact is used, is undone, and a wrong one is refused with its place', async ({
  page,
  request,
}) => {
  const id = await copyOfExample(request, 'hive-watch');
  await page.goto(`/plans/${id}/stock`);
  await page.getByRole('link', { name: 'Facts of OLED 128×64' }).click();
  const load = page.getByRole('contentinfo', { name: 'Budgets' });
  await expect(load).toContainText('62/300 mA');
  await page.getByRole('button', { name: 'Bench note on Supply › Typical current' }).click();
  await page.getByRole('textbox', { name: 'Measured value' }).fill('99');
  await page.getByRole('textbox', { name: 'Method' }).fill('Ammeter in the supply wire');
  await page.getByRole('button', { name: 'Save note' }).click();
  await expect(page.getByText(/Not done: note.value must be a value for which the sheet is valid \(supply.peakMilliamps/)).toBeVisible();
  await page.getByRole('textbox', { name: 'Measured value' }).fill('22');
  await page.getByRole('button', { name: 'Save note' }).click();
  await expect(load).toContainText('72/300 mA');
  await saved(page);
  await page.reload();
  await expect(page.getByRole('row', { name: /Typical current 22\smA 12\smA Found/ })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(load).toContainText('62/300 mA');
  for (const group of ['Terminals', 'Supply', 'Components on the module']) {
    await page.getByRole('button', { name: `Confirm all of “${group}”` }).click();
    await page.getByRole('textbox', { name: 'Method' }).fill('Looked at it');
    await page.getByRole('button', { name: 'Save note' }).click();
  }
  await expect(findings(page)).toContainText('unverified data: 9');
});

test('a file that is no sheet says why and where; nothing is imported', async ({ page }) => {
  await page.goto('/sheets');
  const take = (name: string, body: string) =>
    page.locator('input[type=file]').setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(body) });
  await take('torn.json', '{\n "kind": "part",\n');
  await expect(page.getByText(/^torn.json, line \d: not valid JSON: .* Nothing was imported\.$/)).toBeVisible();
  await take('odd.json', '{"sheets":[{"kind":"shelf"}]}');
  await expect(page.getByText('odd.json: kind: expected "board" or "part". Nothing was imported.')).toBeVisible();
  await page.getByRole('button', { name: 'My sheets', exact: true }).click();
  await expect(page.getByText(/No sheets of your own yet|XC8/).first()).toBeVisible();
});

test('identify names a part from its labels and adds it', async ({ page }) => {
  await page.goto('/plans/hive-watch/stock');
  await page.getByRole('button', { name: 'Identify by labels' }).click();
  await page.getByRole('textbox', { name: 'Printed labels' }).fill('BUSY RST DC CS CLK DIN GND VCC');
  await page.getByRole('textbox', { name: 'Size' }).fill('1.54');
  const first = page.getByRole('region', { name: 'Add parts' }).getByRole('listitem').first();
  await expect(first).toContainText('E-paper 200×200');
  await expect(first).toContainText('8 labels match; order matches from the other end');
  await expect(first).toContainText('Easily mistaken for: The same size in three colours');
  await expect(first.getByRole('button', { name: /^Add and connect: / })).toBeEnabled();
});

test('a plan file is downloaded with its sheets and opens again under an id of its own', async ({ page }) => {
  await page.goto('/plans/ferry-dial/chart');
  await expect(page.getByRole('row', { name: /^Dial display SCL, on L-SCK, locked/ })).toBeVisible();
  await page.keyboard.press('Control+k');
  await page.keyboard.type('Download the plan file');
  const arriving = page.waitForEvent('download');
  await page.keyboard.press('Enter');
  const path = await (await arriving).path();
  await page.goto('/');
  await page.getByLabel('Plan file to open').setInputFiles({ name: 'torn.json', mimeType: 'application/json', buffer: Buffer.from('{') });
  await expect(page.getByText(/^torn.json: not valid JSON/)).toBeVisible();
  await page.getByLabel('Plan file to open').setInputFiles(path);
  await expect(page).toHaveURL(/\/plans\/[0-9a-f-]{36}\/chart$/);
  await expect(page.getByRole('row', { name: /^Dial touch SDA, on T-SDA, locked/ })).toBeVisible();
});

test('a part from nothing: the faults lead from one empty fact to the next until it is sound', async ({ page }) => {
  await page.goto('/sheets');
  await page.getByRole('link', { name: 'New part' }).click();
  const text = page.getByRole('textbox', { name: 'The sheet as JSON' });
  await page.getByText('Text (JSON)', { exact: true }).click();
  await expect(page.getByRole('button', { name: /^line \d+ title/ })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Save to my sheets' })).toBeDisabled();
  // Every empty fact is filled, as a person would who goes from fault to fault.
  await text.fill((await text.inputValue()).replaceAll('""', '"Rain sensor"').replace('"my-part"', '"my-rain-sensor"'));
  await expect(page.getByText('Valid')).toBeVisible();
  await page.getByRole('button', { name: 'Save to my sheets' }).click();
  await expect(page.getByText('my-rain-sensor, version 1, your own')).toBeVisible();
  await page.getByRole('button', { name: 'Remove' }).click();
  await expect(page.getByText('Its last version was downloaded')).toBeVisible();
});
