import { shippedSheets } from '../../../tests/catalogue';
import { corpusPlans } from '../../../tests/corpus';
import { add, edited, stick, wire } from '../../../tests/makePlan';
import { applyEdits } from '../../plan/applyEdits';
import type { Edit } from '../../plan/edit';
import { notedSheets } from '../../sheets/notedSheets';
import { type Breadboard, newPlan, type Plan, splitKey } from '../../plan/plan';
import { planChanges } from '../../text/planChanges';
import { stepText } from '../../text/views/buildText';
import { stepHolesText } from '../../text/views/holeText';
import { buildList } from '../buildList';
import { buildProgress } from '../buildProgress';
import { componentsCsv } from '../componentTable';
import { wiresCsv, wiresMarkdown } from '../wireTable';
import { buildSheet, tickEdits } from '../buildSheet';
import { conductorOf, type Hole } from './breadboard';
import { holePicture } from './holePicture';
import { holePlan } from './holePlan';
import { holeSvg } from './holeSvg';
import { markedHoles } from './markedHoles';
import { moveItem } from './moveItem';
import { lockedWithoutRoom, placeHoles } from './placeHoles';
import { ROW_DISTANCES_MM, rowDistanceEdit } from './rowDistance';
import { holesOfComponent, holesOfWire } from './stepHoles';

const sheets = shippedSheets();
const BREADBOARD: Breadboard = { rows: 63, boards: 1, rails: 'whole' };
const BOARD: Edit = { kind: 'breadboard', breadboard: BREADBOARD };

function laid(plan: Plan, ...first: readonly Edit[]): Plan {
  const begun = edited(plan, sheets, BOARD, ...first);
  return edited(begun, sheets, ...placeHoles(begun, sheets, 'all', 2000)!.edits);
}

/** An LED with its resistor, a button and a display, on an RP2040 stick. */
const small = edited(
  stick(),
  sheets,
  add('lamp', 'led-red-5mm', 'Lamp'),
  wire('lamp:A', 'GP15'),
  wire('lamp:K', 'ground'),
  { kind: 'series', placement: 'lamp', terminal: 'A', ohms: 330 },
  add('oled', 'oled-096-ssd1306-i2c', 'OLED'),
  wire('oled:SDA', 'GP4'),
  wire('oled:SCL', 'GP5'),
  wire('oled:VCC', 'rail 3v3'),
  wire('oled:GND', 'ground'),
  { kind: 'pull', placement: 'oled', terminal: 'SDA', pull: { ohms: 4700, to: 'supply' } },
);

test('each wire names both holes: its own strip, and one that is joined to where it goes', () => {
  for (const plan of [laid(small), laid(corpusPlans().get('hive-watch')!)]) {
    const holes = holePlan(plan, sheets)!;
    const list = buildList(plan, sheets)!;
    for (const one of [...list.supplies, ...list.signals]) {
      const { placement, terminal } = splitKey(one.key);
      const leg = holes.items.find(({ id }) => id === placement)?.legs.find(({ id }) => id === terminal);
      const { jumpers, leads } = holesOfWire(plan, sheets, one)!;
      expect([one.key, jumpers.length + leads.length]).toEqual([one.key, 1]);
      // The wire of a resistor goes to the strip beside it.
      if (!leg || jumpers.length === 0 || one.components.length > 0) continue;
      const own = jumpers
        .flatMap(({ from, to }) => [from, to])
        .filter(({ half, row, at }) => at === 'strip' && half === leg.hole.half && row === leg.hole.row);
      expect([one.key, own.length]).toEqual([one.key, 1]);
    }
  }
});

test('a resistor lies between two strips, three rows apart or more; a pull-up from its line to the supply', () => {
  const plan = laid(small);
  const [from, to] = holesOfComponent(plan, sheets, 'lamp:series.A')!.legs.map(({ hole }) => hole);
  expect(Math.abs(from!.row - to!.row)).toBeGreaterThanOrEqual(3);
  const [line, supply] = holesOfComponent(plan, sheets, 'oled:pull.SDA')!.legs.map(({ hole }) => hole);
  const oled = holePlan(plan, sheets)!.items.find(({ id }) => id === 'oled')!;
  const rowOf = (leg: string) => oled.legs.find(({ id }) => id === leg)!.hole.row;
  expect([line!.row, supply!.row]).toEqual([rowOf('SDA'), rowOf('VCC')]);
});

test('the build sheet plugs in first, feeds the rails, has no junctions, and says the holes of every step', () => {
  const plan = laid(small);
  const sections = buildSheet(plan, sheets)!;
  expect(sections.map(({ id }) => id).slice(0, 2)).toEqual(['safety', 'breadboard']);
  expect(sections.some(({ id }) => id === 'joints')).toBe(false);
  const texts = sections.flatMap(({ steps }) => steps.map((step) => stepText(plan, sheets, step)));
  const find = (head: string) => texts.find((one) => one.head === head)!;
  expect(find('RP2040 stick, 40 pins').text).toBe('rows 1 to 20: VBUS in 1 c, GP16 in 20 c, GP0 in 1 h and GP15 in 20 h');
  expect(find('OLED').text).toMatch(/^rows \d+ to \d+: GND in \d+ j and SDA in \d+ j$|^rows \d+ to \d+: SDA in \d+ a and GND in \d+ a$/);
  expect(texts.some(({ head, text }) => head === '3V3' && /^red jumper 5 [ab] → \+ rail/.test(text))).toBe(true);
  expect(find('OLED SCL').holes).toMatch(/^Jumper (?:7 [ij]|\d+ [a-j]) → \d+ [a-j]$/);
  expect(find('OLED SCL').detail).not.toContain('junction');
  expect(find('Lamp cathode').holes).toMatch(/^Jumper \d+ [a-j] → − rail (?:a–e|f–j), row \d+$/);
  expect(find('R1').holes).toMatch(/^Legs in \d+ [a-j] and \d+ [a-j]$/);
  // Without a breadboard nothing of it is said.
  const plain = buildSheet(small, sheets)!;
  expect(plain.some(({ id }) => id === 'breadboard')).toBe(false);
  expect(plain.flatMap(({ steps }) => steps.map((step) => stepText(small, sheets, step).holes)).filter(Boolean)).toEqual([]);
});

test('tables of wires and components have a column for the holes, without a breadboard none', () => {
  const plan = laid(small);
  const [head, ...rows] = wiresCsv(plan, sheets)!.trim().split('\r\n');
  expect(head).toMatch(/,Holes$/);
  for (const row of rows) expect(row).toMatch(/,jumper \d+ [a-j] → |,"jumper \d+ [a-j] → . rail/);
  expect(componentsCsv(plan, sheets)).toMatch(/,legs in \d+ [a-j] and \d+ [a-j]\r\n/);
  expect(wiresCsv(small, sheets)).not.toContain('Holes');
  expect(wiresMarkdown(plan, sheets)!.split('\n')[2]).toMatch(/Holes \|$/);
});

test('a moved part is a step that is not done; the rest makes room and stays where it is locked', () => {
  const before = laid(small);
  const plug = (plan: Plan) =>
    buildSheet(plan, sheets)!
      .flatMap(({ steps }) => steps)
      .find(({ id }) => id === 'plug:oled')!;
  const done = edited(before, sheets, { kind: 'step', step: 'plug:oled', done: plug(before).value });
  expect(plug(done).done).toBe(true);
  const moved = laid(done, { kind: 'place', item: 'oled', place: { side: 'ae', row: 40, locked: true } });
  expect(plug(moved).done).toBe(false);
  expect(holePlan(moved, sheets)!.items.find(({ id }) => id === 'oled')).toMatchObject({ side: 'ae', row: 40, locked: true });
  expect(holePlan(moved, sheets)!.unplaced).toEqual([]);
  // On the board there is no room.
  const onBoard = edited(before, sheets, { kind: 'place', item: 'oled', place: { side: 'fj', row: 5, locked: true } });
  expect(holePlan(onBoard, sheets)!.unplaced).toEqual(['oled']);
});

test('what is locked where it has no room stops the placing and is named; nothing is moved elsewhere instead', () => {
  const before = laid(small);
  const onBoard = edited(before, sheets, { kind: 'place', item: 'oled', place: { side: 'fj', row: 5, locked: true } });
  expect(lockedWithoutRoom(onBoard, sheets)).toEqual(['oled']);
  expect(placeHoles(onBoard, sheets)).toBeUndefined();
  // A board that is moved by the user stays there when the others are placed.
  const shifted = laid(before, { kind: 'place', item: 'board', place: { side: 'across', row: 10, locked: true } });
  const at = (plan: Plan) => holePlan(plan, sheets)!.items.find(({ id }) => id === 'board')!.row;
  expect(at(shifted)).toBe(10);
  expect(at(laid(shifted, { kind: 'place', item: 'board', place: { side: 'across', row: 10 } }))).toBe(10);
});

test('an item is moved by rows within the breadboard, or to the other half', () => {
  const plan = laid(small);
  const oled = holePlan(plan, sheets)!.items.find(({ id }) => id === 'oled')!;
  const place = (move: Parameters<typeof moveItem>[3], id = 'oled') => moveItem(plan, sheets, id, move);
  expect(place({ by: 1 })).toEqual({ kind: 'place', item: 'oled', place: { side: oled.side, row: oled.row + 1, locked: true } });
  expect(place({ to: 200 })).toMatchObject({ place: { row: 63 } });
  expect(place({ by: -200 })).toMatchObject({ place: { row: 1 } });
  expect(place('across')).toMatchObject({ place: { side: oled.side === 'ae' ? 'fj' : 'ae', row: oled.row } });
  expect(place('across', 'board')).toMatchObject({ place: { side: 'turned' } });
  expect([place({ by: 1 }, 'nothing'), moveItem(small, sheets, 'oled', { by: 1 })]).toEqual([undefined, undefined]);
});

test('legs that are not alike are named with their holes, and are in the nets that they belong to', () => {
  const plan = laid(
    edited(small, sheets, add('motor', 'relay-coil-5v'), wire('motor:A1', 'rail vbus'), wire('motor:A2', 'GP10'), {
      kind: 'driver',
      placement: 'motor',
      terminal: 'A2',
      driver: { kind: 'npn', ohms: 1000, legs: 'CBE' },
    }),
  );
  const textOf = (id: string) => stepHolesText(plan, sheets, holesOfComponent(plan, sheets, id));
  expect(textOf('motor:diode.A2')).toMatch(/^cathode in \d+ [a-j] and anode in \d+ [a-j]$/);
  const transistor = textOf('motor:transistor.A2');
  const row = (leg: string) => Number(new RegExp(`${leg} in (\\d+)`).exec(transistor)![1]);
  // Side by side, the base in the middle.
  expect(row('base') * 2).toBe(row('collector') + row('emitter'));
  expect(textOf('motor:base.A2')).toMatch(/^legs in /);
  // The ring of the diode is at the supply of the coil, its other end at the collector.
  const holes = holePlan(plan, sheets)!;
  const [cathode, anode] = holesOfComponent(plan, sheets, 'motor:diode.A2')!.legs.map(({ hole }) => hole);
  const netAt = (hole: Hole | undefined) => {
    const isIn = (other: Hole) => conductorOf(BREADBOARD, other) === conductorOf(BREADBOARD, hole!);
    return [
      ...holes.jumpers.filter(({ from, to }) => isIn(from) || isIn(to)),
      ...holes.leads.filter(({ to }) => to.at === 'hole' && isIn(to.hole)),
    ][0]?.net;
  };
  expect(netAt(cathode)).toBe('rail:vbus');
  expect(netAt(anode)).toBe(holes.nets.get('motor:transistor.A2 2'));
});

test('what does not fit is left off, with what it would take; what is left off by choice is on leads', () => {
  const narrow = edited(corpusPlans().get('hive-watch')!, sheets, {
    kind: 'breadboard',
    breadboard: { rows: 30, boards: 1, rails: 'whole' },
  });
  const found = placeHoles(narrow, sheets, 'all', 50)!;
  expect(found.tooMuch.length).toBeGreaterThan(2);
  expect(found.larger).toMatchObject({ rows: 63, boards: 1 });
  const off = laid(small, { kind: 'place', item: 'oled', place: { side: 'off', locked: true } });
  const holes = holePlan(off, sheets)!;
  expect(holes.off).toEqual([{ id: 'oled', why: 'chosen' }]);
  expect(holes.leads.map(({ end }) => `${end.module} ${end.terminal}`).toSorted()).toEqual([
    'oled GND',
    'oled SCL',
    'oled SDA',
    'oled VCC',
  ]);
});

test('on a breadboard that is far too small everything that has room is placed, and the rest is on leads', () => {
  const begun = edited(
    corpusPlans().get('hive-watch')!,
    sheets,
    { kind: 'breadboard', breadboard: { rows: 30, boards: 1, rails: 'whole' } },
    { kind: 'place', item: 'encoder-1', place: { side: 'fj', row: 24, locked: true } },
  );
  const found = placeHoles(begun, sheets, 'all', 500)!;
  const plan = edited(begun, sheets, ...found.edits);
  const holes = holePlan(plan, sheets)!;
  expect(holes.unplaced).toEqual([]);
  expect(holes.items.map(({ id }) => id)).toEqual(expect.arrayContaining(['board', 'encoder-1']));
  expect(found.tooMuch).toEqual(expect.arrayContaining(['display-1', 'motion-1', 'clock-1']));
  // With a larger one they come back: only what the user has left off stays off.
  const larger = edited(plan, sheets, { kind: 'breadboard', breadboard: found.larger! });
  expect(placeHoles(larger, sheets, 'all', 500)!.tooMuch).toEqual([]);
});

test('around a bare chip its supplies, crystal, capacitors and programming connector have their holes', () => {
  const chip = edited(
    newPlan('chip', 'Chip', { id: 'atmega32a-5v-dip-40', version: 1 }),
    sheets,
    add('lamp', 'led-red-5mm', 'Lamp'),
    wire('lamp:A', 'PB0'),
    wire('lamp:K', 'ground'),
  );
  const plan = laid(chip);
  const sections = buildSheet(plan, sheets)!;
  const texts = sections.find(({ id }) => id === 'chip')!.steps.map((step) => stepText(plan, sheets, step));
  const { chipCircuit } = sheets.boards.get('atmega32a-5v-dip-40')!.sheet;
  for (const { name } of chipCircuit!.components)
    expect([name, texts.find(({ head }) => head === name)?.holes]).toEqual([name, expect.stringMatching(/^Legs in /)]);
  for (const { name } of chipCircuit!.connectors!)
    expect(texts.find(({ head }) => head === name)!.holes).toMatch(/^Pin 1 in row \d+ (?:a–e|f–j)/);
  expect(texts[0]!.holes).toMatch(/^Jumpers? \d+ [a-j] → − rail/);
  // VCC and AVCC, with no part on them.
  for (const { text, holes } of texts.filter((one) => /supply rail/.test(one.text)))
    expect([text, holes]).toEqual([text, expect.stringMatching(/^Jumpers? \d+ [a-j] → /)]);
  expect(texts.filter(({ text }) => /supply rail/.test(text)).length).toBeGreaterThan(0);
  // Both legs of the crystal are at its pins.
  const crystal = chipCircuit!.components.find(({ kind }) => kind === 'crystal')!;
  const holes = holePlan(plan, sheets)!;
  const rows = holes.bridges.find(({ name }) => name === crystal.name)!.holes.map(({ half, row }) => `${half} ${row}`);
  const pins = crystal.ends.map((pin) => holes.items[0]!.legs.find(({ id }) => id === pin)!.hole).map(({ half, row }) => `${half} ${row}`);
  expect(rows.toSorted()).toEqual(pins.toSorted());
});

test('marks show a part with its signals, one wire with both ends, or a whole net', () => {
  const plan = laid(small);
  const part = markedHoles(plan, sheets, 'part oled')!;
  expect([part.items.size, part.strips.size]).toEqual([1, 4]);
  expect([...part.nets]).toEqual(expect.arrayContaining(['pin:GP4', 'pin:GP5']));
  expect(part.nets.has('ground')).toBe(false);
  expect(markedHoles(plan, sheets, 'wire oled:SCL')!.strips.size).toBe(2);
  expect([...markedHoles(plan, sheets, 'wire oled:SCL')!.nets]).toEqual(['pin:GP5']);
  expect([...markedHoles(plan, sheets, 'wire oled:GND')!.nets]).toEqual([]);
  expect(markedHoles(plan, sheets, 'net pin:GP5')!.strips.size).toBe(2);
  for (const mark of [null, 'part nothing', 'wire oled', 'wire oled:NONE', 'rubbish'])
    expect(markedHoles(plan, sheets, mark)).toBeUndefined();
});

test('the picture shows every leg and jumper; hostile names are text in the file', () => {
  const plan = laid(edited(small, sheets, { kind: 'rename-placement', placement: 'oled', name: '</text><script>alert(1)</script>' }));
  const holes = holePlan(plan, sheets)!;
  const { shapes, width, height } = holePicture(plan, sheets)!;
  const circles = (role: string) => shapes.filter((shape) => shape.is === 'circle' && shape.role === role);
  expect(circles('leg')).toHaveLength(holes.items.flatMap(({ legs }) => legs).length);
  expect(circles('wire')).toHaveLength(2 * holes.jumpers.length);
  for (const shape of shapes)
    for (const [x, y] of shape.is === 'line' ? shape.points : [[shape.x, shape.y] as const]) {
      expect(x >= 0 && x <= width + 1 && y >= 0 && y <= height).toBe(true);
    }
  const svg = holeSvg(plan, sheets)!;
  expect(svg).not.toContain('<script');
  expect(svg).toContain('&lt;/text&gt;');
  expect([holeSvg(small, sheets), holePicture(small, sheets), placeHoles(small, sheets)]).toEqual([undefined, undefined, undefined]);
});

test('a place is refused for what is no part of the plan, and goes and comes back with its part', () => {
  const refused = applyEdits(small, [{ kind: 'place', item: 'nothing', place: { side: 'fj', row: 30 } }], sheets);
  expect(refused).toMatchObject({ ok: false, problem: { path: 'item' } });
  const plan = laid(small);
  const gone = applyEdits(plan, [{ kind: 'remove-placement', placement: 'oled' }], sheets);
  if (!gone.ok) throw new Error('refused');
  expect(Object.keys(gone.plan.places).filter((item) => item.startsWith('oled'))).toEqual([]);
  const back = applyEdits(gone.plan, gone.inverse, sheets);
  expect(back.ok && back.plan.places).toEqual(plan.places);
});

test('a row distance that was measured puts a module on the breadboard, one that no breadboard has does not', () => {
  const shifter = edited(small, sheets, add('shifter', 'shifter-mosfet-4', 'Shifter'), wire('shifter:GND', 'ground'));
  const measured = (mm: number): Edit => rowDistanceEdit(shifter, 'shifter', mm, '2026-12-01')!;
  const placed = (plan: Plan) => {
    const noted = notedSheets(sheets, plan.benchNotes);
    const board = edited(plan, noted, BOARD);
    const done = edited(board, noted, ...placeHoles(board, noted, 'all', 300)!.edits);
    const { items, off } = holePlan(done, noted)!;
    return items.find(({ id }) => id === 'shifter') ?? off.find(({ id }) => id === 'shifter')?.why;
  };
  expect(placed(shifter)).toBe('row distance unknown');
  expect(rowDistanceEdit(shifter, 'board', 10.16, '2026-12-01')).toBeUndefined();
  for (const pitches of [4, 5, 6]) {
    const item = placed(edited(shifter, sheets, measured(ROW_DISTANCES_MM[pitches - 3]!)));
    if (typeof item !== 'object') throw new Error(item);
    expect([pitches, item.legs.length, ['across', 'turned'].includes(item.side)]).toEqual([pitches, 12, true]);
    const columns = ['ae', 'fj'].map(
      (half) => new Set(item.legs.flatMap(({ hole }) => (hole.at === 'strip' && hole.half === half ? [hole.column] : []))),
    );
    const [upper, lower] = columns.map((one) => [...one][0]!);
    expect([columns.map(({ size }) => size), 7 + lower! - upper!]).toEqual([[1, 1], pitches]);
  }
  expect([11, 45.72].map((mm) => placed(edited(shifter, sheets, measured(mm))))).toEqual(['irregular', 'rows too far apart']);
});

test('what is marked done was done in its holes: in others it is not, and back in them it is again', () => {
  const plan = laid(small);
  const stepsOf = (of: Plan) => buildSheet(of, sheets)!.flatMap(({ steps }) => steps);
  const wired = (of: Plan) => stepsOf(of).filter(({ what }) => what.is === 'wire' || what.is === 'component');
  const ticked = edited(plan, sheets, ...wired(plan).flatMap((step) => tickEdits(plan, step, true)));
  expect(wired(ticked).map(({ done }) => done)).toEqual(wired(plan).map(() => true));
  const lamp = holePlan(ticked, sheets)!.items.find(({ id }) => id === 'lamp')!;
  const moved = edited(ticked, sheets, moveItem(ticked, sheets, 'lamp', { to: 58 })!);
  const redone = wired(moved).filter(({ done }) => !done);
  expect([buildProgress(ticked, sheets), buildProgress(moved, sheets)]).toEqual([
    { wires: 6, ticked: 6 },
    { wires: 6, ticked: 4 },
  ]);
  expect(redone.map(({ id }) => id).sort()).toEqual(['component:lamp:series.A', 'wire:lamp:A', 'wire:lamp:K']);
  const text = stepText(
    moved,
    sheets,
    redone.find(({ id }) => id === 'wire:lamp:K')!,
  );
  const was = wired(plan).find(({ id }) => id === 'wire:lamp:K')!.value;
  expect(text.detail).toContain(`moved since it was marked done (was ${was})`);
  // The list of changes names the tick once.
  const one = wired(plan).find(({ id }) => id === 'wire:lamp:K')!;
  expect(planChanges(plan, edited(plan, sheets, ...tickEdits(plan, one, true)), sheets)).toEqual(['wire of Lamp cathode marked done']);
  expect(wired(edited(moved, sheets, moveItem(moved, sheets, 'lamp', { to: lamp.row })!)).every(({ done }) => done)).toBe(true);
  // Marked again, it is done here; marked as not done, nothing is left of it.
  const again = edited(moved, sheets, ...redone.flatMap((step) => tickEdits(moved, step, true)));
  expect(wired(again).every(({ done }) => done)).toBe(true);
  const none = edited(again, sheets, ...wired(again).flatMap((step) => tickEdits(again, step, false)));
  expect([Object.keys(none.ticks), Object.keys(none.steps).filter((id) => /^(wire|component):/.test(id))]).toEqual([[], []]);
});

test('a wire or component that was marked before there were holes stays done', () => {
  const ticks = (plan: Plan) =>
    buildSheet(plan, sheets)!
      .flatMap(({ steps }) => steps)
      .filter(({ what }) => what.is === 'wire' || what.is === 'component');
  const ticked = edited(small, sheets, ...ticks(small).flatMap((step) => tickEdits(small, step, true)));
  expect(Object.keys(ticked.steps).every((id) => !id.startsWith('wire:'))).toBe(true);
  const onBoard = laid(ticked);
  expect(ticks(onBoard).every(({ done }) => done)).toBe(true);
  // And what was marked in holes is done without a breadboard.
  const placed = laid(small);
  const inHoles = edited(placed, sheets, ...ticks(placed).flatMap((step) => tickEdits(placed, step, true)));
  expect(ticks(edited(inHoles, sheets, { kind: 'breadboard', breadboard: null })).every(({ done }) => done)).toBe(true);
});
