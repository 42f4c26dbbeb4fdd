import { atOrThrow } from '../../collections/orThrow';
/** A strip with the holes that it has for wires. */
export interface Point {
  readonly free: number;
}

export interface Tree {
  /** Pairs of points, by their numbers. */
  readonly edges: readonly (readonly [number, number])[];
  /** In pitches. */
  readonly length: number;
}

/** So many trees are looked at until the best so far is taken. */
const MOST = 2000;

interface Edge {
  readonly a: number;
  readonly b: number;
  readonly length: number;
}

const keyOf = ({ a, b }: Edge): string => `${a} ${b}`;

/** The shortest tree with some edges and without others, whatever its degrees; undefined if there is none. */
function shortest(
  count: number,
  edges: readonly Edge[],
  taken: ReadonlySet<string>,
  left: ReadonlySet<string>,
): readonly Edge[] | undefined {
  const root = Array.from({ length: count }, (_, at) => at);
  const find = (at: number): number => (root[at] === at ? at : (root[at] = find(atOrThrow(root, at))));
  const tree: Edge[] = [];
  const add = (edge: Edge) => {
    const [a, b] = [find(edge.a), find(edge.b)];
    if (a === b) return;
    root[a] = b;
    tree.push(edge);
  };
  for (const edge of edges) if (taken.has(keyOf(edge))) add(edge);
  for (const edge of edges) if (!left.has(keyOf(edge))) add(edge);
  return tree.length === count - 1 ? tree : undefined;
}

const lengthOf = (tree: readonly Edge[]): number => tree.reduce((sum, { length }) => sum + length, 0);

/** The shortest tree of wires that joins strips, with no more wires at a strip than it has holes. Exact: a tree that takes too many holes of a
 *  strip is tried again without one of its wires there, and with it.
 *  @param distance how far a wire between two of them goes, in pitches
 *  @throws RangeError where the strips have too few holes for any tree */
export function joinStrips<P extends Point>(points: readonly P[], distance: (a: P, b: P) => number): Tree {
  if (points.length < 2) return { edges: [], length: 0 };
  const edges = points
    .flatMap((point, a) => points.slice(a + 1).map((other, n): Edge => ({ a, b: a + 1 + n, length: distance(point, other) })))
    .toSorted((one, other) => one.length - other.length);
  let best: readonly Edge[] | undefined;
  const open: { readonly taken: ReadonlySet<string>; readonly left: ReadonlySet<string> }[] = [{ taken: new Set(), left: new Set() }];
  for (let seen = 0; seen < MOST || !best; seen += 1) {
    const next = open.pop();
    if (!next) break;
    const { taken, left } = next;
    const tree = shortest(points.length, edges, taken, left);
    if (!tree || (best && lengthOf(tree) >= lengthOf(best))) continue;
    const at = (point: number) => tree.filter(({ a, b }) => a === point || b === point);
    const full = points.findIndex(({ free }, point) => at(point).length > free);
    if (full < 0) {
      best = tree;
      continue;
    }
    const loose = at(full).filter((edge) => !taken.has(keyOf(edge)));
    const longest = loose.at(-1);
    if (!longest) continue;
    open.push({ taken: new Set([...taken, keyOf(longest)]), left }, { taken, left: new Set([...left, keyOf(longest)]) });
  }
  if (!best) throw new RangeError('Too few holes to join these strips');
  return { edges: best.map(({ a, b }) => [a, b]), length: lengthOf(best) };
}
