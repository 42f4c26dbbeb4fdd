import { type Box, type Face, type FaceItem, type FacePad, viewOf } from './face';

/** A point a quarter turn to the left: what was above is then at the left. */
const turned = (x: number, y: number): readonly [number, number] => [y, -x];

function turnedBox({ x, y, w, h }: Box): Box {
  const [left, bottom] = turned(x, y);
  return { x: left, y: bottom - w, w: h, h: w };
}

function turnedItem(item: FaceItem): FaceItem {
  if (item.is === 'notch') {
    const [x, y] = turned(item.x, item.y);
    return { ...item, x, y, turned: true };
  }
  return { ...item, ...turnedBox(item) };
}

function turnedPad(pad: FacePad): FacePad {
  const [x, y] = turned(pad.x, pad.y);
  const [tx, ty] = turned(pad.text.x, pad.text.y);
  return { ...pad, x, y, text: { ...pad.text, x: tx, y: ty, turn: pad.text.turn === 0 ? -90 : 0 } };
}

/** A drawing a quarter turn to the left, as boards and chips lie that are longer than they are wide. */
export function turnFace(face: Face): Face {
  const [items, pads] = [face.items.map(turnedItem), face.pads.map(turnedPad)];
  return { ...face, items, pads, view: viewOf(items, pads) };
}
