import type { Box, FaceItem } from './face';

/** How a shape of a face looks; the screen and the saved pictures have their own colours for each. */
export type FaceLook = 'board' | 'chip' | 'feature' | 'hole' | 'trace' | 'notch' | 'digit' | 'glass' | 'cell' | 'dot' | 'lens';

/** A shape of a face, in millimetres. */
export type FaceShape =
  | ({ readonly shape: 'rect'; readonly round: number; readonly look: FaceLook } & Box)
  | { readonly shape: 'circle'; readonly x: number; readonly y: number; readonly r: number; readonly look: FaceLook }
  | { readonly shape: 'path'; readonly d: string; readonly look: FaceLook }
  /** What is printed, with its middle at a place. */
  | {
      readonly shape: 'text';
      readonly x: number;
      readonly y: number;
      readonly size: number;
      readonly isUpright: boolean;
      readonly text: string;
    };

/** One path for every cell of a grid: a drawing of many dots is one element. */
function gridPath({ x, y, w, h }: Box, columns: number, rows: number, cell: (cx: number, cy: number) => string): string {
  return Array.from({ length: rows * columns }, (_, at) =>
    cell(x + ((at % columns) + 0.5) * (w / columns), y + (Math.floor(at / columns) + 0.5) * (h / rows)),
  ).join('');
}

const dot = (r: number) => (cx: number, cy: number) => `M${cx - r} ${cy}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0`;
const rectangle = (w: number, h: number) => (cx: number, cy: number) => `M${cx - w / 2} ${cy - h / 2}h${w}v${h}h${-w}z`;

/** A seven-segment eight, 5 mm wide and 9 mm high. */
const digitPath = (cx: number, cy: number): string => `M${cx - 2.5} ${cy - 4.5} h5 v9 h-5 z M${cx - 2.5} ${cy} h5`;

/** The side of a key, which leaves a gap to the next one. */
const keySize = ({ w, columns }: { readonly w: number; readonly columns: number }): number => (w / columns) * 0.86;

const box = ({ x, y, w, h }: Box, round: number, look: FaceLook): FaceShape => ({ shape: 'rect', x, y, w, h, round, look });
const path = (d: string, look: FaceLook): FaceShape => ({ shape: 'path', d, look });

/** Characters of a marking by their size. */
const CHARACTER = 0.62;
/** A marking is never larger, in millimetres. */
const LARGEST = 2.4;

/** A marking along the longer side of its box, small enough to fit; none where it would be smaller than `least`. */
function marking({ x, y, w, h }: Box, text: string, least = 0.7): readonly FaceShape[] {
  const isUpright = h > w * 1.4;
  const size = Math.min(LARGEST, ((isUpright ? h : w) - 0.6) / (text.length * CHARACTER));
  return size < least ? [] : [{ shape: 'text', x: x + w / 2, y: y + h / 2, size, isUpright, text }];
}

function antennaPath({ x, y, w, h }: Box): string {
  const along = w >= h;
  return Array.from({ length: 7 }, (_, at) => {
    const share = (at + 0.5) / 7;
    const [a, b] = at % 2 === 0 ? [0.15, 0.85] : [0.85, 0.15];
    const point = (across: number) => (along ? `${x + share * w} ${y + across * h}` : `${x + across * w} ${y + share * h}`);
    return `${at === 0 ? 'M' : 'L'}${point(a)} L${point(b)}`;
  }).join(' ');
}

function featureShapes(item: Extract<FaceItem, { readonly is: 'feature' }>, hasText: boolean): readonly FaceShape[] {
  const { what, x, y, w, h, label } = item;
  const middle = { x: x + w / 2, y: y + h / 2 };
  if (what === 'hole') return [{ shape: 'circle', ...middle, r: w / 2, look: 'hole' }];
  if (what === 'antenna') return [path(antennaPath(item), 'trace')];
  if (what === 'cylinder') {
    const r = Math.min(w, h) / 2;
    return [
      { shape: 'circle', ...middle, r, look: 'feature' },
      { shape: 'circle', ...middle, r: r * 0.72, look: 'feature' },
      ...(label !== undefined && hasText ? marking({ x: x + w / 4, y: y + h / 4, w: w / 2, h: h / 2 }, label) : []),
    ];
  }
  const isChip = what === 'chip' || what === 'radio module';
  return [
    box(item, what === 'button' ? w / 2 : 0.4, isChip ? 'chip' : 'feature'),
    ...(label !== undefined && (hasText || isChip) ? marking(item, label, hasText ? 0.7 : 1.2) : []),
  ];
}

/** How far the longer leg of an LED reaches, from the top of its lens, in millimetres. */
export const LED_LEGS_MM = 16;

type ShapesOf<K extends FaceItem['is']> = (item: Extract<FaceItem, { readonly is: K }>, hasText: boolean) => readonly FaceShape[];

const SHAPES: { readonly [K in FaceItem['is']]: ShapesOf<K> } = {
  body: (item) => [box(item, item.body === 'chip' ? 0.5 : 1.2, item.body === 'chip' ? 'chip' : 'board')],
  marking: (item) => marking(item, item.label),
  notch: ({ x, y, turned }) => [path(turned ? `M${x} ${y - 1.2} a1.2 1.2 0 0 1 0 2.4` : `M${x - 1.2} ${y} a1.2 1.2 0 0 0 2.4 0`, 'notch')],
  feature: featureShapes,
  cells: (item) => [
    box(item, item.round ? item.w / 2 : 0.4, 'glass'),
    ...(item.unit === 'characters' ? [path(gridPath(item, item.columns, item.rows, rectangle(2.8, 4.8)), 'cell')] : []),
    ...(item.unit === 'digits' ? [path(gridPath(item, item.columns, 1, digitPath), 'digit')] : []),
  ],
  dots: (item) => [path(gridPath(item, item.columns, item.rows, dot(1.5)), 'dot')],
  keys: (item) => [
    path(gridPath(item, item.columns, item.rows, rectangle(keySize(item), keySize(item))), 'feature'),
    path(gridPath(item, item.columns, item.rows, dot(keySize(item) * 0.28)), 'board'),
  ],
  knob: ({ x, y, w, h }) => [
    box({ x, y, w, h }, 1, 'feature'),
    { shape: 'circle', x: x + w / 2, y: y + h / 2, r: w * 0.33, look: 'board' },
    path(`M${x + w / 2} ${y + h * 0.17} v${h * 0.16}`, 'trace'),
  ],
  lens: ({ w, h }) => [
    path(`M0 ${h - 1.2} V2.9 a2.9 2.9 0 0 1 ${w} 0 V${h - 1.2} z`, 'lens'),
    box({ x: -0.6, y: h - 1.2, w: w + 0.8, h: 1.2 }, 0, 'lens'),
    path(`M1.6 ${h} V${LED_LEGS_MM} M4.14 ${h} V${LED_LEGS_MM - 2}`, 'trace'),
  ],
};

/** What is drawn of a face besides its pads.
 *  @param hasText whether small markings are drawn, too */
export const faceShapes = (items: readonly FaceItem[], hasText: boolean): readonly FaceShape[] =>
  items.flatMap((item) => (SHAPES[item.is] as ShapesOf<FaceItem['is']>)(item as never, hasText));
