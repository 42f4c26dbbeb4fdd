import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { shippedSheets } from '../../tests/catalogue';
import { READINGS } from '../../tests/pairingReadings';
import { pairingPage, pairings } from '../../tests/pairings';

const PAGE = join(__dirname, '../../../../docs/pairings.md');

const sheets = shippedSheets();
const all = pairings(sheets);

test('every part alone on every board is told what the committed table says', () => {
  const page = pairingPage(all, READINGS, sheets.boards.size * sheets.parts.size);
  if (process.env['ROOF_CHART_WRITE']) writeFileSync(PAGE, page);
  expect(page.split('\n')).toEqual(readFileSync(PAGE, 'utf8').split('\n'));
});

test('every kind of error and warning was read', () => {
  expect(Object.keys(READINGS).toSorted()).toEqual([...new Set(all.map(({ kind }) => kind))].toSorted());
});

test('every error and warning has a fix, another form, another board, or says what to do', () => {
  const helpless = all.filter(
    ({ fixes, forms, boards, otherwise }) => fixes.length + forms.length + boards.length === 0 && otherwise === undefined,
  );
  expect(helpless.map(({ board, part, kind }) => `${part} on ${board}: ${kind}`)).toEqual([]);
});
