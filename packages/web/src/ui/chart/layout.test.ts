import fc from 'fast-check';
import { fittingTitle, columnAt, layoutColumns, layoutRows, ringPath } from './layout';

const block = (id: string, n: number) => ({
  id,
  title: id,
  columns: Array.from({ length: n }, (_, at) => ({ id: `${id}${at}`, label: '', tone: 'open' as const, title: '' })),
});

test('every point of a column leads to it, every gap to nothing', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 0, max: 40 }), { minLength: 1, maxLength: 5 }),
      fc.integer({ min: 8, max: 24 }),
      fc.integer({ min: 1, max: 20 }),
      (sizes, width, gap) => {
        const layout = layoutColumns(
          sizes.map((n, at) => block(`b${at}-`, n)),
          width,
          gap,
        );
        for (const column of layout.columns) {
          for (const x of [column.left, column.centre, column.left + width - 0.01]) expect(columnAt(layout, x)!.id).toBe(column.id);
        }
        for (const b of layout.blocks) expect(columnAt(layout, b.left - 0.5)).toBeUndefined();
        expect(columnAt(layout, layout.width)).toBeUndefined();
        expect(layout.columns).toHaveLength(sizes.reduce((a, n) => a + n, 0));
      },
    ),
  );
});

test('rows stand under each other with a gap between groups', () => {
  const { centre, height } = layoutRows([['a', 'b'], ['c']], 20, 4);
  expect([centre.get('a'), centre.get('b'), centre.get('c'), height]).toEqual([10, 30, 54, 64]);
  expect(layoutRows([], 20, 4).height).toBe(0);
});

test('rings are one path', () => {
  expect(ringPath([7, 21], 10, 2)).toBe('M5 10a2 2 0 1 0 4 0a2 2 0 1 0 -4 0M19 10a2 2 0 1 0 4 0a2 2 0 1 0 -4 0');
});

test('a title never runs into the next block', () => {
  const title = 'left edge, from the USB end';
  expect([200, 98, 30].map((width) => fittingTitle(title, width))).toEqual([title, 'left edge', 'left…']);
});
