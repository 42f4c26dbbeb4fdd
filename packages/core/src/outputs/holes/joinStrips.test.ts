import fc from 'fast-check';
import { runs } from '../../../tests/runs';
import { type Half, pitchesApart } from './breadboard';
import { joinStrips } from './joinStrips';

/** How far strips of one board are apart. */
const distance = (a: Parameters<typeof pitchesApart>[1], b: Parameters<typeof pitchesApart>[2]): number =>
  pitchesApart({ rows: 30, boards: 1, rails: 'whole' }, a, b);

/** Every tree of some points, by its code of Prüfer. */
function trees(count: number): readonly (readonly (readonly [number, number])[])[] {
  if (count === 2) return [[[0, 1]]];
  const codes = Array.from({ length: count ** (count - 2) }, (_, code) =>
    Array.from({ length: count - 2 }, (__, at) => Math.floor(code / count ** at) % count),
  );
  return codes.map((code) => {
    const degrees = Array.from({ length: count }, (_, point) => 1 + code.filter((one) => one === point).length);
    const edges: [number, number][] = [];
    for (const point of code) {
      const leaf = degrees.indexOf(1);
      edges.push([leaf, point]);
      degrees[leaf] = 0;
      degrees[point]! -= 1;
    }
    const [a, b] = degrees.flatMap((degree, point) => (degree === 1 ? [point] : []));
    return [...edges, [a!, b!]];
  });
}

const degreeAt = (edges: readonly (readonly [number, number])[], point: number): number =>
  edges.filter((edge) => edge.includes(point)).length;

const somePoints = fc
  .array(
    fc.record({
      row: fc.integer({ min: 1, max: 30 }),
      half: fc.constantFrom<Half>('ae', 'fj'),
      free: fc.integer({ min: 1, max: 4 }),
    }),
    { minLength: 2, maxLength: 6 },
  )
  .filter((points) => points.reduce((sum, { free }) => sum + free, 0) >= 2 * (points.length - 1));

test('the tree is the shortest of all that the holes allow', () => {
  fc.assert(
    fc.property(somePoints, (points) => {
      const allowed = trees(points.length).filter((edges) => points.every(({ free }, point) => degreeAt(edges, point) <= free));
      const lengths = allowed.map((edges) => edges.reduce((sum, [a, b]) => sum + distance(points[a]!, points[b]!), 0));
      const found = joinStrips(points, distance);
      expect(found.length).toBe(Math.min(...lengths));
      expect(found.edges).toHaveLength(points.length - 1);
      for (const [point, { free }] of points.entries()) expect(degreeAt(found.edges, point)).toBeLessThanOrEqual(free);
    }),
    { numRuns: runs(150) },
  );
});

test('one strip needs no wire; strips without enough holes are refused', () => {
  expect(joinStrips([{ row: 3, half: 'ae' as Half, free: 4 }], distance)).toEqual({ edges: [], length: 0 });
  const full = { row: 3, half: 'ae' as Half, free: 1 };
  expect(() => joinStrips([full, { ...full, row: 5 }, { ...full, row: 9 }], distance)).toThrow('Too few holes');
});
