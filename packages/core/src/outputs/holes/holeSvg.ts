import { boardOf } from '../../plan/edit';
import type { Plan } from '../../plan/plan';
import type { Sheets } from '../../sheets/sheetIndex';
import { holeSummary } from '../../text/views/holeText';
import { escapeXml, INK, PAPER, QUIET, svgPicture, svgText } from '../svgText';
import { WIRE_HEX } from '../wireHex';
import { holePicture } from './holePicture';
import type { HoleRole, HoleShape } from './holeShapes';

const FIELD = '#fffefb';
const STRING = '#b9b09d';

interface Look {
  readonly stroke?: string;
  readonly width?: number;
  readonly fill?: string;
  readonly size?: number;
}

const LOOKS: { readonly [R in HoleRole]: Look } = {
  roof: { stroke: INK, width: 3 },
  string: { stroke: STRING, width: 1.1 },
  free: { stroke: STRING, width: 0.9, fill: FIELD },
  leg: { stroke: INK, width: 0.9, fill: INK },
  wire: { stroke: INK, width: 2.2 },
  lead: { stroke: INK, width: 2 },
  'rail-wire': { width: 0 },
  sign: { size: 15 },
  rail: { width: 1.2 },
  bracket: { stroke: INK, width: 1.6 },
  bridge: { stroke: INK, width: 1.4, fill: FIELD },
  symbol: { stroke: INK, width: 1, fill: FIELD },
  title: { size: 14.5 },
  label: { size: 11.5 },
  number: { size: 12 },
  letter: { size: 13 },
  value: { size: 10 },
};

function shapeSvg(shape: HoleShape): string {
  // Its sign and its holes say enough on paper.
  if (shape.role === 'rail-wire') return '';
  const look = LOOKS[shape.role];
  const colour = shape.colour && WIRE_HEX[shape.colour];
  switch (shape.is) {
    case 'line': {
      const path = shape.points.map(([x, y], at) => `${at === 0 ? 'M' : 'L'}${x} ${y}`).join('');
      const casing =
        shape.colour === 'white' ? `<path d="${path}" fill="none" stroke="${INK}" stroke-width="${(look.width ?? 1) + 1.2}"/>` : '';
      return `${casing}<path d="${path}" fill="none" stroke="${colour ?? look.stroke ?? INK}" stroke-width="${look.width ?? 1}" stroke-linejoin="round"/>`;
    }
    case 'circle':
      return `<circle cx="${shape.x}" cy="${shape.y}" r="${shape.r}" fill="${colour ?? look.fill ?? FIELD}" stroke="${shape.role === 'free' ? STRING : INK}" stroke-width="0.9"/>`;
    case 'rect':
      return `<rect x="${shape.x}" y="${shape.y}" width="${shape.w}" height="${shape.h}" fill="${look.fill ?? FIELD}" stroke="${INK}"/>`;
    case 'text': {
      const turn = shape.turn === 0 ? '' : ` transform="rotate(${shape.turn} ${shape.x} ${shape.y})"`;
      const weight = shape.role === 'title' ? ' font-weight="600"' : '';
      return `<text x="${shape.x}" y="${shape.y}" font-size="${look.size ?? 10}" text-anchor="${shape.anchor}" fill="${colour ?? (shape.role === 'title' ? INK : QUIET)}"${weight}${turn}>${escapeXml(shape.text)}</text>`;
    }
  }
}

/** The hole plan as a file of its own. Undefined if the plan has no breadboard. */
export function holeSvg(plan: Plan, sheets: Sheets): string | undefined {
  const picture = holePicture(plan, sheets);
  const board = boardOf(plan, sheets);
  if (!picture || !board) return undefined;
  const head = 44;
  return svgPicture(picture.width, picture.height + head, `${plan.name}: hole plan`, [
    svgText(14, 24, plan.name, { size: 16, bold: true }),
    svgText(picture.width - 14, 24, holeSummary(plan, sheets), { size: 12, anchor: 'end', colour: QUIET }),
    `<rect x="0" y="${head}" width="${picture.width}" height="${picture.height}" fill="${PAPER}"/>`,
    `<g transform="translate(0 ${head})">`,
    ...picture.shapes.map(shapeSvg),
    '</g>',
  ]);
}
