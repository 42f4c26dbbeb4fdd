import type { Shape, ShapeRow } from './shape';

/** Distance of the pins of headers and of the legs of chips, in millimetres. */
export const PITCH_MM = 2.54;

/** What a row of a shape is about: the names that its sheet has, and how many pins lie in it. */
export interface ShapeParts {
  readonly ids: readonly string[];
  readonly count: (row: ShapeRow) => number;
}

interface Fault {
  readonly path: string;
  readonly fault: string;
}

/** The last pin of a row. */
function endOf(row: ShapeRow, count: number): readonly [number, number] {
  const [x, y] = row.firstMm;
  const along = PITCH_MM * Math.max(0, count - 1) * (row.towards === 'down' || row.towards === 'right' ? 1 : -1);
  return row.towards === 'down' || row.towards === 'up' ? [x, y + along] : [x + along, y];
}

/** Rows of names that there are not, or that reach over the edge of their board. */
export function shapeFaults(shape: Shape | undefined, { ids, count }: ShapeParts): readonly Fault[] {
  const { widthMm, heightMm, rows = [], features = [] } = shape ?? {};
  const isInside = ([x, y]: readonly [number, number]) =>
    widthMm === undefined || heightMm === undefined || (x >= 0 && y >= 0 && x <= widthMm && y <= heightMm);
  const placed = widthMm !== undefined || (rows.length === 0 && features.length === 0);
  return [
    ...(placed ? [] : [{ path: 'shape', fault: 'rows and features need a width and a height' }]),
    ...rows.flatMap((row, at): readonly Fault[] => {
      const unknown = [...(row.header === undefined ? [] : [row.header]), ...(row.terminals ?? [])].filter((id) => !ids.includes(id));
      if (unknown.length > 0) return unknown.map((id) => ({ path: `shape.rows.${at}`, fault: `${id} is not there` }));
      return isInside(row.firstMm) && isInside(endOf(row, count(row)))
        ? []
        : [{ path: `shape.rows.${at}`, fault: 'the row reaches over the edge' }];
    }),
  ];
}
