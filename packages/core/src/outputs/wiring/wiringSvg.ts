import { getOrThrow } from '../../collections/orThrow';
import { boardOf, partOf } from '../../plan/edit';
import type { Plan } from '../../plan/plan';
import type { Sheets } from '../../sheets/sheetIndex';
import { WIRE_HEX } from '../wireHex';
import { INK, PAPER, QUIET, shortened, svgLine, svgPicture, svgText } from '../svgText';
import { faceSvg } from './faceSvg';
import { moduleFace } from './moduleFace';
import { SYMBOLS } from './symbols';
import { moduleText, valueText } from '../../text/views/wiringText';
import { MODULE_WIDTH, wiringPicture, type WiringPicture } from './wiringPicture';

const FIELD = '#fffefb';
const WIRE_WIDTH = 1.8;
const BAR_WIDTH = 3.6;
const TITLE_LENGTH = 24;
const LABEL_LENGTH = 9;

const rect = (x: number, y: number, w: number, h: number, fill: string, width = 1, round = 2): string =>
  `<rect x="${x}" y="${y}" width="${w}" height="${h}" rx="${round}" fill="${fill}" stroke="${INK}" stroke-width="${width}"/>`;
const disc = (x: number, y: number, r: number, fill: string, edge = INK): string =>
  `<circle cx="${x}" cy="${y}" r="${r}" fill="${fill}" stroke="${edge}"/>`;

/** A white wire has an edge of ink, or it would not be seen on paper. */
const lineSvg = ({ x1, y1, x2, y2, colour, isBar }: WiringPicture['lines'][number]): readonly string[] => {
  const width = isBar ? BAR_WIDTH : WIRE_WIDTH;
  return [...(colour === 'white' ? [svgLine(x1, y1, x2, y2, INK, width + 1.4)] : []), svgLine(x1, y1, x2, y2, WIRE_HEX[colour], width)];
};

const symbolSvg = (kind: keyof typeof SYMBOLS, x: number, y: number): string =>
  `<path d="${SYMBOLS[kind]}" transform="translate(${x} ${y})" fill="none" stroke="${INK}"/>`;

function moduleSvg(plan: Plan, sheets: Sheets, picture: WiringPicture, placed: WiringPicture['modules'][number]): readonly string[] {
  const { module, x, y, height, at, side, edge } = placed;
  const [title, note] = moduleText(plan, sheets, module);
  const part = module.component ? undefined : partOf(plan, module.id, sheets)?.sheet;
  const face = part && moduleFace(part, placed);
  const wired = new Map(picture.lines.flatMap(({ end, colour }) => (end?.module === module.id ? [[end.terminal, colour] as const] : [])));
  const inward = side === 'left' ? -1 : 1;
  return [
    rect(x, y, MODULE_WIDTH, height, FIELD, 1.2, 3),
    svgText(x + 2, y - 4, shortened(title, TITLE_LENGTH), { size: 11, bold: true }),
    ...(note === '' ? [] : [svgText(x + MODULE_WIDTH - 2, y - 4, shortened(note, 14), { size: 9, anchor: 'end', colour: QUIET })]),
    ...(face ? faceSvg(face) : []),
    ...(module.component ? [symbolSvg(module.component.kind, x + MODULE_WIDTH / 2, y + height / 2)] : []),
    ...module.terminals.flatMap(({ id, label }) => {
      const colour = wired.get(id);
      return [
        disc(edge + inward * 7, getOrThrow(at, id), 3, colour ? WIRE_HEX[colour] : PAPER),
        svgText(edge + inward * 14, getOrThrow(at, id) + 3.3, shortened(label, LABEL_LENGTH), {
          size: 9.5,
          anchor: side === 'left' ? 'end' : 'start',
        }),
      ];
    }),
  ];
}

/** The wiring picture as a file of its own. Undefined if the board's sheet is missing or nothing is wired. */
export function wiringSvg(plan: Plan, sheets: Sheets): string | undefined {
  const picture = wiringPicture(plan, sheets);
  const board = boardOf(plan, sheets);
  if (!picture || !board || picture.lines.length === 0) return undefined;
  const { width, height, board: outline, pins, dots, resistors } = picture;
  const head = 40;
  const title = `${plan.name}: wiring`;
  return svgPicture(width, height + head, title, [
    svgText(14, 24, plan.name, { size: 16, bold: true }),
    svgText(width - 14, 24, board.sheet.title, { size: 12, anchor: 'end', colour: QUIET }),
    `<g transform="translate(0 ${head})">`,
    rect(outline.x, outline.y, outline.width, outline.height, FIELD, 1.4, 5),
    ...picture.modules.flatMap((module) => moduleSvg(plan, sheets, picture, module)),
    ...picture.lines.flatMap(lineSvg),
    ...dots.map(({ x, y, colour }) => disc(x, y, 2.4, WIRE_HEX[colour], WIRE_HEX[colour])),
    ...resistors.flatMap(({ x, y, component }) => [
      rect(x - 9, y - 3.2, 18, 6.4, FIELD, 1, 1),
      svgText(x, y - 5, `${component.name} ${valueText(component)}`, { size: 8, anchor: 'middle' }),
    ]),
    ...pins.flatMap(({ x, y, side, label, colour }) => [
      disc(x, y, 3.6, colour ? WIRE_HEX[colour] : PAPER),
      svgText(x + (side === 'left' ? 8 : -8), y + 3.3, label, { size: 9.5, anchor: side === 'left' ? 'start' : 'end' }),
    ]),
    '</g>',
  ]);
}
