import fc from 'fast-check';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { shippedSheets } from '../../../tests/catalogue';
import { corpusPlans } from '../../../tests/corpus';
import { add, edited, shield, stick, wire, wired } from '../../../tests/makePlan';
import { isPlain, knownNets } from '../../../tests/plainNets';
import { wiredPlan } from '../../../tests/randomPlans';
import { isSoak, runs } from '../../../tests/runs';
import { readBackWiring } from '../../../tests/wiringReadBack';
import { findNets } from '../../nets/nets';
import { boardOf } from '../../plan/edit';
import type { Plan } from '../../plan/plan';
import { additionOf } from '../../review/addition';
import { indexSheets } from '../../sheets/sheetIndex';
import { orderByPairs } from './orderByPairs';
import { faceShapes } from '../../faces/faceShapes';
import { moduleFace } from './moduleFace';
import { moveModule } from './moveModule';
import { measureWiring } from './wiringMeasures';
import { wiringPicture } from './wiringPicture';
import { wiringSvg } from './wiringSvg';
import { conductorText } from '../../text/views/wiringText';

const sheets = shippedSheets();
const PAGE = join(__dirname, '../../../../../docs/wiring.md');
const DEMOS = ['ferry-dial', 'hive-watch', 'proofing-box', 'workbench-scoreboard'];

/** The nets of a plan as the checks see them, without what is soldered to the board. */
function netsOf(plan: Plan): readonly string[] {
  const board = boardOf(plan, sheets)!;
  const soldered = new Set(plan.placements.filter(({ onBoard }) => onBoard).map(({ id }) => id));
  return (
    findNets(plan, sheets)
      // A chip port that no header brings out has no place in the picture.
      .list.filter(
        ({ terminals, ground, rails, pins }) =>
          terminals.length > 1 || ground || rails.length > 0 || pins.some((pin) => board.pins.get(pin)?.header),
      )
      .map(({ terminals }) => terminals.filter(({ placement }) => !soldered.has(placement.id)).map(({ key }) => key))
      .filter((keys) => keys.length > 0)
      .map((keys) => keys.toSorted().join(' '))
      .toSorted()
  );
}

const isWriting = process.env['ROOF_CHART_WRITE'] !== undefined;
/** To add a part as the application does takes a moment; all fifty are measured under `npm run soak`. */
const random = Array.from({ length: isSoak || isWriting ? 50 : 10 }, (_, at) => wiredPlan(sheets, at + 1, [3, 12]));

test('an eye that follows the lines reads the nets of the plan', () => {
  const plans = [...corpusPlans().values(), ...random].filter(isPlain);
  expect(plans.length).toBeGreaterThan(100);
  for (const plan of plans) {
    const read = knownNets(plan, sheets, readBackWiring(plan, sheets, wiringPicture(plan, sheets)!));
    expect([plan.name, read]).toEqual([plan.name, netsOf(plan)]);
  }
});

test('no line lies on a line of another conductor or ends at one', () => {
  for (const plan of [...corpusPlans().values(), ...random])
    expect([plan.name, measureWiring(wiringPicture(plan, sheets)!).overlaps]).toEqual([plan.name, 0]);
});

test('a transistor, its resistor and a divider are modules between the wire and its pin', () => {
  const plan = edited(stick(), sheets, add('lamp', 'led-red-5mm'), wire('lamp:A', 'GP2'), wire('lamp:K', 'ground'), {
    kind: 'driver',
    placement: 'lamp',
    terminal: 'A',
    driver: { kind: 'pnp', ohms: 1000 },
  });
  const picture = wiringPicture(plan, sheets)!;
  expect(picture.modules.map(({ module }) => module.component?.name ?? module.id)).toEqual(['lamp', 'Q1', 'R1']);
  expect(picture.conductors.map((one) => conductorText(plan, sheets, one)).toSorted()).toEqual(
    ['3V3: Q1', 'GND: lamp cathode', 'GP2: R1', 'Q1: Q1, R1', 'lamp anode: lamp anode, Q1'].toSorted(),
  );
});

test('one more part leaves the others on their sides and in their order', () => {
  for (const id of DEMOS) {
    const plan = corpusPlans().get(id)!;
    for (const part of ['led-red-5mm', 'potentiometer', 'motion-mpu6050']) {
      const more = additionOf(plan, sheets, sheets.parts.get(part)!.sheet)!.plan;
      const orderIn = (of: Plan) =>
        wiringPicture(of, sheets)!.modules.flatMap(({ module, side }) =>
          plan.placements.some((one) => one.id === module.id) ? [`${side} ${module.id}`] : [],
        );
      expect([id, part, orderIn(more)]).toEqual([id, part, orderIn(plan)]);
    }
  }
});

test('a part moves up, down, across and turns, and the picture still has its nets', () => {
  const plan = corpusPlans().get('hive-watch')!;
  const column = (of: Plan, side: string) =>
    wiringPicture(of, sheets)!
      .modules.filter((one) => one.side === side && !one.module.component)
      .map(({ module }) => module.id);
  const sideOf = (of: Plan, id: string) => wiringPicture(of, sheets)!.modules.find(({ module }) => module.id === id)!.side;
  for (const { id } of plan.placements)
    for (const how of ['up', 'down', 'across', 'turn'] as const) {
      const edit = moveModule(plan, sheets, id, how);
      const side = sideOf(plan, id);
      const before = column(plan, side);
      const at = before.indexOf(id);
      if (!edit) {
        expect([how, at]).toEqual(how === 'up' ? ['up', 0] : ['down', before.length - 1]);
        continue;
      }
      const after = edited(plan, sheets, edit);
      const others = before.filter((one) => one !== id);
      const step = how === 'up' ? -1 : how === 'down' ? 1 : 0;
      expect(column(after, side)).toEqual(how === 'across' ? others : others.toSpliced(at + step, 0, id));
      expect(sideOf(after, id) === side).toBe(how !== 'across');
      expect([id, how, readBackWiring(after, sheets, wiringPicture(after, sheets)!)]).toEqual([
        id,
        how,
        readBackWiring(plan, sheets, wiringPicture(plan, sheets)!),
      ]);
      expect(measureWiring(wiringPicture(after, sheets)!).overlaps).toBe(0);
    }
  // Turned twice is as before, but stays where it is.
  const turn = (of: Plan) => edited(of, sheets, moveModule(of, sheets, 'motion-1', 'turn')!);
  const pins = (of: Plan) => [
    ...wiringPicture(of, sheets)!
      .modules.find(({ module }) => module.id === 'motion-1')!
      .at.values(),
  ];
  expect(pins(turn(plan))).toEqual(pins(plan).toReversed());
  expect(pins(turn(turn(plan)))).toEqual(pins(plan));
  expect(moveModule(plan, sheets, 'nothing', 'turn')).toBeUndefined();
});

test('names of any length and hostile labels are text in the file', () => {
  const name = '</text><script>alert(1)</script> & "quoted" '.repeat(2).trim();
  const plan = edited(shield(), sheets, add('a', 'oled-096-ssd1306-i2c', name.slice(0, 60)), wire('a:SDA', 'A4'));
  const svg = wiringSvg(plan, sheets)!;
  expect(svg).not.toContain('<script');
  expect(svg).toContain('&lt;/text&gt;');
  expect(svg.match(/<svg/g)).toHaveLength(1);
  expect(wiringSvg(stick(), sheets)).toBeUndefined();
});

test('a board whose pins no header brings out is an outline without pins', () => {
  const { sheet } = sheets.boards.get('rp2040-stick-40')!;
  const list = sheet.pins.list.map(({ header: _header, position: _position, ...pin }) => pin);
  const bare = indexSheets([{ ...sheet, pins: { ...sheet.pins, list } }, ...[...sheets.parts.values()].map((part) => part.sheet)]);
  const plan = edited(stick(), sheets, ...wired('a', 'oled-096-ssd1306-i2c', { SDA: 'GP4', GND: 'ground' }));
  const picture = wiringPicture(plan, bare)!;
  expect([picture.pins, picture.lines]).toEqual([[], []]);
  for (const size of [picture.width, picture.height, picture.board.height]) expect(size).toBeGreaterThan(0);
});

test('an order by pairs is the best of all orders up to 13 items, and hardly worse beyond', () => {
  const permutations = (list: readonly number[]): number[][] =>
    list.length === 0 ? [[]] : list.flatMap((one) => permutations(list.filter((other) => other !== one)).map((rest) => [one, ...rest]));
  const costOf = (order: readonly number[], costs: readonly (readonly number[])[]) =>
    order.reduce((sum, one, at) => sum + order.slice(at + 1).reduce((all, later) => all + costs[one]![later]!, 0), 0);
  const square = (size: number) =>
    fc.array(fc.array(fc.nat(9), { minLength: size, maxLength: size }), { minLength: size, maxLength: size });
  fc.assert(
    fc.property(square(6), (costs) => {
      const best = Math.min(...permutations([0, 1, 2, 3, 4, 5]).map((order) => costOf(order, costs)));
      expect(
        costOf(
          orderByPairs(6, (a, b) => costs[a]![b]!),
          costs,
        ),
      ).toBe(best);
    }),
    { numRuns: runs(20) },
  );
  fc.assert(
    fc.property(square(16), (costs) => {
      const order = orderByPairs(16, (a, b) => costs[a]![b]!);
      expect(order.toSorted((a, b) => a - b)).toEqual(Array.from({ length: 16 }, (_, at) => at));
      const exact = orderByPairs(13, (a, b) => costs[a]![b]!);
      const cut = order.filter((one) => one < 13);
      expect(costOf(cut, costs)).toBeLessThanOrEqual(1.25 * costOf(exact, costs) + 6);
    }),
    { numRuns: runs(20) },
  );
});

test('measures of the demos, of 50 random plans and of a large one are those of the committed table', () => {
  const rows = [
    ...DEMOS.map((id) => corpusPlans().get(id)!),
    ...(random.length === 50 ? [{ ...wiredPlan(sheets, 4, [30, 30]), name: 'Random, large' }] : []),
    ...random,
  ].map((plan) => {
    const picture = wiringPicture(plan, sheets)!;
    const { crossings, bends, overlaps, length } = measureWiring(picture);
    const wires = Object.keys(plan.wires).length;
    const size = `${Math.round(picture.width)} × ${Math.round(picture.height)}`;
    return `| ${plan.name} | ${plan.placements.length} | ${wires} | ${crossings} | ${bends} | ${overlaps} | ${Math.round(length / 10) / 100} | ${size} |`;
  });
  const page = [
    '# Wiring pictures, measured',
    '',
    'Generated by `npm run docs:wiring` from the lines of each picture, whatever routed them; a test fails when a line changes. Crossings are of',
    'lines of different nets, the bars of supplies with them; bends are corners and branches; overlaps would read as connections. Length in',
    'thousands of pixels, size in pixels.',
    '',
    '| Plan | Parts | Wires | Crossings | Bends | Overlaps | Length | Size |',
    '| --- | --: | --: | --: | --: | --: | --: | --- |',
    ...rows,
    '',
  ].join('\n');
  if (isWriting) writeFileSync(PAGE, page);
  const committed = readFileSync(PAGE, 'utf8').split('\n');
  expect(page.split('\n').filter((line) => !committed.includes(line))).toEqual([]);
  if (random.length === 50) expect(page.split('\n')).toEqual(committed);
});

test('the saved picture has the front of every module as it is on the screen, to its scale', () => {
  const plan = corpusPlans().get('hive-watch')!;
  const svg = wiringSvg(plan, sheets)!;
  const fronts = wiringPicture(plan, sheets)!.modules.flatMap((placed) => {
    const part = placed.module.component
      ? undefined
      : sheets.parts.get(plan.placements.find(({ id }) => id === placed.module.id)!.sheet.id);
    return part ? [moduleFace(part.sheet, placed)] : [];
  });
  const drawn = fronts.flatMap((face) => (face ? [face] : []));
  expect(drawn.length).toBeGreaterThan(5);
  for (const { items, view, place } of drawn) {
    const scale = place.w / view.w;
    expect(svg).toContain(`<g transform="translate(${place.x} ${place.y}) scale(${scale}) translate(${-view.x} ${-view.y})">`);
    for (const one of faceShapes(items, false)) if (one.shape === 'path') expect(svg).toContain(`<path d="${one.d}"`);
  }
  expect(svg).not.toMatch(/NaN|undefined|Infinity/);
});

test('a supply is brought from the pin that is named as it is, before one with another name', () => {
  const plan = edited(shield(), sheets, add('s', 'servo-micro'), wire('s:VCC', 'rail 5v'), wire('s:GND', 'ground'), wire('s:SIG', 'D9'));
  const supply = wiringPicture(plan, sheets)!.conductors.find(({ id }) => id === 'rail:5v')!;
  expect(supply.pins).toEqual([['5V', 'ISP2', 'IOREF']]);
});
