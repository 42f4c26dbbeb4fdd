import { counted, formatSi } from '../quantity/format';
import { typical } from '../quantity/range';
import type { BoardSheet } from '../sheets/boardSheet';

/** What tells a board apart by sight.
 *  @example boardTraitsText(sheet) // ['26 I/O pins', '3.3 V', 'micro-USB', '51 × 21 mm'] */
export function boardTraitsText({ shape, traits, electrical, pins, radio }: BoardSheet): readonly string[] {
  const io = pins.list.filter((pin) => pin.kind === 'io' && !pin.sameAs && pin.header !== undefined);
  const size = [shape?.widthMm ?? 0, shape?.heightMm ?? 0].toSorted((a, b) => b - a).map((mm) => Math.round(mm));
  return [
    counted(io.length, 'I/O pin'),
    formatSi(typical(electrical.vdd), 'V'),
    ...(traits?.usb ? [traits.usb] : []),
    ...(radio ? [radio.kinds] : []),
    ...(shape?.widthMm === undefined ? [] : [`${size.join(' × ')} mm`]),
  ];
}
