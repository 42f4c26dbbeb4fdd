import type { Box, FaceItem } from '../../faces/face';
import { LED_LEGS_MM } from '../../faces/faceShapes';
import { partFace } from '../../faces/partFace';
import type { PartSheet } from '../../sheets/partSheet';
import { MODULE_WIDTH, type WiringPicture } from './wiringPicture';

/** Room of the terminals with their labels, in pixels. */
const TERMINALS = 72;
const INSET = 7;
/** Pixels of a millimetre at most. */
const LARGEST = 3;

/** Where the front of a part is drawn within its module: its items in millimetres, the part of these that is shown, and its place in pixels. */
export interface ModuleFace {
  readonly items: readonly FaceItem[];
  readonly view: Box;
  readonly place: Box;
}

/** The front of a part beside its terminals, without its outline and pads, which the module has itself. Undefined where there is no room or
 *  nothing to show. */
export function moduleFace(part: PartSheet, { x, y, height, side }: WiringPicture['modules'][number]): ModuleFace | undefined {
  const face = partFace(part);
  const items = face.items.filter((item) => item.is !== 'body' && item.is !== 'notch' && !(item.is === 'feature' && item.what === 'hole'));
  const boxes = items.flatMap((item) => ('w' in item ? [item.is === 'lens' ? { ...item, h: LED_LEGS_MM } : item] : []));
  if (boxes.length === 0) return undefined;
  const [left, top] = [Math.min(...boxes.map((box) => box.x)), Math.min(...boxes.map((box) => box.y))];
  const [right, bottom] = [Math.max(...boxes.map((box) => box.x + box.w)), Math.max(...boxes.map((box) => box.y + box.h))];
  const view = { x: left - 0.3, y: top - 0.3, w: right - left + 0.6, h: bottom - top + 0.6 };
  const room = { w: MODULE_WIDTH - TERMINALS - 2 * INSET, h: height - 2 * INSET };
  const scale = Math.min(LARGEST, room.w / view.w, room.h / view.h);
  const [w, h] = [view.w * scale, view.h * scale];
  if (w < 6 || h < 6) return undefined;
  const start = side === 'left' ? x + INSET : x + TERMINALS + INSET;
  return { items, view, place: { x: start + (room.w - w) / 2, y: y + (height - h) / 2, w, h } };
}
