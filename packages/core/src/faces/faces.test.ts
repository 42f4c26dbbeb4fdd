import { shippedSheets } from '../../tests/catalogue';
import type { BoardSheet } from '../sheets/boardSheet';
import type { PartSheet } from '../sheets/partSheet';
import { boardFaults, partFaults } from '../sheets/sheetFaults';
import { PITCH_MM } from '../sheets/shape';
import { boardFace } from './boardFace';
import { type Box, type Face, type FacePad, textBox } from './face';
import { partFace } from './partFace';
import { rearFace } from './rearFace';

const sheets = shippedSheets();
const boards = [...sheets.boards.values()].map(({ sheet }) => sheet);
const parts = [...sheets.parts.values()].map(({ sheet }) => sheet);
const board = (id: string) => sheets.boards.get(id)!.sheet;
const part = (id: string) => sheets.parts.get(id)!.sheet;
const pad = (face: Face, id: string): FacePad => face.pads.find((one) => one.id === id)!;
const at = (face: Face, id: string) => {
  const { x, y } = pad(face, id);
  return [x, y].map((mm) => Number(mm.toFixed(2)));
};

test.each(boards.map((sheet) => [sheet.id, sheet] as const))('%s has each of its header pins once, on its board', (_, sheet) => {
  const face = boardFace(sheet);
  const inside = new Set(sheet.headers.list.filter((header) => header.side === 'inside').map(({ id }) => id));
  const shown = sheet.pins.list.filter((pin) => pin.header !== undefined && !inside.has(pin.header));
  expect(face.pads.map(({ id }) => id).toSorted()).toEqual(shown.map(({ id }) => id).toSorted());
  // No two pins in one hole.
  const places = face.pads.map(({ x, y }) => `${x.toFixed(1)} ${y.toFixed(1)}`);
  expect(new Set(places).size).toBe(places.length);
  const body = face.items.find((item) => item.is === 'body')!;
  if (body.is === 'body' && body.body === 'board')
    for (const { x, y, label } of face.pads)
      expect([label, x >= body.x && x <= body.x + body.w && y >= body.y && y <= body.y + body.h]).toEqual([label, true]);
});

test('neighbours of a header lie one pitch apart, in the order from its first end', () => {
  for (const sheet of boards)
    for (const header of sheet.headers.list.filter(({ side, rows }) => side !== 'inside' && rows === undefined)) {
      const own = sheet.pins.list.filter((pin) => pin.header === header.id).map((pin) => pad(boardFace(sheet), pin.id));
      for (const [n, { x, y }] of own.slice(1).entries()) {
        const before = own[n]!;
        expect([sheet.id, Math.hypot(x - before.x, y - before.y).toFixed(2)]).toEqual([sheet.id, PITCH_MM.toFixed(2)]);
      }
    }
});

test('the stick stands as its drawing has it: GP0 beside the USB end at the left, VBUS opposite, rows 17.78 mm apart', () => {
  const face = boardFace(board('rp2040-stick-40'));
  expect([at(face, 'GP0'), at(face, 'VBUS')]).toEqual([
    [1.61, 1.37],
    [19.39, 1.37],
  ]);
  expect(at(face, 'GP16')[1]).toBeCloseTo(51 - 1.37, 1);
  expect(face.toScale).toBe(true);
});

test('a board with shield sockets lies with the USB end at the left: digital pins above, D0 at the far end', () => {
  const sheet = board('atmega328p-5v-shield');
  const face = boardFace(sheet);
  const byLabel = (label: string) => face.pads.find((one) => one.label === label)!;
  const usb = face.items.find((item) => item.is === 'feature' && item.what === 'usb')!;
  const body = face.items.find((item) => item.is === 'body')!;
  if (usb.is !== 'feature' || body.is !== 'body') throw new Error('no USB connector');
  expect(usb.x).toBeLessThan(body.x);
  expect([body.w, body.h].map((mm) => mm.toFixed(1))).toEqual(['68.6', '53.3']);
  expect(byLabel('A0').y).toBeGreaterThan(byLabel('AREF').y);
  expect(byLabel('A5').x).toBeGreaterThan(byLabel('A0').x);
});

test('a double header has odd pins in one column and even ones beside them, nearer to the edge', () => {
  const face = boardFace(board('bcm2711-sbc-40'));
  const [one, two, three] = ['3V3', '5V'].map((label) => face.pads.find((found) => found.label === label)!);
  expect([Math.abs(one!.x - two!.x), two!.y < one!.y, three]).toEqual([0, true, undefined]);
});

test('a chip lies with pin 1 at the lower left, half of its pins below from left to right, the others above and back', () => {
  const face = partFace(part('shift-out-74hc595'));
  const [first, eighth, ninth, last] = ['QB', 'GND', 'QHS', 'VCC'].map((id) => pad(face, id));
  expect([first!.x < eighth!.x, first!.y === eighth!.y, ninth!.y < eighth!.y]).toEqual([true, true, true]);
  expect([ninth!.x.toFixed(2), last!.x.toFixed(2)]).toEqual([eighth!.x.toFixed(2), first!.x.toFixed(2)]);
  // Rows of a narrow package are 7.62 mm apart, leg to leg; drawn legs end just outside of the body.
  expect(eighth!.y - ninth!.y).toBeCloseTo(6.4 + 1.8, 2);
});

test.each(parts.map((sheet) => [sheet.id, sheet] as const))('%s has its terminals once, within its view', (_, sheet) => {
  const face = partFace(sheet);
  const isWhole = sheet.shape?.body === 'dip' || sheet.polarity !== undefined;
  const { list } = sheet.terminals;
  const isOwn = ({ role }: (typeof list)[number]) => role !== 'external';
  // A pin without a function is still a pin of its row; what comes before or after all others leads elsewhere.
  const shown = isWhole ? list : list.slice(list.findIndex(isOwn), list.findLastIndex(isOwn) + 1);
  expect(face.pads.map(({ id }) => id).toSorted()).toEqual(shown.map(({ id }) => id).toSorted());
  const places = face.pads.map(({ x, y }) => `${x.toFixed(1)} ${y.toFixed(1)}`);
  expect(new Set(places).size).toBe(places.length);
  const { view } = face;
  for (const item of [...face.pads.map(({ x, y }) => ({ x, y, w: 0, h: 0 })), ...face.items.flatMap((one) => ('w' in one ? [one] : []))])
    expect(
      item.x >= view.x && item.y >= view.y && item.x + item.w <= view.x + view.w + 1e-9 && item.y + item.h <= view.y + view.h + 1e-9,
    ).toBe(true);
});

test('a leg that is connected to nothing has its place: the fourth leg of a sensor is not its third', () => {
  expect(partFace(part('humidity-dht22')).pads.map(({ label }) => label)).toEqual(['VDD', 'DATA', 'NC', 'GND']);
  expect(partFace(part('motion-mpu6050')).pads.map(({ id }) => id)).toEqual(['VCC', 'GND', 'SCL', 'SDA', 'XDA', 'XCL', 'AD0', 'INT']);
  // The load cell's own end lies at another edge.
  expect(partFace(part('load-cell-hx711')).pads.map(({ id }) => id)).toEqual(['GND', 'DT', 'SCK', 'VCC']);
});

describe('what is hostile or contradicts itself', () => {
  const source = { document: 'D', trust: 'typical' as const };
  const stick = board('rp2040-stick-40');
  const shaped = (shape: Partial<BoardSheet['shape'] & object>): BoardSheet => ({ ...stick, shape: { source, body: 'board', ...shape } });
  const faults = (sheet: BoardSheet | PartSheet) =>
    (sheet.kind === 'board' ? boardFaults(sheet) : partFaults(sheet)).map(({ path, fault }) => `${path}: ${fault}`);

  test('a row over the edge, a header that is not there, features without an outline', () => {
    const row = { firstMm: [1, 1] as const, towards: 'down' as const };
    expect(faults(shaped({ widthMm: 21, heightMm: 30, rows: [{ header: 'left', ...row }] }))).toEqual([
      'shape.rows.0: the row reaches over the edge',
    ]);
    expect(faults(shaped({ widthMm: 21, heightMm: 51, rows: [{ header: 'top', ...row }] }))).toEqual(['shape.rows.0: top is not there']);
    expect(faults(shaped({ features: [{ what: 'chip', atMm: [1, 1], sizeMm: [2, 2] }] }))).toEqual([
      'shape: rows and features need a width and a height',
    ]);
    expect(
      faults({
        ...part('humidity-sht31'),
        shape: { source, body: 'board', widthMm: 9, heightMm: 9, rows: [{ terminals: ['NO'], ...row }] },
      }),
    ).toEqual(['shape.rows.0: NO is not there']);
  });

  test('400 pins and a label of 60 letters are drawn, the label cut', () => {
    const pins = Array.from({ length: 200 }, (_, n) => ({
      ...stick.pins.list[0]!,
      id: `X${n}`,
      header: 'left',
      position: n + 1,
      label: '<script>'.repeat(8),
    }));
    const { shape: _shape, ...plain } = stick;
    const face = boardFace({
      ...plain,
      pins: { ...stick.pins, list: pins },
      headers: { ...stick.headers, list: [stick.headers.list[0]!] },
    });
    expect([face.pads.length, face.toScale]).toEqual([200, false]);
    expect(face.view.w > 0 && face.view.h > 0 && Number.isFinite(face.view.w + face.view.h)).toBe(true);
  });

  test('a sheet without pins at headers has a plain front', () => {
    const { shape: _shape, ...plain } = stick;
    const face = boardFace({ ...plain, pins: { ...stick.pins, list: [] } });
    expect([face.pads, Number.isFinite(face.view.h)]).toEqual([[], true]);
  });
});

test('turned over, left and right change places, chips are gone, holes and pins stay; twice is the front again but for these', () => {
  const face = boardFace(board('rp2040-stick-40'));
  const rear = rearFace(face);
  expect([at(rear, 'GP0'), at(rear, 'VBUS')]).toEqual([
    [-1.61, 1.37],
    [-19.39, 1.37],
  ]);
  expect(pad(face, 'GP0').text.anchor).toBe('start');
  expect(pad(rear, 'GP0').text.anchor).toBe('end');
  expect(rear.items.every((item) => item.is === 'body' || (item.is === 'feature' && item.what === 'hole'))).toBe(true);
  for (const one of [...boards.map(boardFace), ...parts.map(partFace)]) {
    const twice = rearFace(rearFace(one));
    expect(twice.pads.map(({ id, x, y, text }) => [id, x, y, text])).toEqual(one.pads.map(({ id, x, y, text }) => [id, x, y, text]));
  }
});

/** How far two boxes lie over one another, in millimetres; 0 where they only touch. */
const overlap = (a: Box, b: Box): number =>
  Math.max(0, Math.min(a.x + a.w, b.x + b.w) - Math.max(a.x, b.x)) * Math.max(0, Math.min(a.y + a.h, b.y + b.h) - Math.max(a.y, b.y));
const isWithin = (outer: Box, inner: Box): boolean =>
  inner.x >= outer.x - 0.01 &&
  inner.y >= outer.y - 0.01 &&
  inner.x + inner.w <= outer.x + outer.w + 0.01 &&
  inner.y + inner.h <= outer.y + outer.h + 0.01;

/** Their legs are under them. */
const OVER_LEGS = new Set(['button-push', 'buzzer-active', 'buzzer-passive']);
const outlined = parts.filter(({ shape }) => shape?.body === 'board' && shape.widthMm !== undefined).filter(({ id }) => !OVER_LEGS.has(id));

test.each(outlined.map((sheet) => [sheet.id, sheet] as const))(
  '%s: what is on it lies within its outline, beside its pins and labels',
  (_, sheet) => {
    const { items, pads } = partFace(sheet);
    const body = items.find((item) => item.is === 'body') as Box;
    const fronts = items.filter((item) => item.is !== 'body' && item.is !== 'notch' && item.is !== 'marking') as (Box & { is: string })[];
    for (const pad of pads) {
      const hole = { x: pad.x - 0.8, y: pad.y - 0.8, w: 1.6, h: 1.6 };
      expect([pad.label, isWithin(body, hole), isWithin(body, textBox(pad))]).toEqual([pad.label, true, true]);
      for (const front of fronts)
        expect([front.is, pad.label, overlap(front, hole), overlap(front, textBox(pad))]).toEqual([front.is, pad.label, 0, 0]);
    }
    for (const front of fronts) expect([front.is, isWithin(body, front)]).toEqual([front.is, true]);
  },
);
