import { type FaceLook, type FaceShape, faceShapes } from '../../faces/faceShapes';
import { escapeXml, INK, PAPER, QUIET } from '../svgText';
import type { ModuleFace } from './moduleFace';

interface Look {
  readonly fill?: string;
  readonly stroke?: string;
  /** In pixels of the picture, whatever the scale of the face. */
  readonly width?: number;
  readonly opacity?: number;
}

const [FIELD, CHIP, TINT, GLASS, GLASS_INK] = ['#fffefb', '#e9e4d8', '#f0ece2', '#31475a', '#e8edf0'];

const LOOKS: { readonly [L in FaceLook]: Look } = {
  board: { fill: FIELD, stroke: INK, width: 0.8 },
  chip: { fill: CHIP, stroke: INK, width: 0.8 },
  feature: { fill: TINT, stroke: INK, width: 0.8 },
  hole: { fill: PAPER, stroke: QUIET, width: 0.7 },
  trace: { stroke: INK, width: 0.8 },
  notch: { stroke: INK, width: 0.8 },
  digit: { stroke: GLASS_INK, width: 0.6 },
  glass: { fill: GLASS, stroke: INK, width: 0.8 },
  cell: { fill: GLASS_INK, opacity: 0.14 },
  dot: { fill: TINT, stroke: QUIET, width: 0.5 },
  lens: { fill: TINT, stroke: INK, width: 0.8 },
};

function lookOf(look: FaceLook, scale: number): string {
  const { fill = 'none', stroke, width = 0, opacity } = LOOKS[look];
  const edge = stroke === undefined ? '' : ` stroke="${stroke}" stroke-width="${Number((width / scale).toFixed(3))}"`;
  return `fill="${fill}"${edge}${opacity === undefined ? '' : ` fill-opacity="${opacity}"`}`;
}

function shapeSvg(one: FaceShape, scale: number): string {
  switch (one.shape) {
    case 'rect':
      return `<rect x="${one.x}" y="${one.y}" width="${one.w}" height="${one.h}" rx="${one.round}" ${lookOf(one.look, scale)}/>`;
    case 'circle':
      return `<circle cx="${one.x}" cy="${one.y}" r="${one.r}" ${lookOf(one.look, scale)}/>`;
    case 'path':
      return `<path d="${one.d}" ${lookOf(one.look, scale)}/>`;
    case 'text':
      return `<text font-size="${one.size}" text-anchor="middle" dominant-baseline="central" transform="translate(${one.x} ${one.y})${one.isUpright ? ' rotate(-90)' : ''}" fill="${INK}">${escapeXml(one.text)}</text>`;
  }
}

/** The front of a module at its place in a saved picture, as it is on the screen. */
export function faceSvg({ items, view, place }: ModuleFace): readonly string[] {
  const scale = place.w / view.w;
  return [
    `<g transform="translate(${place.x} ${place.y}) scale(${scale}) translate(${-view.x} ${-view.y})">`,
    ...faceShapes(items, false).map((one) => shapeSvg(one, scale)),
    '</g>',
  ];
}
