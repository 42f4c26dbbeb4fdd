/* eslint-disable @typescript-eslint/no-non-null-assertion -- the innermost loop of the search: every index is below a length that was given */
/** Cheapest assignment of rows to columns, each column to one row at most, each row to a column or to nothing at its own price. */

export interface Assignment {
  readonly total: number;
  /** Column of each row, or -1 for nothing. */
  readonly columns: Int32Array;
}

/** Shortest augmenting paths with potentials; rows in order, so that the same input gives the same answer.
 *  @param costs rows × columns, Infinity where not allowed; whole numbers
 *  @param leave what each row costs without a column, finite
 *  @returns an assignment of least total; O(rows² · columns) */
export function assign(rows: number, columns: number, costs: Float64Array, leave: Float64Array): Assignment {
  // Column j < columns is a real one; row i may also end at its own dummy column.
  const u = new Float64Array(rows);
  const v = new Float64Array(columns);
  const rowOf = new Int32Array(columns).fill(-1);
  const columnOf = new Int32Array(rows).fill(-1);
  const least = new Float64Array(columns);
  const from = new Int32Array(columns);
  const seen = new Uint8Array(columns);
  for (let start = 0; start < rows; start += 1) {
    least.fill(Infinity);
    seen.fill(0);
    let row = start;
    let reached = -1;
    let distance = 0;
    // The cheapest way to end found so far by leaving a row on the way without a column.
    let leaving = Infinity;
    let leaver = -1;
    let end = -1;
    for (;;) {
      const out = distance + leave[row]! - u[row]!;
      if (out < leaving) {
        leaving = out;
        leaver = row;
      }
      const base = row * columns;
      let next = -1;
      let nearest = Infinity;
      for (let j = 0; j < columns; j += 1) {
        if (seen[j]) continue;
        const reach = distance + costs[base + j]! - u[row]! - v[j]!;
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
      if (next < 0 || leaving <= nearest) {
        distance = leaving;
        break;
      }
      distance = nearest;
      seen[next] = 1;
      reached = next;
      const owner = rowOf[next]!;
      if (owner < 0) {
        end = next;
        break;
      }
      row = owner;
    }
    u[start] = u[start]! + distance;
    for (let j = 0; j < columns; j += 1) {
      if (!seen[j] || least[j]! >= distance) continue;
      v[j] = v[j]! - (distance - least[j]!);
      u[rowOf[j]!] = u[rowOf[j]!]! + (distance - least[j]!);
    }
    // Shift the rows along the path, back to the new one.
    let j = end;
    if (j < 0) {
      j = columnOf[leaver]!;
      columnOf[leaver] = -1;
    }
    while (j >= 0) {
      const before = from[j]!;
      const mover = before < 0 ? start : rowOf[before]!;
      rowOf[j] = mover;
      columnOf[mover] = j;
      j = before;
    }
  }
  let total = 0;
  for (let i = 0; i < rows; i += 1) total += columnOf[i]! < 0 ? leave[i]! : costs[i * columns + columnOf[i]!]!;
  return { total, columns: columnOf };
}
