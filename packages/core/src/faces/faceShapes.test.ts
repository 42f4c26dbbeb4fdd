import { shippedSheets } from '../../tests/catalogue';
import { boardFace } from './boardFace';
import type { FaceItem } from './face';
import { faceShapes } from './faceShapes';
import { partFace } from './partFace';

const sheets = shippedSheets();
const faces = [
  ...[...sheets.boards.values()].map(({ sheet }) => boardFace(sheet)),
  ...[...sheets.parts.values()].map(({ sheet }) => partFace(sheet)),
];

test('every face of the catalogue is drawn with finite measures, its rectangles within its view', () => {
  for (const { title, items, view } of faces)
    for (const one of faceShapes(items, true)) {
      expect([title, JSON.stringify(one).includes('null'), 'd' in one && /NaN|Infinity|undefined/.test(one.d)]).toEqual([
        title,
        false,
        false,
      ]);
      if (one.shape !== 'rect') continue;
      expect([title, one.x >= view.x && one.x + one.w <= view.x + view.w, one.y >= view.y && one.y + one.h <= view.y + view.h]).toEqual([
        title,
        true,
        true,
      ]);
    }
});

const chip = (label: string, w: number, h: number): FaceItem => ({ is: 'feature', what: 'chip', label, x: 2, y: 3, w, h });
const textsOf = (item: FaceItem, hasText: boolean) => faceShapes([item], hasText).flatMap((one) => (one.shape === 'text' ? [one] : []));

test('a marking lies in the middle along the longer side, at most 2.4 mm high, and is left out where it would be too small', () => {
  expect(textsOf(chip('AB', 10, 6), true)).toEqual([{ shape: 'text', x: 7, y: 6, size: 2.4, isUpright: false, text: 'AB' }]);
  expect(textsOf(chip('AB', 4, 10), true)[0]).toMatchObject({ isUpright: true, x: 4, y: 8 });
  // Five characters of 0.62 of their height in 5 mm, with 0.3 mm at each end.
  expect(textsOf(chip('ABCDE', 5, 5), true)[0]!.size).toBeCloseTo((5 - 0.6) / (5 * 0.62), 9);
  expect(textsOf(chip('ABCDEFGHIJ', 4.9, 4), true)).toEqual([]);
  expect(textsOf(chip('ABCDEFGHIJ', 5, 4), true)).toHaveLength(1);
  // A drawing without small text has the markings of chips that are large enough.
  expect(textsOf(chip('ABCDEFGHIJ', 8, 4), false)).toEqual([]);
  expect(textsOf(chip('ABCDEFGHIJ', 8.1, 4), false)).toHaveLength(1);
  const socket: FaceItem = { is: 'feature', what: 'usb', label: 'USB', x: 0, y: 0, w: 9, h: 7 };
  expect([textsOf(socket, true).length, textsOf(socket, false).length]).toEqual([1, 0]);
});

test('digits, characters and dots are cells of one path, each in the middle of its share', () => {
  const cells: FaceItem = { is: 'cells', unit: 'digits', columns: 4, rows: 1, x: 0, y: 0, w: 40, h: 12 };
  const [glass, digits] = faceShapes([cells], false);
  expect(glass).toMatchObject({ shape: 'rect', look: 'glass', w: 40 });
  expect(digits).toMatchObject({ look: 'digit' });
  expect((digits as { d: string }).d.match(/M[\d.]+ 1\.5 /g)).toEqual(['M2.5 1.5 ', 'M12.5 1.5 ', 'M22.5 1.5 ', 'M32.5 1.5 ']);
  const dots = faceShapes([{ is: 'dots', columns: 8, rows: 2, x: 0, y: 0, w: 32, h: 8 }], false)[0] as { d: string };
  expect(dots.d.match(/M/g)).toHaveLength(16);
});
