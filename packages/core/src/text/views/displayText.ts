import type { SegmentCurrent } from '../../electrics/reports/segmentCurrent';
import type { FlashLedger } from '../../displays/flash';
import type { MemoryLedger, MemoryLine } from '../../displays/memory';
import type { Layout } from '../../displays/layout';
import type { SegmentTable } from '../../displays/segmentTable';
import { counted, formatBytes, formatSi } from '../../quantity/format';

export const PICTURE_TEXT: { readonly [P in MemoryLine['picture']]: string } = {
  whole: 'full frame buffer',
  part: 'partial frame buffer',
  none: 'no frame buffer',
};

/** What memory there is, and what is left. */
export function memoryText({ ramBytes, runtimeBytes, usedBytes, leftBytes }: MemoryLedger): string {
  if (ramBytes === 0) return `RAM size unknown; frame buffers use ${formatBytes(usedBytes)}.`;
  const runtime = runtimeBytes > 0 ? `, ${formatBytes(runtimeBytes)} for the runtime and its stack` : '';
  const left = leftBytes >= 0 ? `${formatBytes(leftBytes)} left for the program` : `${formatBytes(-leftBytes)} over the limit`;
  return `${formatBytes(ramBytes)} RAM${runtime}, ${formatBytes(usedBytes)} for frame buffers: ${left}.`;
}

/** What flash there is, and what displays take of it. */
export function flashText({ flashBytes, runtimeBytes, usedBytes, leftBytes }: FlashLedger): string {
  const loader = runtimeBytes > 0 ? `, ${formatBytes(runtimeBytes)} for the boot loader` : '';
  const left = leftBytes >= 0 ? `${formatBytes(leftBytes)} left for the program` : `${formatBytes(-leftBytes)} over the limit`;
  return `${formatBytes(flashBytes)} flash${loader}, ${formatBytes(usedBytes)} for fonts, pictures and tables: ${left}.`;
}

/** Readable scroll rate, in steps per second. */
const STEPS_PER_SECOND = 20;

/** How much of a text is seen, and what has no form. */
export function displayLayoutText({ rows, columns, cut, unknown, scroll }: Layout): string {
  const room = `${counted(rows, 'row')} × ${counted(columns, 'character')}`;
  const cutWords = cut > 0 ? `; ${counted(cut, 'character')} cut off` : '';
  const unknownWords = unknown.length > 0 ? `; not available: ${unknown.join(' ')}` : '';
  const runs = scroll
    ? `; scrolls: ${counted(scroll.width, 'column')} wide, ${scroll.steps} steps, ${formatSi(scroll.steps / STEPS_PER_SECOND, 's')} at ${STEPS_PER_SECOND} steps per second`
    : '';
  return `${room}${cutWords}${runs}${unknownWords}`;
}

/** @example hexByte(192) // '0xC0' */
export const hexByte = (byte: number): string => `0x${byte.toString(16).toUpperCase().padStart(2, '0')}`;

/** A table as lines for a program or a table elsewhere: glyph, byte. */
export const tableText = (table: SegmentTable): string =>
  [
    'glyph\tbyte',
    ...table.glyphs.map(({ glyph, byte }) => `${glyph === ' ' ? 'blank' : glyph}\t${hexByte(byte)}`),
    ...(table.digits.length > 0 ? ['digit\toutput'] : []),
    ...table.digits.map(({ digit, output, index }) => `${digit}\t${index === undefined ? output : `${index} (${output})`}`),
  ].join('\n');

/** What lights a segment, and how bright.
 *  @example currentWords({ amps: { min: 0.018, typ: 0.02, max: 0.022 }, digits: 8 })
 *    // 'Segment current 18 mA to 22 mA at 1/8 duty: 2.5 mA on average at full brightness.' */
export function currentText({ amps, digits }: SegmentCurrent): string {
  const span = `Segment current ${formatSi(amps.min, 'A')} to ${formatSi(amps.max, 'A')}`;
  const mean = (amps.typ ?? amps.max) / digits;
  return digits === 1 ? `${span}, always on.` : `${span} at 1/${digits} duty: ${formatSi(mean, 'A')} on average at full brightness.`;
}
