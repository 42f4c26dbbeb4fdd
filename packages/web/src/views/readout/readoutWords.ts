import type { FlashLedger } from '@roof-chart/core/readout/flash';
import type { MemoryLedger, MemoryLine } from '@roof-chart/core/readout/memory';
import type { Layout } from '@roof-chart/core/readout/layout';
import type { SegmentTable } from '@roof-chart/core/readout/segmentTable';
import { counted, formatSi } from '@roof-chart/core/quantity/format';

export const PICTURE_WORDS: { readonly [P in MemoryLine['picture']]: string } = {
  whole: 'the whole picture in memory',
  part: 'a part of the picture at a time',
  none: 'drawn straight into the display',
};

/** What memory there is, and what is left. */
export function memoryWords({ ramBytes, runtimeBytes, usedBytes, leftBytes }: MemoryLedger): string {
  if (ramBytes === 0) return `The sheet of this board does not say how much RAM it has; pictures take ${formatSi(usedBytes, 'B')}.`;
  const runtime = runtimeBytes > 0 ? `, ${formatSi(runtimeBytes, 'B')} for the runtime and its stack` : '';
  const left = leftBytes >= 0 ? `${formatSi(leftBytes, 'B')} left for the program` : `${formatSi(-leftBytes, 'B')} more than there is`;
  return `${formatSi(ramBytes, 'B')} of RAM${runtime}, ${formatSi(usedBytes, 'B')} for pictures: ${left}.`;
}

/** What flash there is, and what displays take of it. */
export function flashWords({ flashBytes, runtimeBytes, usedBytes, leftBytes }: FlashLedger): string {
  const loader = runtimeBytes > 0 ? `, ${formatSi(runtimeBytes, 'B')} for the boot loader` : '';
  const left = leftBytes >= 0 ? `${formatSi(leftBytes, 'B')} left for the program` : `${formatSi(-leftBytes, 'B')} more than there is`;
  return `${formatSi(flashBytes, 'B')} of flash${loader}, ${formatSi(usedBytes, 'B')} for fonts, pictures and tables: ${left}.`;
}

/** Steps a second at which a running text is read well. */
const STEPS_PER_SECOND = 20;

/** How much of a text is seen, and what has no form. */
export function layoutWords({ rows, columns, cut, unknown, scroll }: Layout): string {
  const room = `${counted(rows, 'row')} of ${counted(columns, 'letter')}`;
  const cutWords = cut > 0 ? `; ${counted(cut, 'letter')} cut off` : '';
  const unknownWords = unknown.length > 0 ? `; no form for ${unknown.join(' ')}` : '';
  const runs = scroll
    ? `; runs through: ${counted(scroll.width, 'column')} wide, gone by after ${scroll.steps} steps, ${formatSi(scroll.steps / STEPS_PER_SECOND, 's')} at ${STEPS_PER_SECOND} a second`
    : '';
  return `${room}${cutWords}${runs}${unknownWords}`;
}

/** @example hexByte(192) // '0xC0' */
export const hexByte = (byte: number): string => `0x${byte.toString(16).toUpperCase().padStart(2, '0')}`;

/** A table as lines for a program or a table elsewhere: glyph, byte. */
export const tableText = (table: SegmentTable): string =>
  ['glyph\tbyte', ...table.glyphs.map(({ glyph, byte }) => `${glyph === ' ' ? 'blank' : glyph}\t${hexByte(byte)}`)].join('\n');
