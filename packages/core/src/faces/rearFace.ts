import { memoizeByObject } from '../memo/memoizeByObject';
import { type Face, type FaceItem, type FacePad, viewOf } from './face';

const mirrored = <T extends { readonly x: number; readonly w: number }>(box: T): T => ({ ...box, x: -box.x - box.w });

/** What goes through a board, or is its outline, is there at the rear, too; chips, connectors and displays are on the front. */
function rearItems(items: readonly FaceItem[]): readonly FaceItem[] {
  return items.flatMap((item): readonly FaceItem[] => {
    if (item.is === 'notch') return [{ ...item, x: -item.x }];
    return item.is === 'body' || (item.is === 'feature' && item.what === 'hole') ? [mirrored(item)] : [];
  });
}

const OPPOSITE = { start: 'end', end: 'start', middle: 'middle' } as const;

/** A label keeps its writing direction: beside its pad it lies on the other side, along it where it was. */
function rearPad(pad: FacePad): FacePad {
  const { text } = pad;
  return { ...pad, x: -pad.x, text: { ...text, x: -text.x, anchor: text.turn === 0 ? OPPOSITE[text.anchor] : text.anchor } };
}

/** A board or part turned over about its upright axis: left and right change places. */
export const rearFace = memoizeByObject((face: Face): Face => {
  const [items, pads] = [rearItems(face.items), face.pads.map(rearPad)];
  return {
    ...face,
    title: `${face.title}, rear`,
    description: `Turned over: left and right change places. ${face.description}`,
    items,
    pads,
    view: viewOf(items, pads),
  };
});
