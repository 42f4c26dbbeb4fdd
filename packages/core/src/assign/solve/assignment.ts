/* eslint-disable @typescript-eslint/no-non-null-assertion -- the innermost loop of the search: every index is below a length that was given */
/** Cheapest assignment of rows to columns, each column to one row at most, each row to a column or to nothing at its own price. */

export interface Assignment {
  readonly total: number;
  /** Column of each row, or -1 for nothing. */
  readonly columns: Int32Array;
}

/** What is computed so far, and the working memory of one path. Column j < columns is a real one; a row may also end at its own dummy
 *  column. */
class Matching {
  readonly #u: Float64Array;
  readonly #v: Float64Array;
  readonly #rowOf: Int32Array;
  readonly columnOf: Int32Array;
  readonly #least: Float64Array;
  /** The column before each column on the way to it, -1 for the row that the path begins at. */
  readonly #from: Int32Array;
  readonly #seen: Uint8Array;

  constructor(
    readonly rows: number,
    readonly columns: number,
    readonly costs: Float64Array,
    readonly leave: Float64Array,
  ) {
    this.#u = new Float64Array(rows);
    this.#v = new Float64Array(columns);
    this.#rowOf = new Int32Array(columns).fill(-1);
    this.columnOf = new Int32Array(rows).fill(-1);
    this.#least = new Float64Array(columns);
    this.#from = new Int32Array(columns);
    this.#seen = new Uint8Array(columns);
  }

  /** Gives one more row its column, or leaves one on the way to it without. */
  augment(start: number): void {
    this.#least.fill(Infinity);
    this.#seen.fill(0);
    const { end, leaver, distance } = this.#shortest(start);
    this.#reprice(start, distance);
    // Shift the rows along the path, back to the new one.
    let j = end;
    if (j < 0) {
      j = this.columnOf[leaver]!;
      this.columnOf[leaver] = -1;
    }
    while (j >= 0) {
      const before = this.#from[j]!;
      const mover = before < 0 ? start : this.#rowOf[before]!;
      this.#rowOf[j] = mover;
      this.columnOf[mover] = j;
      j = before;
    }
  }

  /** The shortest path from a row to a free column (`end`), or to a row that does best without a column (`leaver`, `end` -1). */
  #shortest(start: number): { readonly end: number; readonly leaver: number; readonly distance: number } {
    const { leave } = this;
    const [u, rowOf, seen, least] = [this.#u, this.#rowOf, this.#seen, this.#least];
    let [row, reached, distance] = [start, -1, 0];
    let [leaving, leaver] = [Infinity, -1];
    for (;;) {
      const out = distance + leave[row]! - u[row]!;
      if (out < leaving) {
        leaving = out;
        leaver = row;
      }
      const next = this.#nearest(row, reached, distance);
      if (next < 0 || leaving <= least[next]!) return { end: -1, leaver, distance: leaving };
      distance = least[next]!;
      seen[next] = 1;
      reached = next;
      const owner = rowOf[next]!;
      if (owner < 0) return { end: next, leaver, distance };
      row = owner;
    }
  }

  /** The nearest column that is not seen yet, after a look from a row; -1 where none is left. */
  #nearest(row: number, reached: number, distance: number): number {
    const { columns, costs } = this;
    const [v, rowOf, seen, least, from] = [this.#v, this.#rowOf, this.#seen, this.#least, this.#from];
    const [base, price] = [row * columns, this.#u[row]!];
    let next = -1;
    let nearest = Infinity;
    for (let j = 0; j < columns; j += 1) {
      if (seen[j]) continue;
      const reach = distance + costs[base + j]! - price - v[j]!;
      if (reach < least[j]!) {
        least[j] = reach;
        from[j] = reached;
      }
      // Among equals a free column: it ends the path.
      if (least[j]! < nearest || (least[j]! === nearest && next >= 0 && rowOf[next]! >= 0 && rowOf[j]! < 0)) {
        nearest = least[j]!;
        next = j;
      }
    }
    return next;
  }

  #reprice(start: number, distance: number): void {
    const [u, v, rowOf, least] = [this.#u, this.#v, this.#rowOf, this.#least];
    u[start] = u[start]! + distance;
    for (let j = 0; j < this.columns; j += 1) {
      if (!this.#seen[j] || least[j]! >= distance) continue;
      v[j] = v[j]! - (distance - least[j]!);
      u[rowOf[j]!] = u[rowOf[j]!]! + (distance - least[j]!);
    }
  }

  total(): number {
    const { rows, columns, costs, leave, columnOf } = this;
    let total = 0;
    for (let i = 0; i < rows; i += 1) total += columnOf[i]! < 0 ? leave[i]! : costs[i * columns + columnOf[i]!]!;
    return total;
  }
}

/** Shortest augmenting paths with potentials; rows in order, so that the same input gives the same answer.
 *  @param costs rows × columns, Infinity where not allowed; whole numbers
 *  @param leave what each row costs without a column, finite
 *  @returns an assignment of least total; O(rows² · columns) */
export function assign(rows: number, columns: number, costs: Float64Array, leave: Float64Array): Assignment {
  const matching = new Matching(rows, columns, costs, leave);
  for (let row = 0; row < rows; row += 1) matching.augment(row);
  return { total: matching.total(), columns: matching.columnOf };
}
