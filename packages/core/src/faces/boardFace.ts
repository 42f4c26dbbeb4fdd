import { type HeaderPin, headerPins } from '../sheets/headerPins';
import { atOrThrow } from '../collections/orThrow';
import { memoizeByObject } from '../memo/memoizeByObject';
import type { BoardPin, BoardSheet, Header } from '../sheets/boardSheet';
import { PITCH_MM, placeInRow, type Shape, type ShapeRow } from '../sheets/shape';
import { featureItems } from './featureItems';
import { CHARACTER_MM, drawnLabel, type Face, type FaceItem, type FacePad, viewOf } from './face';
import { chipItems, chipWidth, INSET_MM, isUpright, labelPlace, LEG_MM, type Size, sizeText, TO_LABEL_MM } from './rows';
import { turnFace } from './turnFace';

/** Between two headers of one side. */
const GAP = PITCH_MM;

const kindOf = ({ kind }: BoardPin): FacePad['kind'] =>
  kind === 'io' ? 'signal' : kind === 'ground' || kind === 'supply' ? kind : 'control';

/** Places along a header, whose pins are in one or two columns. */
const placesOf = (header: Header, pins: readonly BoardPin[]): number => Math.ceil(pins.length / (header.rows ?? 1));

interface Placed {
  readonly header: Header;
  readonly pins: readonly HeaderPin[];
  readonly row: ShapeRow;
}

/** The pins of a header from its first end, in which order the sheet lists them; positions may count from the other end. */
const pinsOf = (sheet: BoardSheet, header: Header): readonly HeaderPin[] => headerPins(sheet, header.id);

/** The outline of a board whose sheet states none: as long as its headers, as wide as the labels between them. */
function plainOutline(sheet: BoardSheet, isChip: boolean): Size {
  const side = (of: 'left' | 'right') => sheet.headers.list.filter((header) => header.side === of);
  const length = (of: 'left' | 'right') =>
    side(of).reduce((sum, header) => sum + (placesOf(header, pinsOf(sheet, header)) - 1) * PITCH_MM, 0) +
    Math.max(0, side(of).length - 1) * (GAP + PITCH_MM);
  const h = Math.max(length('left'), length('right')) + 2 * PITCH_MM;
  if (isChip) return { w: chipWidth(sheet.pins.list.length), h };
  const longest = Math.max(4, ...sheet.pins.list.map((pin) => drawnLabel(pin.label).length));
  return { w: Math.max(18, 2 * (INSET_MM + TO_LABEL_MM + longest * CHARACTER_MM) + 6), h };
}

/** Where the headers lie: as the sheet states, all others one after another along their side. */
function placed(sheet: BoardSheet, shape: Shape | undefined, outline: Size, isChip: boolean): readonly Placed[] {
  return (['left', 'right'] as const).flatMap((side) => {
    const headers = sheet.headers.list.filter((header) => header.side === side);
    const lengths = headers.map((header) => (placesOf(header, pinsOf(sheet, header)) - 1) * PITCH_MM);
    const whole = lengths.reduce((sum, length) => sum + length, 0) + Math.max(0, headers.length - 1) * (GAP + PITCH_MM);
    let y = (outline.h - whole) / 2;
    return headers.map((header, at): Placed => {
      const own = shape?.rows?.find((row) => row.header === header.id);
      const inset = isChip ? -LEG_MM / 2 : INSET_MM;
      const width = header.rows === 2 ? PITCH_MM : 0;
      const plain: ShapeRow = { firstMm: [side === 'left' ? inset : outline.w - inset - width, y], towards: 'down' };
      y += atOrThrow(lengths, at) + GAP + PITCH_MM;
      return { header, pins: pinsOf(sheet, header), row: own ?? plain };
    });
  });
}

function padsOf({ header, pins, row }: Placed, isChip: boolean): readonly FacePad[] {
  return pins.map((pin, at): FacePad => {
    const place = header.rows === 2 ? Math.floor((pin.position - 1) / 2) : at;
    const across = header.rows === 2 && pin.position % 2 === 0 ? PITCH_MM : 0;
    const [alongX, alongY] = placeInRow(row, place);
    const [x, y] = isUpright(row.towards) ? [alongX + across, alongY] : [alongX, alongY + across];
    // Labels lie between the rows; those of the outer row of two, and of chips, outside.
    const isOuter = isChip || (header.rows === 2 && across > 0 === (header.side === 'right'));
    const away = (header.side === 'left') === isOuter ? -1 : 1;
    const text = labelPlace(x, y, row.towards, isUpright(row.towards) ? away : 1);
    return { id: pin.id, label: pin.label, x, y, kind: kindOf(pin), form: isChip ? 'leg' : 'round', text };
  });
}

/** The end of a board at which something stands out, by the name that its headers give it. */
function landmarks(sheet: BoardSheet, { w, h }: Size): readonly FaceItem[] {
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
function chipItem(sheet: BoardSheet, { w, h }: Size): FaceItem {
  const size = Math.min(10, w * 0.42);
  return { is: 'feature', what: 'chip', label: sheet.chip, x: (w - size) / 2, y: h * 0.5 - size / 2, w: size, h: size };
}

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
    ...(isChip
      ? chipItems(sheet.chip, outline)
      : [
          { is: 'body' as const, body: 'board' as const, x: 0, y: 0, ...outline },
          ...(shape?.features ? featureItems(shape) : [...landmarks(sheet, outline), chipItem(sheet, outline)]),
        ]),
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

function describe(sheet: BoardSheet, size: Size | undefined): string {
  const headers = sheet.headers.list
    .filter((header) => header.side !== 'inside')
    .map((header) => `${header.title}: ${pinsOf(sheet, header).length} positions from the ${header.ends[0]}`);
  return `${sizeText(size)}. ${headers.join('; ')}.`;
}
