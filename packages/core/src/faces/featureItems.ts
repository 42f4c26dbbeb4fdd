import type { Shape } from '../sheets/shape';
import type { Box, FaceItem } from './face';

/** What stands out on the front, as a sheet states it. */
export const featureItems = ({ features = [] }: Shape): readonly FaceItem[] =>
  features.map(({ what, atMm: [x, y], sizeMm: [w, h], label }): FaceItem => {
    const box: Box = what === 'hole' ? { x: x - w / 2, y: y - h / 2, w, h } : { x, y, w, h };
    return { is: 'feature', what, ...box, ...(label === undefined ? {} : { label }) };
  });
