import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { shippedSheets } from '../../tests/catalogue';
import { refusals } from '../../tests/refusals';
import { readSheet } from './readSheet';

const { boards, parts } = shippedSheets();

/** What a document is refused for, each with its place. */
function faultsOf(document: unknown): readonly string[] {
  const read = readSheet(document);
  return read.ok ? [] : read.faults.map(({ path, fault }) => `${path}: ${fault}`);
}

test.each([
  ['board', boards],
  ['part', parts],
] as const)('what a %s sheet is refused for, at every place that a sheet can have, is as it was read', (kind, sheets) => {
  const file = join(__dirname, `../../tests/corpus/refusals-${kind}.txt`);
  // The smallest first: what they have is tried on them.
  const bySize = [...sheets].map(([id, { sheet }]) => [id, sheet, JSON.stringify(sheet).length] as const).toSorted((a, b) => a[2] - b[2]);
  const lines = refusals(new Map(bySize.map(([id, sheet]) => [id, sheet])), faultsOf);
  if (process.env['ROOF_CHART_WRITE']) writeFileSync(file, `${lines.join('\n').trim()}\n`);
  expect(lines.join('\n').trim().split('\n')).toEqual(readFileSync(file, 'utf8').trimEnd().split('\n'));
});
