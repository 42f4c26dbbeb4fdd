import { atOrThrow } from '../collections/orThrow';
/** Pixels as a canvas gives them: red, green, blue and opacity, row by row from the top. */
export interface Pixels {
  readonly width: number;
  readonly height: number;
  readonly rgba: Uint8ClampedArray;
}

/** More pixels than this are not read: at four bytes each they would fill a browser's memory. */
export const MOST_PIXELS = 16e6;

/** How grey becomes black or white: by a threshold, by a fixed pattern, or so that what one pixel lacks its neighbours get. */
export const SHADINGS = ['threshold', 'pattern', 'spread'] as const;
export type Shading = (typeof SHADINGS)[number];

/** In what order pixels become bytes: `rows`: eight beside each other, row by row; `pages`: eight under each other, column by column, then
 *  the next eight rows; `columns`: eight under each other column by column, each from top to bottom. */
export const ORDERS = ['rows', 'pages', 'columns'] as const;
export type Order = (typeof ORDERS)[number];

/** How a picture becomes bytes. */
export interface PictureForm {
  /** Bits of a pixel: 1 black or white, 4 grey, 16 colour of 5, 6 and 5 bits. */
  readonly bits: 1 | 4 | 16;
  readonly order: Order;
  /** The first pixel of a byte is its highest bit, or its lowest; of 16 bits, which byte comes first. */
  readonly first: 'high' | 'low';
  readonly inverted: boolean;
  readonly shading: Shading;
  /** From 0 to 255: what is lighter is lit. */
  readonly threshold: number;
}

/** Lightness of each pixel from 0 to 255 by the weights of ITU-R BT.709; what is transparent is black. */
export function greyOf({ rgba }: Pixels): Float64Array {
  return Float64Array.from({ length: rgba.length / 4 }, (_, n) => {
    const [r = 0, g = 0, b = 0, a = 0] = rgba.subarray(4 * n, 4 * n + 4);
    return ((0.2126 * r + 0.7152 * g + 0.0722 * b) * a) / 255;
  });
}

/** Ordered dither of 4 × 4: each threshold once. */
const PATTERN = [0, 8, 2, 10, 12, 4, 14, 6, 3, 11, 1, 9, 15, 7, 13, 5];
/** What a pixel lacks goes on by Floyd and Steinberg: right, and below left, below, below right, in sixteenths. */
const SPREAD = [
  [1, 0, 7],
  [-1, 1, 3],
  [0, 1, 5],
  [1, 1, 1],
] as const;

/** Which pixels are lit, one number each: 1 or 0. */
export function litOf(pixels: Pixels, shading: Shading, threshold: number): Uint8Array {
  const { width, height } = pixels;
  const grey = greyOf(pixels);
  const lit = new Uint8Array(width * height);
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) {
      const at = y * width + x;
      const value = atOrThrow(grey, at);
      const limit = shading === 'pattern' ? threshold + (atOrThrow(PATTERN, (y % 4) * 4 + (x % 4)) - 7.5) * 16 : threshold;
      lit[at] = value > limit ? 1 : 0;
      if (shading !== 'spread') continue;
      const lack = value - (lit[at] ? 255 : 0);
      for (const [dx, dy, share] of SPREAD)
        if (x + dx >= 0 && x + dx < width && y + dy < height) {
          const to = at + dy * width + dx;
          grey[to] = atOrThrow(grey, to) + (lack * share) / 16;
        }
    }
  return lit;
}

/** Where a pixel's bit lies: byte and bit from the lowest. */
function bitPlace({ order, first }: PictureForm, width: number, height: number, x: number, y: number): { byte: number; bit: number } {
  const along = order === 'rows' ? x : y;
  const bit = first === 'high' ? 7 - (along % 8) : along % 8;
  const part = Math.floor(along / 8);
  if (order === 'rows') return { byte: y * Math.ceil(width / 8) + part, bit };
  return { byte: order === 'pages' ? part * width + x : x * Math.ceil(height / 8) + part, bit };
}

/** Size of a picture in bytes; rows and columns are padded to whole bytes. */
export function pictureBytes({ bits, order }: Pick<PictureForm, 'bits' | 'order'>, width: number, height: number): number {
  if (bits === 16) return 2 * width * height;
  if (bits === 4) return Math.ceil(width / 2) * height;
  return order === 'rows' ? Math.ceil(width / 8) * height : width * Math.ceil(height / 8);
}

/** What a pixel is in a form: of 1 bit 0 or 1, of 4 bits 0 to 15, of 16 bits the colour. Row by row. */
export function valuesOfPixels(pixels: Pixels, form: PictureForm): Uint16Array {
  const { rgba } = pixels;
  const flip = form.inverted ? 2 ** form.bits - 1 : 0;
  if (form.bits === 1) return Uint16Array.from(litOf(pixels, form.shading, form.threshold), (value) => value ^ flip);
  if (form.bits === 4) return Uint16Array.from(greyOf(pixels), (value) => Math.round((value * 15) / 255) ^ flip);
  return Uint16Array.from({ length: rgba.length / 4 }, (_, n) => {
    const [r = 0, g = 0, b = 0] = rgba.subarray(4 * n, 4 * n + 3);
    return (((r >> 3) << 11) | ((g >> 2) << 5) | (b >> 3)) ^ flip;
  });
}

/** A picture as the bytes that a program brings along.
 *  @throws RangeError when the picture has more pixels than are read, or none */
export function packPicture(pixels: Pixels, form: PictureForm): Uint8Array {
  const { width, height } = pixels;
  if (!(width > 0 && height > 0)) throw new RangeError(`picture of ${width} × ${height}: expected pixels`);
  if (width * height > MOST_PIXELS)
    throw new RangeError(`picture of ${width} × ${height}: expected at most ${MOST_PIXELS / 1e6} million pixels; reduce its size first`);
  const values = valuesOfPixels(pixels, form);
  const bytes = new Uint8Array(pictureBytes(form, width, height));
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) {
      const at = y * width + x;
      const value = atOrThrow(values, at);
      if (form.bits === 16) {
        bytes[2 * at] = form.first === 'high' ? value >> 8 : value & 0xff;
        bytes[2 * at + 1] = form.first === 'high' ? value & 0xff : value >> 8;
      } else if (form.bits === 4) {
        const byte = y * Math.ceil(width / 2) + (x >> 1);
        bytes[byte] = atOrThrow(bytes, byte) | ((x % 2 === 0) === (form.first === 'high') ? value << 4 : value);
      } else if (value) {
        const { byte, bit } = bitPlace(form, width, height, x, y);
        bytes[byte] = atOrThrow(bytes, byte) | (1 << bit);
      }
    }
  return bytes;
}

/** The byte order in words, for the header of an export.
 *  @example orderWords({ bits: 1, order: 'pages', first: 'low', ... }) // 'eight vertical pixels per byte, lowest bit on top, ...' */
export function orderText({ bits, order, first, inverted }: PictureForm): string {
  const turned = inverted ? ', inverted' : '';
  if (bits === 16) return `5 bits red, 6 green, 5 blue; ${first === 'high' ? 'high' : 'low'} byte first; row by row${turned}`;
  if (bits === 4) return `two pixels per byte, left pixel in the ${first === 'high' ? 'high' : 'low'} nibble; row by row${turned}`;
  const bit = first === 'high' ? 'highest' : 'lowest';
  if (order === 'rows') return `eight horizontal pixels per byte, ${bit} bit on the left; row by row${turned}`;
  const next = order === 'pages' ? 'page by page, each column by column' : 'column by column, each from top to bottom';
  return `eight vertical pixels per byte, ${bit} bit on top; ${next}${turned}`;
}

/** Bytes as text, sixteen in a row.
 *  @example bytesText(Uint8Array.of(1, 255)) // '0x01, 0xFF' */
export function bytesText(bytes: Uint8Array): string {
  const hex = Array.from(bytes, (byte) => `0x${byte.toString(16).toUpperCase().padStart(2, '0')}`);
  return Array.from({ length: Math.ceil(hex.length / 16) }, (_, row) => hex.slice(16 * row, 16 * row + 16).join(', ')).join(',\n');
}
