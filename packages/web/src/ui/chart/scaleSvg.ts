import { BRICK, GOOD, INK, QUIET, RULE, svgLine, svgPicture, svgText } from '@roof-chart/core/outputs/svgText';
import type { ScaleRow, ScaleWindow } from './ScaleChart';
import { NAME_ABOVE, NAME_BELOW, NAMED_ROW_HEIGHT, placing, ROW_HEIGHT, type Scale } from './placing';

const HEAD = 240;
const VALUE = 150;
const WIDTH = 560;
const ROOF = 64;
const EDGE = 18;

interface ScalePicture {
  readonly label: string;
  readonly scale: Scale;
  readonly rows: readonly ScaleRow[];
  readonly windows: readonly ScaleWindow[];
  readonly total?: { readonly at: number; readonly words: string } | undefined;
}

const TONES: { readonly [T in ScaleWindow['tone']]: string } = { good: GOOD, quiet: '#efebe0', clash: '#f6d9d5' };

/** A scale chart as a standalone SVG. */
export function scaleSvg({ label, scale, rows, windows, total }: ScalePicture): string {
  const { x: along } = placing(scale, WIDTH);
  const left = EDGE + HEAD + VALUE;
  const x = (value: number) => left + along(value);
  const rowHeight = rows.some((row) => row.marks.some(({ name }) => name !== undefined)) ? NAMED_ROW_HEIGHT : ROW_HEIGHT;
  const height = ROOF + rows.length * rowHeight + (total ? 30 : 14);
  const parts = [svgText(EDGE, 24, label, { size: 15, bold: true })];
  for (const { from, to, tone } of windows)
    parts.push(
      `<rect x="${x(from)}" y="${ROOF}" width="${Math.max(0, x(to) - x(from))}" height="${rows.length * rowHeight}" fill="${TONES[tone]}"/>`,
    );
  for (const { at, label: text } of scale.ticks) {
    parts.push(svgLine(x(at), ROOF - 8, x(at), ROOF, INK));
    if (text) parts.push(svgText(x(at), ROOF - 12, text, { size: 10, anchor: 'middle' }));
  }
  parts.push(svgLine(left, ROOF, left + WIDTH, ROOF, INK, 3));
  rows.forEach((row, n) => {
    const y = ROOF + n * rowHeight + rowHeight / 2;
    const head = typeof row.head === 'string' ? row.head : row.id;
    parts.push(svgText(EDGE, y + 4, head.slice(0, 36)), svgText(left - 14, y + 4, row.value, { size: 11, anchor: 'end' }));
    parts.push(svgLine(EDGE, y + rowHeight / 2, left + WIDTH, y + rowHeight / 2, RULE));
    for (const { at, kind, from, to, name, nameBelow } of row.marks) {
      if (row.hung && (kind === 'disc' || kind === 'clash'))
        parts.push(svgLine(x(at), ROOF, x(at), y, kind === 'clash' ? BRICK : INK, 1.5));
      if (from !== undefined && to !== undefined) parts.push(svgLine(x(from), y, x(to), y, INK, 1.5));
      const fill = kind === 'ring' || kind === 'also' ? 'none' : kind === 'clash' ? BRICK : INK;
      parts.push(`<circle cx="${x(at)}" cy="${y}" r="5" fill="${fill}" stroke="${kind === 'clash' ? BRICK : INK}"/>`);
      if (name !== undefined)
        parts.push(svgText(x(at), y + (nameBelow ? NAME_BELOW : NAME_ABOVE), name, { size: 8, anchor: 'middle', colour: QUIET }));
    }
  });
  if (total) {
    const end = ROOF + rows.length * rowHeight;
    parts.push(
      svgLine(x(total.at), ROOF, x(total.at), end + 6, INK, 1, '3 3'),
      svgText(x(total.at), end + 20, total.words, { size: 11, anchor: 'middle', colour: QUIET }),
    );
  }
  return svgPicture(left + WIDTH + EDGE + 20, height, label, parts);
}
