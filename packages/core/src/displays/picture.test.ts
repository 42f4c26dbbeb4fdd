import { newPlan } from '../plan/plan';
import fc from 'fast-check';
import { shippedSheets } from '../../tests/catalogue';
import { expectCheck, remedied } from '../../tests/checkHarness';
import { add, edited, shield } from '../../tests/makePlan';
import { flashLedger } from './flash';
import {
  bytesText,
  greyOf,
  litOf,
  MOST_PIXELS,
  ORDERS,
  orderText,
  packPicture,
  type PictureForm,
  pictureBytes,
  type Pixels,
  SHADINGS,
} from './picture';

const form: PictureForm = { bits: 1, order: 'pages', first: 'low', inverted: false, shading: 'threshold', threshold: 127 };
/** Grey pixels, one number each. */
const picture = (width: number, height: number, at: (x: number, y: number) => number): Pixels => ({
  width,
  height,
  rgba: Uint8ClampedArray.from(
    Array.from({ length: width * height }, (_, n) => {
      const value = at(n % width, Math.floor(n / width));
      return [value, value, value, 255];
    }).flat(),
  ),
});
const bitsOf = (bytes: Uint8Array): number => bytes.reduce((sum, byte) => sum + byte.toString(2).split('1').length - 1, 0);

describe('a picture as bytes', () => {
  test('one pixel is one bit, where each order says; every pixel has a bit of its own', () => {
    const places: { readonly [order: string]: (x: number, y: number) => readonly [number, number] } = {
      // 16 wide, 24 high.
      rows: (x, y) => [y * 2 + (x >> 3), x & 7],
      pages: (x, y) => [(y >> 3) * 16 + x, y & 7],
      columns: (x, y) => [x * 3 + (y >> 3), y & 7],
    };
    for (const order of ORDERS)
      for (const first of ['low', 'high'] as const) {
        const seen = new Set<string>();
        for (let y = 0; y < 24; y += 1)
          for (let x = 0; x < 16; x += 1) {
            const bytes = packPicture(
              picture(16, 24, (a, b) => (a === x && b === y ? 255 : 0)),
              { ...form, order, first },
            );
            const [byte, bit] = places[order]!(x, y);
            expect([bytes.length, bytes[byte], bitsOf(bytes)]).toEqual([48, first === 'low' ? 1 << bit : 0x80 >> bit, 1]);
            seen.add(`${byte} ${bytes[byte]}`);
          }
        expect(seen.size).toBe(16 * 24);
      }
  });

  test('sizes that are no whole bytes are filled up with nothing, inverted or not', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 21 }),
        fc.integer({ min: 1, max: 21 }),
        fc.constantFrom(...ORDERS),
        fc.boolean(),
        (width, height, order, inverted) => {
          const bytes = packPicture(
            picture(width, height, () => 255),
            { ...form, order, inverted },
          );
          expect(bytes.length).toBe(pictureBytes({ bits: 1, order }, width, height));
          expect(bitsOf(bytes)).toBe(inverted ? 0 : width * height);
        },
      ),
    );
  });

  test('128 × 64 are 1 KiB; colours have 5, 6 and 5 bits with the stated byte first; grey has two pixels in a byte', () => {
    expect(pictureBytes(form, 128, 64)).toBe(1024);
    const red: Pixels = { width: 1, height: 1, rgba: Uint8ClampedArray.of(255, 0, 8, 255) };
    expect([...packPicture(red, { ...form, bits: 16, first: 'high' })]).toEqual([0xf8, 0x01]);
    expect([...packPicture(red, { ...form, bits: 16, first: 'low', inverted: true })]).toEqual([0xfe, 0x07]);
    const grey = picture(3, 1, (x) => [255, 17, 34][x]!);
    expect([...packPicture(grey, { ...form, bits: 4, first: 'high' })]).toEqual([0xf1, 0x20]);
    expect([...packPicture(grey, { ...form, bits: 4, first: 'low' })]).toEqual([0x1f, 0x02]);
  });

  test('each shading keeps how light it is: black and white exactly, patterns and spreading grey in the mean', () => {
    for (const shading of SHADINGS) {
      expect(
        litOf(
          picture(8, 8, () => 0),
          shading,
          127,
        ).some(Boolean),
      ).toBe(false);
      expect(
        litOf(
          picture(8, 8, () => 255),
          shading,
          127,
        ).every(Boolean),
      ).toBe(true);
    }
    for (const level of [32, 96, 160, 224])
      for (const shading of ['pattern', 'spread'] as const) {
        const lit =
          litOf(
            picture(64, 64, () => level),
            shading,
            127,
          ).reduce((a, b) => a + b, 0) / 4096;
        expect(Math.abs(lit - level / 255)).toBeLessThan(0.04);
      }
    expect(greyOf({ width: 1, height: 1, rgba: Uint8ClampedArray.of(255, 255, 255, 0) })[0]).toBe(0);
  });

  test('twenty megapixels, and none, are refused with what is possible', () => {
    const huge: Pixels = { width: 5000, height: 4000, rgba: new Uint8ClampedArray(4) };
    expect(() => packPicture(huge, form)).toThrow(
      `picture of 5000 × 4000: expected at most ${MOST_PIXELS / 1e6} million pixels; reduce its size first`,
    );
    expect(() => packPicture({ ...huge, width: 0 }, form)).toThrow('expected pixels');
  });

  test('order and bytes in words', () => {
    expect(orderText(form)).toBe('eight vertical pixels per byte, lowest bit on top; page by page, each column by column');
    expect(orderText({ ...form, bits: 16, inverted: true })).toMatch(/low byte first; row by row, inverted$/);
    expect(bytesText(Uint8Array.from({ length: 17 }, (_, n) => n)).split('\n')).toEqual([expect.stringMatching(/^0x00, .*0x0F,$/), '0x10']);
  });
});

describe('flash', () => {
  test('of a board that is not known nothing is told', () => {
    expect(flashLedger(newPlan('p', 'P', { id: 'no-such-board', version: 1 }), sheets)).toBeUndefined();
  });
  const sheets = shippedSheets();
  const glass = edited(shield(), sheets, add('d', 'oled-096-ssd1306-i2c', 'Glass'), add('e', 'oled-096-ssd1306-i2c', 'Other'));
  const shows = (placement: string, ...bytes: number[]) => ({
    kind: 'readout' as const,
    placement,
    readout: { text: 'x', pictures: bytes.map((n, at) => ({ name: `p${at}`, width: 128, height: 64, bytes: n })) },
  });

  test('pictures count each, the font once; what the boot loader takes comes off', () => {
    const plan = edited(glass, sheets, shows('d', 1024, 1024), { kind: 'readout', placement: 'e', readout: { text: 'y' } });
    expect(flashLedger(plan, sheets)).toMatchObject({
      flashBytes: 32_768,
      runtimeBytes: 512,
      usedBytes: 2048 + 95 * 5,
      leftBytes: 32_768 - 512 - 2048 - 475,
    });
    expectCheck('flash-over', plan, sheets, []);
  });

  test('more than there is cannot be written; leaving the largest out helps where it is enough', () => {
    const over = edited(glass, sheets, shows('d', 30_000, 3000));
    expectCheck('flash-over', over, sheets, [
      { message: 'over', level: 'clash', title: 'Pictures use 32.7 KiB of 31.5 KiB flash', remedies: ['Remove the picture p0'] },
    ]);
    expect(flashLedger(remedied('flash-over', over, sheets), sheets)!.usedBytes).toBe(3475);
    expectCheck('flash-over', edited(glass, sheets, shows('d', 25_000)), sheets, [
      { message: 'little', level: 'risk', title: 'Pictures use 24.9 KiB of 31.5 KiB flash', remedies: ['Remove the picture p0'] },
    ]);
  });
});
