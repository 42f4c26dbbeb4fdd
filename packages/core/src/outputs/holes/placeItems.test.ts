import fc from 'fast-check';
import { runs } from '../../../tests/runs';
import { spanOf } from './netSpans';
import { placeItems } from './placeItems';
import { haveRoom, isOnBreadboard, type Placeable, type PlacedVariant, type PlaceProblem, type Variant } from './placeProblem';

/** Lanes of one board, and of two side by side. */
const ONE_BOARD = [0, 7];
const TWO_BOARDS = [0, 7, 18, 25];
const laneNumber = { ae: 0, fj: 1 } as const;

/** One row of legs, each with its net or none, in either half. */
function module(id: string, nets: readonly number[], overhang = 0): Placeable {
  const length = nets.length;
  const variant = (side: 'ae' | 'fj'): Variant => ({
    side,
    rowOffset: 0,
    spans: [{ lane: laneNumber[side], strips: [0, length - 1], body: [-overhang, length - 1 + overhang] }],
    points: nets.flatMap((net, row) => (net < 0 ? [] : [{ net, row: side === 'ae' ? length - 1 - row : row, lane: laneNumber[side] }])),
    fixedLength: 0,
  });
  return { id, variants: [variant('fj'), variant('ae')] };
}

/** The same item on the second of two boards side by side. */
const onSecond = (variant: Variant): Variant => ({
  ...variant,
  rowOffset: 30,
  spans: variant.spans.map((span) => ({ ...span, lane: span.lane + 2 })),
  points: variant.points.map((point) => ({ ...point, lane: point.lane + 2 })),
});

/** Two boards instead of one: everything can lie on either, or over both where its legs are too far apart for one. */
const overTwo = ({ lane, ...rest }: Variant['spans'][number]) => ({ ...rest, lane: lane + 1 });
const sideBySide = (problem: PlaceProblem, isWide: boolean): PlaceProblem => ({
  ...problem,
  lanes: TWO_BOARDS,
  rows: 30,
  items: problem.items.map((item) =>
    isWide && item.id === 'board'
      ? {
          ...item,
          variants: item.variants.map((one) => ({
            ...one,
            spans: one.spans.map(overTwo),
            points: one.points.map((point) => ({ ...point, lane: point.lane + 1 })),
          })),
        }
      : { ...item, variants: [...item.variants, ...item.variants.map(onSecond)] },
  ),
});

/** A chip over the gap. */
function chip(id: string, upper: readonly number[], lower: readonly number[]): Placeable {
  const length = lower.length;
  const variant = (side: 'across' | 'turned'): Variant => {
    const at = (row: number) => (side === 'across' ? row : length - 1 - row);
    const lanes = side === 'across' ? [0, 1] : [1, 0];
    return {
      side,
      rowOffset: 0,
      spans: [0, 1].map((lane) => ({ lane, strips: [0, length - 1], body: [0, length - 1] })),
      points: [upper, lower].flatMap((nets, which) =>
        nets.flatMap((net, row) => (net < 0 ? [] : [{ net, row: at(row), lane: lanes[which]! }])),
      ),
      fixedLength: 0,
    };
  };
  return { id, variants: [variant('across'), variant('turned')] };
}

const permutations = (list: readonly number[]): number[][] =>
  list.length === 0 ? [[]] : list.flatMap((one) => permutations(list.filter((other) => other !== one)).map((rest) => [one, ...rest]));

/** Every way to choose one of so many, for each of a list. */
const choices = ([most, ...rest]: readonly number[]): number[][] =>
  most === undefined ? [[]] : choices(rest).flatMap((others) => Array.from({ length: most }, (_, one) => [one, ...others]));

/** Every order and every side, each item in the first row where it has room and does not begin before the one placed last: written without
 *  anything of the search. */
function bestPacked(problem: PlaceProblem): number {
  const free = problem.items.flatMap(({ at }, item) => (at ? [] : [item]));
  const given = problem.items.flatMap(({ at }, item): PlacedVariant[] => (at ? [{ item, ...at }] : []));
  let best = Infinity;
  for (const order of permutations(free))
    for (const sides of choices(order.map((item) => problem.items[item]!.variants.length))) {
      const placed = [...given];
      let start = 1;
      for (const [n, item] of order.entries()) {
        const variant = sides[n]!;
        const own = problem.items[item]!.variants[variant]!;
        const first = Math.min(...own.spans.map(({ strips }) => strips[0]));
        const rows = Array.from({ length: problem.rows }, (_, at) => at + start - first);
        const row = rows.find((one) => fits(problem, placed, item, variant, one));
        if (row === undefined) break;
        placed.push({ item, variant, row });
        start = row + first;
      }
      if (placed.length === problem.items.length) best = Math.min(best, spanOf(problem, placed));
    }
  return best;
}

function fits(problem: PlaceProblem, placed: readonly PlacedVariant[], item: number, variant: number, row: number): boolean {
  const own = problem.items[item]!.variants[variant]!;
  return (
    isOnBreadboard(problem, own, row) &&
    own.spans.every((span) =>
      placed.every((other) =>
        problem.items[other.item]!.variants[other.variant]!.spans.every((one) => haveRoom(span, row, one, other.row)),
      ),
    )
  );
}

/** A chip with strips beside it in one half alone, as resistors have them. */
function chipWithStrips(id: string, nets: readonly number[], left: number, right: number): Placeable {
  const { variants } = chip(id, nets, nets);
  return {
    id,
    variants: variants.map((variant) => {
      const lane = laneNumber[variant.side === 'across' ? 'fj' : 'ae'];
      const [before, after] = variant.side === 'across' ? [left, right] : [right, left];
      return {
        ...variant,
        spans: variant.spans.map((span) =>
          span.lane === lane ? { ...span, strips: [span.strips[0] - before, span.strips[1] + after] as const } : span,
        ),
        points: [
          ...variant.points,
          ...(before > 0 ? [{ net: 0, row: -before, lane }] : []),
          ...(after > 0 ? [{ net: 0, row: nets.length - 1 + after, lane }] : []),
        ],
      };
    }),
  };
}

const NETS = 6;
const net = fc.integer({ min: -2, max: NETS - 1 });
const nets = (most: number) => fc.array(net, { minLength: 2, maxLength: most });
const someItem = fc.oneof(
  {
    weight: 3,
    arbitrary: fc.tuple(nets(5), fc.integer({ min: 0, max: 3 })).map(([list, overhang]) => module('m', list, overhang)),
  },
  {
    weight: 1,
    arbitrary: fc
      .integer({ min: 2, max: 4 })
      .chain((n) => fc.tuple(fc.array(net, { minLength: n, maxLength: n }), fc.array(net, { minLength: n, maxLength: n })))
      .map(([a, b]) => chip('c', a, b)),
  },
  {
    weight: 1,
    arbitrary: fc
      .tuple(nets(3), fc.integer({ min: 0, max: 7 }), fc.integer({ min: 0, max: 7 }))
      .map(([list, left, right]) => chipWithStrips('s', list, left, right)),
  },
);
/** A part that the user has put somewhere, on either half, in the middle of everything. */
const someLocked = fc
  .record({ list: nets(4), variant: fc.constantFrom(0, 1), row: fc.integer({ min: 9, max: 26 }) })
  .map(({ list, variant, row }): Placeable => ({ ...module('locked', list), at: { variant, row } }));
const someProblem = fc
  .record({
    board: fc.tuple(fc.array(net, { minLength: 6, maxLength: 6 }), fc.array(net, { minLength: 6, maxLength: 6 })),
    hasBoard: fc.boolean(),
    locked: fc.array(someLocked, { maxLength: 1 }),
    items: fc.array(someItem, { minLength: 1, maxLength: 4 }),
  })
  .map(({ board, hasBoard, locked, items }): PlaceProblem => ({
    lanes: ONE_BOARD,
    rows: 60,
    rowsPerBoard: 30,
    nets: NETS,
    items: [...(hasBoard ? [{ ...chip('board', ...board), at: { variant: 0, row: 1 } }] : []), ...locked, ...items],
  }));

/** Twice as many ways to lie: of fewer items. */
const twoBoards = fc
  .tuple(someProblem, fc.boolean())
  .map(([problem, isWide]) => sideBySide({ ...problem, items: problem.items.slice(0, 4) }, isWide));
const eitherWay = fc.oneof({ weight: 3, arbitrary: someProblem }, { weight: 1, arbitrary: twoBoards });

test('no packed placement is better than the one that is found, and none is under its bound', () => {
  fc.assert(
    fc.property(eitherWay, (problem) => {
      const found = placeItems(problem)!;
      expect(found.proved).toBe(true);
      expect(found.bound).toBe(found.span);
      expect(found.span).toBe(spanOf(problem, found.placed));
      expect(found.span).toBe(Math.min(found.span, bestPacked(problem)));
      // Cut off at once, the bound still holds.
      const cut = placeItems(problem, 2);
      expect(cut?.bound ?? 0).toBeLessThanOrEqual(found.span);
      expect(cut?.span ?? Infinity).toBeGreaterThanOrEqual(found.span);
    }),
    { numRuns: runs(120) },
  );
});

test('everything has room: nothing else in its rows, two rows beside its legs, on one board', () => {
  fc.assert(
    fc.property(eitherWay, (problem) => {
      const { placed } = placeItems(problem, 200)!;
      expect(placed.map(({ item }) => item).toSorted((a, b) => a - b)).toEqual(problem.items.map((_, at) => at));
      placed.forEach((one, at) => {
        const others = placed.filter((_, n) => n !== at);
        expect(fits(problem, others, one.item, one.variant, one.row)).toBe(true);
      });
    }),
    { numRuns: runs(60) },
  );
});

test('what has a place keeps it; what has no room is not placed', () => {
  const fixed = { ...module('fixed', [0, 1, 2]), at: { variant: 0, row: 10 } };
  const problem: PlaceProblem = { lanes: ONE_BOARD, rows: 30, rowsPerBoard: 30, nets: 3, items: [fixed, module('near', [0, 1, 2])] };
  const { placed } = placeItems(problem)!;
  expect(placed.find(({ item }) => item === 0)).toEqual({ item: 0, variant: 0, row: 10 });
  const wide = Array.from({ length: 29 }, () => -1);
  const full: PlaceProblem = {
    lanes: ONE_BOARD,
    rows: 30,
    rowsPerBoard: 30,
    nets: 3,
    items: [module('a', wide), module('b', wide), module('c', [0, 1])],
  };
  expect(placeItems(full)).toBeUndefined();
});

test('two rows stay free between legs and one between bodies', () => {
  const span = (strips: readonly [number, number], body: readonly [number, number]) => ({ lane: 1, strips, body });
  const legs = span([0, 3], [0, 3]);
  expect(haveRoom(legs, 1, legs, 7)).toBe(true);
  expect(haveRoom(legs, 1, legs, 6)).toBe(false);
  const wide = span([0, 3], [-3, 6]);
  expect(haveRoom(wide, 4, wide, 15)).toBe(true);
  expect(haveRoom(wide, 4, wide, 14)).toBe(false);
  expect(haveRoom(wide, 4, { ...wide, lane: 0 }, 5)).toBe(true);
});
