import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { shippedSheets } from '../../tests/catalogue';
import { READINGS } from '../../tests/pairingReadings';
import { pairingPage, pairings } from '../../tests/pairings';
import { isSoak } from '../../tests/runs';

const PAGE = join(__dirname, '../../../../docs/pairings.md');
const isWriting = process.env['ROOF_CHART_WRITE'] !== undefined;

const sheets = shippedSheets();
const everyBoard = [...sheets.boards.keys()];
/** All pairs under `npm run soak`; else those of every fourth board, of each family. */
const boards = isSoak || isWriting ? everyBoard : everyBoard.filter((_, at) => at % 4 === 1);
const all = pairings(sheets, boards);

/** The table as committed. @returns its kinds, its lines `kind part board`, and the lines where nothing helps */
function committed() {
  const kinds: string[] = [];
  const lines: string[] = [];
  const helpless: string[] = [];
  for (const line of readFileSync(PAGE, 'utf8').split('\n')) {
    const heading = /^## ((?:error|warning) \S+): \d+$/.exec(line);
    if (heading) kinds.push(heading[1]!);
    const row = /^\| ([\w-]+) \| (.+) \| (.*) \|$/.exec(line);
    if (!row || !sheets.parts.has(row[1]!)) continue;
    if (row[3]!.trim() === '') helpless.push(line);
    lines.push(...row[2]!.split(', ').flatMap((board) => (boards.includes(board) ? [`${kinds.at(-1)} ${row[1]} ${board}`] : [])));
  }
  return { kinds, lines, helpless };
}

test('every part alone on a board is told what the committed table says', () => {
  if (isWriting) writeFileSync(PAGE, pairingPage(all, READINGS, sheets.boards.size * sheets.parts.size));
  const told = all.map(({ kind, part, board }) => `${kind} ${part} ${board}`);
  expect(told.length).toBeGreaterThan(100);
  expect(told.toSorted()).toEqual(committed().lines.toSorted());
});

if (boards.length === everyBoard.length)
  test('what helps, of all boards together, is what the committed table says', () => {
    const page = pairingPage(all, READINGS, sheets.boards.size * sheets.parts.size);
    expect(page.split('\n')).toEqual(readFileSync(PAGE, 'utf8').split('\n'));
  });

test('every kind of error and warning was read', () => {
  const { kinds } = committed();
  expect(kinds.toSorted()).toEqual(Object.keys(READINGS).toSorted());
  expect(all.filter(({ kind }) => !kinds.includes(kind))).toEqual([]);
});

test('every error and warning has a fix, another form, another board, or says what to do', () => {
  expect(committed().helpless).toEqual([]);
});
