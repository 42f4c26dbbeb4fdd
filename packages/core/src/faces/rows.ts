import type { ShapeRow } from '../sheets/shape';
import type { FaceItem, FacePad } from './face';

/** From the edge of a board to the middle of its pins, where nothing states it, in millimetres. */
export const INSET_MM = 1.6;
/** From a pin to its label, in millimetres. */
export const TO_LABEL_MM = 1.7;
/** Length of a chip's legs outside of its body, in millimetres. */
export const LEG_MM = 1.8;

export interface Size {
  readonly w: number;
  readonly h: number;
}

/** Whether a row lies along the left or right edge. */
export const isUpright = (towards: ShapeRow['towards']): boolean => towards === 'down' || towards === 'up';

/** Where the label of a pad lies: to the right of an upright row or below a level one (1), or on the other side (-1). */
export function labelPlace(x: number, y: number, towards: ShapeRow['towards'], side: 1 | -1): FacePad['text'] {
  const anchor = side > 0 ? 'start' : 'end';
  return isUpright(towards) ? { x: x + side * TO_LABEL_MM, y, turn: 0, anchor } : { x, y: y + side * TO_LABEL_MM, turn: 90, anchor };
}

/** Width of a chip's body in millimetres: with more than 20 legs it is of the wide kind, 15.24 mm from leg to leg. */
export const chipWidth = (legs: number): number => (legs > 20 ? 13.7 : 6.4);

/** A chip that stands with pin 1 at the upper left; its marking is written along it. */
export const chipItems = (marking: string, { w, h }: Size): readonly FaceItem[] => [
  { is: 'body', body: 'chip', x: 0, y: 0, w, h },
  { is: 'notch', x: w / 2, y: 0, turned: false },
  { is: 'marking', label: marking, x: w / 2 - 2, y: h * 0.2, w: 4, h: h * 0.6 },
];

/** A size in words, or that there is none. */
export const sizeText = (size: Size | undefined): string => (size ? `${size.w} × ${size.h} mm` : 'Size not stated');
