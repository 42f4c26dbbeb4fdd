import { memoizeByObject } from '../memo/memoizeByObject';
import type { BoardPin, BoardSheet, Header } from '../sheets/boardSheet';
import type { Shape, ShapeRow } from '../sheets/shape';
import { PITCH_MM } from '../sheets/shapeFaults';
import { type Box, CHARACTER_MM, drawnLabel, type Face, type FaceItem, type FacePad, viewOf } from './face';
import { turnFace } from './turnFace';

/** From the edge of a board to the middle of its pins, where nothing states it. */
const INSET = 1.6;
/** Between two headers of one side. */
const GAP = PITCH_MM;
/** From a pin to its label. */
const TO_LABEL = 1.7;
/** Legs of a chip outside of its body. */
const LEG = 1.8;

const kindOf = ({ kind }: BoardPin): FacePad['kind'] =>
  kind === 'io' ? 'signal' : kind === 'ground' || kind === 'supply' ? kind : 'control';

/** Places along a header, whose pins are in one or two columns. */
const placesOf = (header: Header, pins: readonly BoardPin[]): number => Math.ceil(pins.length / (header.rows ?? 1));

interface Placed {
  readonly header: Header;
  readonly pins: readonly BoardPin[];
  readonly row: ShapeRow;
}

/** The pins of a header from its first end, in which order the sheet lists them; positions may count from the other end. */
const pinsOf = (sheet: BoardSheet, header: Header): readonly BoardPin[] => sheet.pins.list.filter((pin) => pin.header === header.id);

/** The outline of a board whose sheet states none: as long as its headers, as wide as the labels between them. */
function plainOutline(sheet: BoardSheet, isChip: boolean): { readonly w: number; readonly h: number } {
  const side = (of: 'left' | 'right') => sheet.headers.list.filter((header) => header.side === of);
  const length = (of: 'left' | 'right') =>
    side(of).reduce((sum, header) => sum + (placesOf(header, pinsOf(sheet, header)) - 1) * PITCH_MM, 0) +
    Math.max(0, side(of).length - 1) * (GAP + PITCH_MM);
  const h = Math.max(length('left'), length('right')) + 2 * PITCH_MM;
  // Chips with more than 20 legs are of the wide kind, 15.24 mm from leg to leg.
  if (isChip) return { w: sheet.pins.list.length > 20 ? 13.7 : 6.4, h };
  const longest = Math.max(4, ...sheet.pins.list.map((pin) => drawnLabel(pin.label).length));
  return { w: Math.max(18, 2 * (INSET + TO_LABEL + longest * CHARACTER_MM) + 6), h };
}

/** Where the headers lie: as the sheet states, all others one after another along their side. */
function placed(
  sheet: BoardSheet,
  shape: Shape | undefined,
  outline: { readonly w: number; readonly h: number },
  isChip: boolean,
): readonly Placed[] {
  return (['left', 'right'] as const).flatMap((side) => {
    const headers = sheet.headers.list.filter((header) => header.side === side);
    const lengths = headers.map((header) => (placesOf(header, pinsOf(sheet, header)) - 1) * PITCH_MM);
    const whole = lengths.reduce((sum, length) => sum + length, 0) + Math.max(0, headers.length - 1) * (GAP + PITCH_MM);
    let y = (outline.h - whole) / 2;
    return headers.map((header, at): Placed => {
      const own = shape?.rows?.find((row) => row.header === header.id);
      const inset = isChip ? -LEG / 2 : INSET;
      const width = header.rows === 2 ? PITCH_MM : 0;
      const plain: ShapeRow = { firstMm: [side === 'left' ? inset : outline.w - inset - width, y], towards: 'down' };
      y += lengths[at]! + GAP + PITCH_MM;
      return { header, pins: pinsOf(sheet, header), row: own ?? plain };
    });
  });
}

/** Along a row, and across it to the second one. */
const STEPS = { down: [0, 1], up: [0, -1], right: [1, 0], left: [-1, 0] } as const;

function padsOf({ header, pins, row }: Placed, isChip: boolean): readonly FacePad[] {
  const [dx, dy] = STEPS[row.towards];
  const isUpright = dy !== 0;
  return pins.map((pin, at): FacePad => {
    const place = header.rows === 2 ? Math.floor((pin.position! - 1) / 2) : at;
    const across = header.rows === 2 && pin.position! % 2 === 0 ? PITCH_MM : 0;
    const x = row.firstMm[0] + dx * place * PITCH_MM + (isUpright ? across : 0);
    const y = row.firstMm[1] + dy * place * PITCH_MM + (isUpright ? 0 : across);
    // Labels lie between the rows; those of the outer row of two, and of chips, outside.
    const isOuter = isChip || (header.rows === 2 && across > 0 === (header.side === 'right'));
    const away = (header.side === 'left') === isOuter ? -1 : 1;
    const text = isUpright
      ? { x: x + away * TO_LABEL, y, turn: 0 as const, anchor: away < 0 ? ('end' as const) : ('start' as const) }
      : { x, y: y + TO_LABEL, turn: 90 as const, anchor: 'start' as const };
    return { id: pin.id, label: pin.label, x, y, kind: kindOf(pin), form: isChip ? 'leg' : 'round', text };
  });
}

/** The end of a board at which something stands out, by the name that its headers give it. */
function landmarks(sheet: BoardSheet, { w, h }: { readonly w: number; readonly h: number }): readonly FaceItem[] {
  const [first = '', last = ''] = sheet.headers.list.find((header) => header.side !== 'inside')?.ends ?? [];
  const usb = sheet.traits?.usb;
  const at = (name: RegExp) => (name.test(first) ? 'above' : name.test(last) ? 'below' : undefined);
  const usbEnd = at(/^USB/) ?? (usb ? 'above' : undefined);
  const antenna = at(/^antenna/);
  const size = usb === 'USB-B' ? { w: 12, h: 16 } : { w: 8, h: 6 };
  const items: FaceItem[] = [];
  if (usb && usbEnd)
    items.push({ is: 'feature', what: 'usb', label: usb, x: (w - size.w) / 2, y: usbEnd === 'above' ? -1.5 : h - size.h + 1.5, ...size });
  if (antenna) items.push({ is: 'feature', what: 'antenna', x: w / 2 - 6, y: antenna === 'above' ? 0.6 : h - 5.6, w: 12, h: 5 });
  return items;
}

/** The chip in the middle of a board, marked with its name. */
function chipItem(sheet: BoardSheet, { w, h }: { readonly w: number; readonly h: number }): FaceItem {
  const size = Math.min(10, w * 0.42);
  return { is: 'feature', what: 'chip', label: sheet.chip, x: (w - size) / 2, y: h * 0.5 - size / 2, w: size, h: size };
}

const featureItems = ({ features = [] }: Shape): readonly FaceItem[] =>
  features.map(({ what, atMm: [x, y], sizeMm: [w, h], label }): FaceItem => {
    const box: Box = what === 'hole' ? { x: x - w / 2, y: y - h / 2, w, h } : { x, y, w, h };
    return { is: 'feature', what, ...box, ...(label === undefined ? {} : { label }) };
  });

/** The likeness of a board. Boards with sockets, chips, and boards whose headers are on one side lie; all others stand with the first end
 *  of their headers above. */
export const boardFace = memoizeByObject((sheet: BoardSheet): Face => {
  const { shape } = sheet;
  const isChip = shape?.body === 'dip' || /^notch/.test(sheet.headers.list[0]?.ends[0] ?? '');
  const stated = shape?.widthMm !== undefined && shape.heightMm !== undefined ? { w: shape.widthMm, h: shape.heightMm } : undefined;
  const outline = stated ?? plainOutline(sheet, isChip);
  const rows = placed(sheet, shape, outline, isChip);
  const pads = rows.flatMap((row) => padsOf(row, isChip));
  const items: readonly FaceItem[] = [
    { is: 'body', body: isChip ? 'chip' : 'board', x: 0, y: 0, ...outline },
    ...(isChip
      ? [
          { is: 'notch' as const, x: outline.w / 2, y: 0, turned: false },
          { is: 'marking' as const, label: sheet.chip, ...markingBox(outline) },
        ]
      : shape?.features
        ? featureItems(shape)
        : [...landmarks(sheet, outline), chipItem(sheet, outline)]),
  ];
  const sides = new Set(sheet.headers.list.filter((header) => header.side !== 'inside').map(({ side }) => side));
  const lies = isChip || sides.size === 1 || sheet.headers.list.some((header) => header.contact === 'socket');
  const face: Face = {
    title: sheet.title,
    description: describe(sheet, stated),
    view: viewOf(items, pads),
    items,
    pads,
    toScale: stated !== undefined,
  };
  return lies ? turnFace(face) : face;
});

/** The marking of a chip is written along it. */
const markingBox = ({ w, h }: { readonly w: number; readonly h: number }) => ({ x: w / 2 - 2, y: h * 0.2, w: 4, h: h * 0.6 });

function describe(sheet: BoardSheet, size: { readonly w: number; readonly h: number } | undefined): string {
  const headers = sheet.headers.list
    .filter((header) => header.side !== 'inside')
    .map((header) => `${header.title}: ${String(pinsOf(sheet, header).length)} positions from the ${header.ends[0]}`);
  return `${size ? `${String(size.w)} × ${String(size.h)} mm` : 'Size not stated'}. ${headers.join('; ')}.`;
}
