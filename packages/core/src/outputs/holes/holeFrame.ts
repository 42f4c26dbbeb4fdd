import { firstOrThrow, lastOrThrow } from '../../collections/orThrow';
import type { Breadboard, Plan } from '../../plan/plan';
import type { Sheets } from '../../sheets/sheetIndex';
import { conductorName } from '../../text/views/wiringText';
import { shortened } from '../svgText';
import { COLUMNS, type Half, HALVES, hasRailHole, hasRails, railPiece, rowOnBoard } from './breadboard';
import { FIRST, type Grid, HOLE, LEFT } from './holeGrid';
import type { HolePlan } from './holePlan';
import type { HoleShape } from './holeShapes';

/** The rails beside a half of one board, if they are there. */
function railLines(grid: Grid, breadboard: Breadboard, half: Half, first: number): readonly HoleShape[] {
  if (!hasRails(breadboard, half, rowOnBoard(breadboard, first)[0])) return [];
  return (['+', '−'] as const).flatMap((sign): readonly HoleShape[] => {
    const colour = sign === '+' ? 'red' : 'black';
    const y = grid.rail(half, sign, first);
    return [
      { is: 'text', role: 'letter', colour, x: LEFT - 26, y: y + 4, text: sign, anchor: 'end', turn: 0 },
      ...piecesOf(grid, breadboard, half, first).map(([from, to]): HoleShape => ({
        is: 'line',
        role: 'rail',
        colour,
        points: [
          [from, y],
          [to, y],
        ],
      })),
    ];
  });
}

/** What is there without any part: row numbers as roofs, letters of the columns, rails. */
export function frame(grid: Grid, { breadboard }: HolePlan): readonly HoleShape[] {
  const { rows, boards } = breadboard;
  return Array.from({ length: boards }, (_, board) => board * rows + 1).flatMap((first) =>
    HALVES.flatMap((half): readonly HoleShape[] => {
      const [x1, x2] = [grid.x(first) - 8, grid.x(first + rows - 1) + 8];
      const y = grid.roof(half, first);
      const numbered = Array.from({ length: rows }, (_, at) => first + at).filter(
        (row) => row === first || rowOnBoard(breadboard, row)[1] % 5 === 0,
      );
      return [
        {
          is: 'line',
          role: 'roof',
          points: [
            [x1, y],
            [x2, y],
          ],
        },
        ...numbered.map((row): HoleShape => ({
          is: 'text',
          role: 'number',
          x: grid.x(row),
          y: y - 8,
          text: String(rowOnBoard(breadboard, row)[1]),
          anchor: 'middle',
          turn: 0,
        })),
        ...COLUMNS[half].map((text, column): HoleShape => ({
          is: 'text',
          role: 'letter',
          x: LEFT - 26,
          y: y + FIRST + column * HOLE + 4,
          text,
          anchor: 'end',
          turn: 0,
        })),
        ...railLines(grid, breadboard, half, first),
      ];
    }),
  );
}

/** What the rails carry, at their ends. */
export function railNames(plan: Plan, sheets: Sheets, grid: Grid, { breadboard, rails }: HolePlan): readonly HoleShape[] {
  const { rows, boards } = breadboard;
  return rails.flatMap(({ half, sign, conductor }) =>
    Array.from({ length: boards }, (_, board) => board)
      .filter((board) => hasRails(breadboard, half, board))
      .map((board) => (board + 1) * rows)
      .map((last): HoleShape => ({
        is: 'text',
        role: 'value',
        x: grid.x(last) - (rows === 63 ? 24 : 8),
        y: grid.rail(half, sign, last) + 3,
        text: shortened(conductorName(plan, sheets, conductor), 7),
        anchor: 'start',
        turn: 0,
      })),
  );
}

/** The pieces of a rail of one board, from its first hole to its last. */
function piecesOf(grid: Grid, breadboard: Breadboard, half: Half, first: number): readonly (readonly [number, number])[] {
  const rows = Array.from({ length: breadboard.rows }, (_, at) => first + at).filter((row) => hasRailHole(breadboard, half, row));
  const pieces = [...new Set(rows.map((row) => railPiece(breadboard, row)))];
  return pieces.map((piece) => {
    const own = rows.filter((row) => railPiece(breadboard, row) === piece);
    return [grid.x(firstOrThrow(own)) - 4, grid.x(lastOrThrow(own)) + 4];
  });
}
