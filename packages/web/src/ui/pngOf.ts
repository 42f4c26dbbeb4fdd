import { orThrow } from '@roof-chart/core/collections/orThrow';
/** Pixels per SVG unit, sharp enough for printing. */
const SHARP = 2;

/** A picture in SVG as a PNG file.
 *  @throws Error when the browser cannot draw it */
export async function pngOf(svg: string): Promise<Blob> {
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = image.naturalWidth * SHARP;
  canvas.height = image.naturalHeight * SHARP;
  orThrow(canvas.getContext('2d'), 'drawing context').drawImage(image, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve, reject) => {
    canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('This browser cannot create the image'))), 'image/png');
  });
}
