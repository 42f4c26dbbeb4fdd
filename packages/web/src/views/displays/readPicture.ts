import { orThrow } from '@roof-chart/core/collections/orThrow';
import { MOST_PIXELS, type Pixels } from '@roof-chart/core/displays/picture';

/** Larger files are not opened. */
const MOST_BYTES = 30e6;

/** The pixels of a picture file, brought to a size: all of it seen, black at the sides where its shape is another.
 *  @throws RangeError saying what is wrong with it, and what would do */
export async function readPicture(file: File, width: number, height: number): Promise<Pixels> {
  if (file.size > MOST_BYTES)
    throw new RangeError(`${file.name} has ${Math.round(file.size / 1e6)} MB; the limit is ${MOST_BYTES / 1e6} MB.`);
  let bitmap: ImageBitmap;
  try {
    bitmap = await createImageBitmap(file);
  } catch {
    throw new RangeError(`${file.name} is not an image this browser can read. Supported: PNG, JPEG, WebP and GIF.`);
  }
  try {
    if (bitmap.width * bitmap.height > MOST_PIXELS)
      throw new RangeError(
        `${file.name} has ${bitmap.width} × ${bitmap.height} pixels; the limit is ${MOST_PIXELS / 1e6} million. Reduce it first; the display has ${width} × ${height}.`,
      );
    const canvas = new OffscreenCanvas(width, height);
    const context = orThrow(canvas.getContext('2d', { willReadFrequently: true }), 'drawing context');
    context.fillStyle = '#000';
    context.fillRect(0, 0, width, height);
    context.imageSmoothingQuality = 'high';
    const zoom = Math.min(width / bitmap.width, height / bitmap.height);
    const [w, h] = [Math.max(1, Math.round(bitmap.width * zoom)), Math.max(1, Math.round(bitmap.height * zoom))];
    context.drawImage(bitmap, Math.floor((width - w) / 2), Math.floor((height - h) / 2), w, h);
    return { width, height, rgba: context.getImageData(0, 0, width, height).data };
  } finally {
    bitmap.close();
  }
}
