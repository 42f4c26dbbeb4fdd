import { placeInRow, type Shape, type ShapeRow } from './shape';

/** What a row of a shape is about: the names that its sheet has, and how many pins lie in it. */
export interface ShapeParts {
  readonly ids: readonly string[];
  readonly count: (row: ShapeRow) => number;
}

interface Fault {
  readonly path: string;
  readonly fault: string;
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
      return isInside(row.firstMm) && isInside(placeInRow(row, Math.max(0, count(row) - 1)))
        ? []
        : [{ path: `shape.rows.${at}`, fault: 'the row reaches over the edge' }];
    }),
  ];
}
