import { firstOrThrow, lastOrThrow, orThrow } from '../collections/orThrow';
import { memoizeByObject } from '../memo/memoizeByObject';
import type { PartSheet, PartTerminal } from '../sheets/partSheet';
import { PITCH_MM, placeInRow, type ShapeRow } from '../sheets/shape';
import { singleLed } from '../nets/leds';
import { featureItems } from './featureItems';
import { CHARACTER_MM, drawnLabel, type Face, type FaceItem, type FacePad, viewOf } from './face';
import { chipItems, chipWidth, INSET_MM, isUpright, labelPlace, LEG_MM, type Size, sizeText, TO_LABEL_MM } from './rows';
import { turnFace } from './turnFace';

/** So many terminals lie along one edge, and as many more as it has room for. */
const ONE_EDGE = 10;

const kindOf = ({ role }: PartTerminal): FacePad['kind'] =>
  role === 'ground' ? 'ground' : role === 'supply.vcc' || role === 'supply.out' ? 'supply' : role === 'external' ? 'control' : 'signal';

/** What the front of a part shows, and how much room that takes; the room is not to scale but for displays whose diagonal is stated. */
function frontOf(part: PartSheet): { readonly item: FaceItem; readonly size: Size } | undefined {
  const at = { x: 0, y: 0 };
  const { readout, encoder, keys, family, chip, shape } = part;
  if (readout) {
    const { unit, columns, rows, shape } = readout;
    // So few pixels are single LEDs.
    if (unit === 'pixels' && rows <= 8) {
      const size = { w: columns * DOT_MM, h: rows * DOT_MM };
      return { item: { is: 'dots', columns, rows, ...at, ...size }, size };
    }
    const size =
      unit === 'characters' ? { w: columns * 3.55, h: rows * 5.95 } : unit === 'digits' ? { w: columns * 8, h: 14 } : pixelSize(part);
    return { item: { is: 'cells', unit, columns, rows, ...at, ...size, ...(shape === 'round' ? { round: true as const } : {}) }, size };
  }
  if (encoder) return { item: { is: 'knob', ...at, w: 13, h: 13 }, size: { w: 13, h: 13 } };
  if (keys) {
    const columns = keys.as === 'matrix' ? Math.ceil(Math.sqrt(keys.count)) : keys.count;
    const rows = Math.ceil(keys.count / columns);
    // The keys of a keypad whose outline is known fill it, below the pins.
    const key = shape?.widthMm === undefined ? KEY_MM : Math.floor(shape.widthMm / (columns + 0.5));
    const size = { w: columns * key, h: rows * key };
    return { item: { is: 'keys', columns, rows, ...at, ...size }, size };
  }
  if (family === 'power' || family === 'light' || shape?.features) return undefined;
  const size = { w: Math.max(5, chip.length * CHARACTER_MM + 2), h: 5 };
  return { item: { is: 'feature', what: 'chip', label: chip, ...at, ...size }, size };
}

/** The terminals of the header that goes to the board. What leads elsewhere, such as to a load, lies at another edge unless it has its number
 *  among them. */
function headerRow(list: readonly PartTerminal[]): readonly PartTerminal[] {
  const own = list.filter(({ role }) => role !== 'external');
  return own.length === 0 ? list : list.slice(list.indexOf(firstOrThrow(own)), list.indexOf(lastOrThrow(own)) + 1);
}

/** Distance of keys, in millimetres. */
const KEY_MM = 7;
/** Distance of the LEDs of a matrix, in millimetres. */
const DOT_MM = 4;
/** Millimetres of an inch. */
const INCH = 25.4;

/** The area of a display of pixels: by its diagonal where the sheet states one. */
function pixelSize({ size = '', readout }: PartSheet): Size {
  const { columns = 1, rows = 1 } = readout ?? {};
  const inches = Number(/(\d+(?:\.\d+)?)\s*(?:″|"|in)/.exec(size)?.[1] ?? NaN);
  const diagonal = Number.isFinite(inches) ? inches * INCH : 30;
  const unit = diagonal / Math.hypot(columns, rows);
  return { w: columns * unit, h: rows * unit };
}

function rowPads(
  terminals: readonly PartTerminal[],
  row: Omit<ShapeRow, 'terminals' | 'header'>,
  side: 1 | -1,
  form: FacePad['form'],
): readonly FacePad[] {
  return terminals.map((terminal, at): FacePad => {
    const [x, y] = placeInRow(row, at);
    return { id: terminal.id, label: terminal.label, x, y, kind: kindOf(terminal), form, text: labelPlace(x, y, row.towards, side) };
  });
}

/** A chip with two rows of legs: the first half down the left side from the notch, the second half up the right one. */
function chipFace(part: PartSheet): readonly [readonly FaceItem[], readonly FacePad[]] {
  const { list } = part.terminals;
  const half = Math.ceil(list.length / 2);
  const w = part.shape?.widthMm ?? chipWidth(list.length);
  const h = (half - 1) * PITCH_MM + 2 * PITCH_MM;
  const left = rowPads(list.slice(0, half), { firstMm: [-LEG_MM / 2, PITCH_MM], towards: 'down' }, -1, 'leg');
  const right = rowPads(list.slice(half), { firstMm: [w + LEG_MM / 2, h - PITCH_MM], towards: 'up' }, 1, 'leg');
  return [chipItems(part.chip, { w, h }), [...left, ...right]];
}

/** An LED on its two legs, the longer one at the anode. */
function ledFace(part: PartSheet): readonly [readonly FaceItem[], readonly FacePad[]] {
  return [
    [{ is: 'lens', x: 0, y: 0, w: 5.8, h: 8.6 }],
    part.terminals.list.map((terminal, at): FacePad => {
      const [x, y] = [1.6 + at * PITCH_MM, at === 0 ? 17 : 15];
      return {
        id: terminal.id,
        label: terminal.label,
        x,
        y,
        kind: kindOf(terminal),
        form: 'leg',
        text: { x, y: y + 2.4, turn: 90, anchor: 'start' },
      };
    }),
  ];
}

/** A module: its terminals along the upper edge, many of them along two edges, and its front under them. */
function moduleFace(part: PartSheet): readonly [readonly FaceItem[], readonly FacePad[]] {
  const { list } = part.terminals;
  const front = frontOf(part);
  const shown = headerRow(list);
  const { w: frontW, h: frontH } = front?.size ?? { w: 0, h: 0 };
  const isTwoSided = shown.length > ONE_EDGE && (shown.length - 1) * PITCH_MM > frontW + 6;
  const longest = Math.max(2, ...shown.map((terminal) => drawnLabel(terminal.label).length)) * CHARACTER_MM;
  const half = isTwoSided ? Math.ceil(shown.length / 2) : shown.length;
  const { shape } = part;
  if (isTwoSided) {
    const w = shape?.widthMm ?? Math.max(frontW, 4) + 2 * (INSET_MM + TO_LABEL_MM + longest) + 3;
    const h = shape?.heightMm ?? Math.max(frontH + 5, (half - 1) * PITCH_MM + 2 * PITCH_MM);
    const top = (h - (half - 1) * PITCH_MM) / 2;
    return [
      [{ is: 'body', body: 'board', x: 0, y: 0, w, h }, ...(front ? [{ ...front.item, x: (w - frontW) / 2, y: (h - frontH) / 2 }] : [])],
      [
        ...rowPads(shown.slice(0, half), { firstMm: [INSET_MM, top], towards: 'down' }, 1, 'round'),
        ...rowPads(shown.slice(half), { firstMm: [w - INSET_MM, top], towards: 'down' }, -1, 'round'),
      ],
    ];
  }
  const w = shape?.widthMm ?? Math.max(frontW + 5, (shown.length - 1) * PITCH_MM + 2 * INSET_MM + 4, 12);
  const under = INSET_MM + TO_LABEL_MM + longest + 1;
  const h = shape?.heightMm ?? Math.max(under + frontH + 2.5, 10);
  const room = h - under - 0.3;
  // A chip is drawn as high as there is room for under the labels.
  const height = front?.item.is === 'feature' ? Math.min(frontH, Math.max(1, room)) : frontH;
  const below = { x: (w - frontW) / 2, y: Math.max(Math.min(under, h - height - 0.3), (h - height) / 2), h: height };
  // Pins along an upright edge have the front beside them.
  const isBeside = shape?.rows?.some(({ towards }) => isUpright(towards)) === true;
  return [
    [
      { is: 'body', body: 'board', x: 0, y: 0, w, h },
      ...(front ? [{ ...front.item, ...(isBeside ? { x: (w + INSET_MM + longest - frontW) / 2, y: (h - frontH) / 2 } : below) }] : []),
    ],
    rowPads(shown, { firstMm: [(w - (shown.length - 1) * PITCH_MM) / 2, INSET_MM], towards: 'right' }, 1, 'round'),
  ];
}

/** A bare display of digits: its legs in two rows, the first half below from left to right, the others above and back. */
function bareDigitsFace(part: PartSheet): readonly [readonly FaceItem[], readonly FacePad[]] {
  const { list } = part.terminals;
  const { item, size } = orThrow(frontOf(part), 'front of the display');
  const half = Math.ceil(list.length / 2);
  const w = Math.max(size.w + 3, (half - 1) * PITCH_MM + 4);
  const h = Math.max(size.h + 4.5, (part.shape?.rowsMm ?? 0) - LEG_MM);
  const start = (w - (half - 1) * PITCH_MM) / 2;
  return [
    [
      { is: 'body', body: 'board', x: 0, y: 0, w, h },
      { ...item, x: (w - size.w) / 2, y: (h - size.h) / 2 },
    ],
    [
      ...rowPads(list.slice(0, half), { firstMm: [start, h + LEG_MM / 2], towards: 'right' }, 1, 'leg'),
      ...rowPads(list.slice(half), { firstMm: [w - start, -LEG_MM / 2], towards: 'left' }, -1, 'leg'),
    ],
  ];
}

/** Whether a part is nothing but digits on legs: its LEDs are driven from outside. */
const isBareDigits = ({ readout, polarity, supply }: PartSheet): boolean =>
  readout?.unit === 'digits' && polarity !== undefined && (supply === undefined || polarity.common !== undefined);

/** Rows of a sheet instead of the plain ones: their labels lie to the inside of the board. */
function statedPads(part: PartSheet): readonly FacePad[] | undefined {
  const { shape } = part;
  if (!shape?.rows || shape.widthMm === undefined || shape.heightMm === undefined) return undefined;
  const { widthMm, heightMm } = shape;
  return shape.rows.flatMap((row) => {
    const isFirstHalf = isUpright(row.towards) ? row.firstMm[0] < widthMm / 2 : row.firstMm[1] < heightMm / 2;
    const terminals = (row.terminals ?? []).flatMap((id) => part.terminals.list.filter((terminal) => terminal.id === id));
    return rowPads(terminals, row, isFirstHalf ? 1 : -1, 'round');
  });
}

/** The likeness of a part. Chips lie with pin 1 at the lower left, as they are drawn in datasheets. */
export const partFace = memoizeByObject((part: PartSheet): Face => {
  const { shape } = part;
  const isChip = shape?.body === 'dip';
  const [drawn, plain] = isChip
    ? chipFace(part)
    : singleLed(part)
      ? ledFace(part)
      : isBareDigits(part)
        ? bareDigitsFace(part)
        : moduleFace(part);
  const items = shape ? [...drawn, ...featureItems(shape)] : drawn;
  const pads = statedPads(part) ?? plain;
  const stated = shape?.widthMm !== undefined && shape.heightMm !== undefined ? { w: shape.widthMm, h: shape.heightMm } : undefined;
  const order = pads.map(({ label }) => label).join(', ');
  const face: Face = {
    title: part.title,
    description: isChip
      ? `Chip with ${pads.length} legs, pin 1 at the notch: ${order}.`
      : `${sizeText(stated)}. Terminals in order: ${order}.`,
    view: viewOf(items, pads),
    items,
    pads,
    toScale: isChip || stated !== undefined,
  };
  return isChip ? turnFace(face) : face;
});
