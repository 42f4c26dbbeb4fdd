import { shippedSheets } from '../../../../core/tests/catalogue';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { readSheet } from '@roof-chart/core/sheets/readSheet';
import { addressText, moduleText, supplyText, variantGroups } from '@roof-chart/core/text/partText';
import { factRows } from '@roof-chart/core/text/views/factText';
import { placeOf, syntaxFault } from './jsonPlace';
import { readImport } from './readImport';

const sheets = shippedSheets();
const part = (id: string): PartSheet => sheets.parts.get(id)!.sheet;
const text = JSON.stringify(part('motion-mpu6050'), null, 2);
const lineOf = (path: string) => text.split('\n')[placeOf(text, path).line - 1]!.trim();

test('a path leads to its line: by key, by place in a list, by id, and past the unnamed list', () => {
  expect(lineOf('supply.volts.max')).toBe('"max": 5.5');
  expect(lineOf('terminals.list.2.label')).toBe('"label": "SCL",');
  expect(lineOf('terminals.AD0.label')).toBe('"label": "AD0",');
  const { start, end } = placeOf(text, 'chip');
  expect(text.slice(start, end)).toBe('"MPU-6050"');
});

test('a path that leads nowhere ends at the deepest place it knows', () => {
  expect(placeOf(text, 'supply.no.such').line).toBe(placeOf(text, 'supply').line);
  expect(placeOf('', 'a.b')).toEqual({ line: 1, start: 0, end: 0 });
});

test.each([
  ['{"a": 1,}', 1],
  ['{\n  "a": 1\n  "b": 2\n}', 3],
  ['{\n "a": [1, 2\n', 3],
  ['// note\n{}', 1],
])('%j is not valid JSON, line %d', (broken, line) => {
  expect(syntaxFault(broken)).toMatchObject({ place: { line }, fault: expect.stringMatching(/^not valid JSON: [a-z ]+$/) });
});

test('sound JSON has no fault, and every shipped sheet reads back from its text', () => {
  for (const { sheet } of [...sheets.boards.values(), ...sheets.parts.values()]) {
    const own = JSON.stringify(sheet);
    expect(syntaxFault(own)).toBeUndefined();
    expect(readSheet(JSON.parse(own))).toEqual({ ok: true, sheet });
  }
});

test('an import takes one sheet or a bundle, whole or not at all', () => {
  const one = part('led-red-5mm');
  const bundle = (list: unknown) => readImport(JSON.stringify({ sheets: list }), 'b.json');
  expect(readImport(JSON.stringify(one), 'a.json')).toEqual({ ok: true, sheets: [one] });
  expect(bundle([one, part('button-push')])).toMatchObject({ ok: true, sheets: [{ id: 'led-red-5mm' }, { id: 'button-push' }] });
  expect(bundle([one, { ...one, chip: 7 }])).toEqual({
    ok: false,
    words: 'b.json, sheet 2: chip: must be a string. Nothing was imported.',
  });
  expect(bundle([])).toMatchObject({ words: 'b.json has 0 sheets: 1 to 50 can be imported at once. Nothing was imported.' });
  expect(readImport('null', 'n.json')).toMatchObject({ ok: false, words: expect.stringContaining('expected "board" or "part"') });
  expect(readImport('x'.repeat(5_000_001), 'big.json')).toMatchObject({ words: 'big.json is larger than 5 MB. Nothing was imported.' });
});

test('facts are said with their units', () => {
  const rows = Object.fromEntries(
    factRows({ kind: 'board', parent: 'electrical' }, sheets.boards.get('rp2040-stick-40')!.sheet.electrical).map((r) => [r.name, r.value]),
  );
  expect(rows).toMatchObject({
    'Supply of the chip (VDD)': '1.62 V to 3.63 V, typically 3.3 V',
    'Input high threshold (VIH)': '2 V',
    'Output high level (VOH)': '2.62 V at 4 mA',
    'Internal pull-up': '50 kΩ to 80 kΩ',
    'Maximum current per pin': '12 mA',
  });
  const supply = Object.fromEntries(
    factRows({ kind: 'part', parent: 'supply' }, part('humidity-sht31').supply!).map((r) => [r.name, r.value]),
  );
  expect(supply).toMatchObject({ 'Typical current': '0.6 mA', 'Regulator on the module': 'no' });
  const levels = factRows({ kind: 'part', parent: 'levels' }, part('motion-mpu6050').levels!);
  expect(levels.find((row) => row.name === 'Input high threshold (VIH)')?.value).toBe('0.7 × supply');
});

test('no fact of any sheet is shown as an object or as nothing', () => {
  for (const { sheet } of [...sheets.boards.values(), ...sheets.parts.values()])
    for (const [parent, group] of Object.entries(sheet))
      if (typeof group === 'object' && group !== null && 'source' in group)
        for (const row of factRows({ kind: sheet.kind, parent }, group as object))
          expect({ sheet: sheet.id, ...row }).toEqual({
            sheet: sheet.id,
            name: expect.stringMatching(/\S/),
            value: expect.not.stringMatching(/\[object|undefined|NaN/),
          });
});

test('forms of one thing stand together in the order of the first', () => {
  const list = ['oled-096-ssd1306-spi', 'button-push', 'oled-096-ssd1306-i2c'].map(part);
  expect(variantGroups(list).map((g) => g.map((p) => p.id))).toEqual([['oled-096-ssd1306-spi', 'oled-096-ssd1306-i2c'], ['button-push']]);
});

test('a module is told by what matters to the plan', () => {
  expect(moduleText(part('oled-096-ssd1306-i2c'))).toMatch(/^4.7 kΩ pull-ups to the module’s regulator, regulator/);
  expect(moduleText(part('climate-bme280'))).toMatch(/level shifter/);
  expect(moduleText(part('switch-toggle'))).toBe('');
  expect(addressText(part('lcd-2004-pcf8574'))).toBe('0x20 to 0x27');
  expect(addressText(part('clock-ds3231-eeprom'))).toBe('0x68 and 0x50 to 0x57');
  expect(supplyText(part('led-red-5mm'))).toBe('no supply');
});
