import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { createElement } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { boardFace } from '@roof-chart/core/faces/boardFace';
import type { Face } from '@roof-chart/core/faces/face';
import { partFace } from '@roof-chart/core/faces/partFace';
import { escapeXml } from '@roof-chart/core/outputs/svgText';
import { shippedSheets } from '../../../../core/tests/catalogue';
import { FacePicture } from './Face';

const PAGE = join(__dirname, '../../../../../docs/faces.svg');
const COLUMNS = 12;
const CELL = { w: 190, h: 170, face: 130 } as const;
const MARGIN = 16;

/** The rules of a style sheet with the values of the light theme in place of its variables. */
function stylesOf(file: string, tokens: string): string {
  const light = tokens.slice(0, tokens.indexOf('}'));
  const values = new Map([...light.matchAll(/(--[\w-]+):\s*([^;]+);/g)].map(([, name, value]) => [name!, value!]));
  return file
    .replace(/\/\*[^]*?\*\//g, '')
    .replace(/var\((--[\w-]+)\)/g, (whole, name: string) => values.get(name) ?? whole)
    .replace(/\s+/g, ' ');
}

const read = (file: string): string => readFileSync(join(__dirname, file), 'utf8');

/** One face with its name, to fit its cell, at most three pixels a millimetre. */
function cell(face: Face, at: number): string {
  const x = MARGIN + (at % COLUMNS) * CELL.w;
  const y = MARGIN + Math.floor(at / COLUMNS) * CELL.h;
  const scale = Math.min(3, (CELL.w - 20) / face.view.w, CELL.face / face.view.h);
  const [w, h] = [face.view.w * scale, face.view.h * scale];
  const svg = renderToStaticMarkup(createElement(FacePicture, { face, maxScale: scale }));
  const placed = svg.replace('<svg ', `<svg x="${(x + (CELL.w - w) / 2).toFixed(1)}" y="${(y + (CELL.face - h) / 2).toFixed(1)}" `);
  const title = face.title.length > 30 ? `${face.title.slice(0, 29)}…` : face.title;
  return `${placed}<text class="name" x="${x + CELL.w / 2}" y="${y + CELL.face + 16}">${escapeXml(title)}</text>`;
}

test('the committed contact sheet shows every board and part of the catalogue as it is drawn now', () => {
  const { boards, parts } = shippedSheets();
  const byTitle = (a: Face, b: Face) => a.title.localeCompare(b.title, 'en');
  const faces = [
    ...[...boards.values()].map(({ sheet }) => boardFace(sheet)).toSorted(byTitle),
    ...[...parts.values()].map(({ sheet }) => partFace(sheet)).toSorted(byTitle),
  ];
  const width = 2 * MARGIN + COLUMNS * CELL.w;
  const height = 2 * MARGIN + Math.ceil(faces.length / COLUMNS) * CELL.h;
  const tokens = read('../theme/tokens.css');
  const css = `${stylesOf(read('Face.module.css'), tokens)} .name { font: 11px Helvetica, Arial, sans-serif; text-anchor: middle; fill: #22303c }`;
  const sheet = [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}">`,
    '<title>Faces of all boards and parts</title>',
    `<style>${css}</style>`,
    `<rect width="${width}" height="${height}" fill="#faf8f3"/>`,
    ...faces.map(cell),
    '</svg>',
    '',
  ].join('\n');
  expect(sheet).not.toMatch(/NaN|Infinity|undefined|var\(--/);
  if (process.env['ROOF_CHART_WRITE'] !== undefined) writeFileSync(PAGE, sheet);
  const [now, committed] = [sheet.split('\n'), readFileSync(PAGE, 'utf8').split('\n')];
  expect(
    now.filter((line, at) => line !== committed[at]).map((line) => /class="name"[^>]*>([^<]*)/.exec(line)?.[1] ?? line.slice(0, 80)),
  ).toEqual([]);
  expect(now).toHaveLength(committed.length);
});
