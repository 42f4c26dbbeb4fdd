import type { FeatureKind } from '../sheets/shape';

/** A rectangle in millimetres, from its upper left corner. */
export interface Box {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
}

/** What is drawn besides pins. */
export type FaceItem =
  | ({ readonly is: 'body'; readonly body: 'board' | 'chip' } & Box)
  /** Pin 1 end of a chip. */
  | { readonly is: 'notch'; readonly x: number; readonly y: number; readonly turned: boolean }
  | ({ readonly is: 'feature'; readonly what: FeatureKind; readonly label?: string } & Box)
  /** What is printed on a chip. */
  | ({ readonly is: 'marking'; readonly label: string } & Box)
  /** The area of a display that shows something, in its cells. */
  | ({
      readonly is: 'cells';
      readonly unit: 'pixels' | 'characters' | 'digits';
      readonly columns: number;
      readonly rows: number;
      readonly round?: true;
    } & Box)
  | ({ readonly is: 'dots'; readonly columns: number; readonly rows: number } & Box)
  | ({ readonly is: 'keys'; readonly columns: number; readonly rows: number } & Box)
  | ({ readonly is: 'knob' } & Box)
  /** The lens of an LED, with its flat side at the cathode. */
  | ({ readonly is: 'lens' } & Box);

/** A pin, hole or leg, with the place of its label. */
export interface FacePad {
  readonly id: string;
  readonly label: string;
  readonly x: number;
  readonly y: number;
  readonly kind: 'signal' | 'ground' | 'supply' | 'control';
  readonly form: 'round' | 'leg';
  readonly text: {
    readonly x: number;
    readonly y: number;
    /** Degrees clockwise. */
    readonly turn: 0 | -90 | 90;
    readonly anchor: 'start' | 'middle' | 'end';
  };
}

/** The likeness of a board or part: a drawing in millimetres, made of the facts of its sheet. */
export interface Face {
  readonly title: string;
  /** What the drawing shows, for those who do not see it. */
  readonly description: string;
  /** Of the whole drawing, labels outside of the outline with it. */
  readonly view: Box;
  readonly items: readonly FaceItem[];
  readonly pads: readonly FacePad[];
  /** Whether its sheet states the outline; without it pins are to scale, and the rest is drawn around them. */
  readonly toScale: boolean;
}

/** Width of a character of a label, in millimetres. */
export const CHARACTER_MM = 0.87;

/** The longest label that is drawn whole, in characters. */
const LABEL_LENGTH = 8;

/** A label as it is drawn: long ones are cut, because their neighbours need their room. */
export const drawnLabel = (label: string): string => (label.length > LABEL_LENGTH ? `${label.slice(0, LABEL_LENGTH - 1)}…` : label);

/** The part of a drawing that the label of a pad takes, in millimetres. */
export function textBox({ label, text }: FacePad): Box {
  const length = drawnLabel(label).length * CHARACTER_MM;
  const along = text.anchor === 'start' ? 0 : text.anchor === 'end' ? -length : -length / 2;
  if (text.turn === 0) return { x: text.x + along, y: text.y - 1, w: length, h: 2 };
  const down = text.turn === 90 ? along : -along - length;
  return { x: text.x - 1, y: text.y + down, w: 2, h: length };
}

/** The view that encloses everything, with a margin. */
export function viewOf(items: readonly FaceItem[], pads: readonly FacePad[]): Box {
  const boxes: readonly Box[] = [
    ...items.flatMap((item) => ('w' in item ? [item] : [])),
    ...pads.map(({ x, y }) => ({ x: x - 1.2, y: y - 1.2, w: 2.4, h: 2.4 })),
    ...pads.map(textBox),
  ];
  const [left, top] = [Math.min(...boxes.map((box) => box.x)), Math.min(...boxes.map((box) => box.y))];
  const [right, bottom] = [Math.max(...boxes.map((box) => box.x + box.w)), Math.max(...boxes.map((box) => box.y + box.h))];
  return { x: left - 1, y: top - 1, w: right - left + 2, h: bottom - top + 2 };
}
