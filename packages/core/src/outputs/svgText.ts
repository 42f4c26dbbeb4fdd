/** Colours and fonts of images, the same on every screen and in print. */
export const PAPER = '#faf8f3';
export const INK = '#22303c';
export const RULE = '#ddd6c8';
export const QUIET = '#6b6a62';
export const BRICK = '#b3261e';
export const GOOD = '#d9e8e2';
export const FONT = 'Helvetica, Arial, sans-serif';

/** Text escaped for SVG, between tags or in quotes. */
export const escapeXml = (text: string): string =>
  text
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, ' ')
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/>/g, '&gt;')
    .replace(/"/g, '&quot;');

/** A text that fits its room, of at least one letter. */
export const shortened = (text: string, length: number): string =>
  text.length > length ? `${text.slice(0, Math.max(1, length - 1))}…` : text;

export interface TextStyle {
  readonly size?: number;
  readonly anchor?: 'start' | 'middle' | 'end';
  readonly colour?: string;
  readonly bold?: boolean;
  readonly turned?: number;
}

/** A text element at x, y in pixels. */
export const svgText = (
  x: number,
  y: number,
  text: string,
  { size = 12, anchor = 'start', colour = INK, bold, turned }: TextStyle = {},
): string =>
  `<text x="${x}" y="${y}" font-size="${size}" text-anchor="${anchor}" fill="${colour}"${bold ? ' font-weight="700"' : ''}${turned ? ` transform="rotate(${turned} ${x} ${y})"` : ''}>${escapeXml(text)}</text>`;

/** A line element; coordinates and width in pixels. */
export const svgLine = (x1: number, y1: number, x2: number, y2: number, colour = RULE, width = 1, dash = ''): string =>
  `<line x1="${x1}" y1="${y1}" x2="${x2}" y2="${y2}" stroke="${colour}" stroke-width="${width}"${dash ? ` stroke-dasharray="${dash}"` : ''}/>`;

/** A whole picture of a size. */
export const svgPicture = (width: number, height: number, title: string, parts: readonly string[]): string =>
  [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}" font-family="${FONT}">`,
    `<title>${escapeXml(title)}</title>`,
    `<rect width="${width}" height="${height}" fill="${PAPER}"/>`,
    ...parts,
    '</svg>',
    '',
  ].join('\n');
