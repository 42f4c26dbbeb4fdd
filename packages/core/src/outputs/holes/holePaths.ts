import type { Hole } from './breadboard';
import type { Grid } from './holeGrid';

/** Pixels between wires that run along one column or between two rows. */
const LANE = 3.2;
/** In turn on both sides of the middle. */
const laneAt = (lane: number): number => (lane % 2 === 1 ? 1 : -1) * Math.ceil(lane / 2) * LANE;

/** Runs beside each other: each takes the first lane that is free for its whole length. */
export class Lanes {
  readonly #taken = new Map<string, { readonly lane: number; readonly from: number; readonly to: number }[]>();

  take(line: string, a: number, b: number): number {
    const [from, to] = [Math.min(a, b), Math.max(a, b)];
    const list = this.#taken.get(line) ?? [];
    let lane = 0;
    while (list.some((one) => one.lane === lane && one.from < to && one.to > from)) lane += 1;
    this.#taken.set(line, [...list, { lane, from, to }]);
    return laneAt(lane);
  }
}

/** Corners of a line, in pixels. */
export type Path = readonly (readonly [number, number])[];

/** A wire from hole to hole: along its column, and at its end across; wires that would lie on one another lie side by side. */
export function pathOf(grid: Grid, lanes: Lanes, from: Hole, to: Hole): Path {
  const [[x1, y1], [x2, y2]] = [grid.at(from), grid.at(to)];
  if (to.at === 'rail' || x1 === x2)
    return [
      [x1, y1],
      [x1, y2],
      [x2, y2],
    ];
  const along = y1 + lanes.take(`along ${y1}`, x1, x2);
  if (y1 === y2)
    return along === y1
      ? [
          [x1, y1],
          [x2, y2],
        ]
      : [
          [x1, y1],
          [x1, along],
          [x2, along],
          [x2, y2],
        ];
  const middle = x2 - Math.sign(x2 - x1) * (grid.pitch / 2);
  const turn = middle + lanes.take(`across ${middle}`, along, y2);
  return [
    [x1, y1],
    [x1, along],
    [turn, along],
    [turn, y2],
    [x2, y2],
  ];
}
