import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { shippedSheets } from '../../tests/catalogue';
import { corruptedPlan } from '../../tests/corruptedPlan';
import { add, edited, stick, wire } from '../../tests/makePlan';
import { runs } from '../../tests/runs';
import { findNets } from '../nets/nets';
import { readPlanFile } from '../plan/planFile';
import { newPlan, type Plan, sameEnd, terminalKey } from '../plan/plan';
import { endTerminal } from '../plan/planRails';
import { partSheet } from '../sheets/sheetIndex';
import { buildList } from './buildList';
import { billOf } from './bill';
import { buildSheet, builtNow, changesSinceBuilt, SECTIONS } from './buildSheet';

const sheets = shippedSheets();
const demo = (id: string): Plan => {
  const read = readPlanFile(JSON.parse(readFileSync(join(__dirname, `../../../../demo/plans/${id}.json`), 'utf8')));
  if (!read.ok) throw new Error(read.fault);
  return read.file.plan;
};

test.each(['hive-watch', 'proofing-box', 'ferry-dial', 'workbench-scoreboard'])(
  'the build of %s has every wire once, in the order of work',
  (id) => {
    const plan = demo(id);
    const sections = buildSheet(plan, sheets)!;
    expect(sections.map((s) => SECTIONS.indexOf(s.id))).toEqual(sections.map((s) => SECTIONS.indexOf(s.id)).toSorted((a, b) => a - b));
    const steps = sections.flatMap((s) => s.steps);
    expect(new Set(steps.map((s) => s.id)).size).toBe(steps.length);
    const soldered = plan.placements.filter((p) => p.onBoard).map((p) => p.id);
    const wires = Object.keys(plan.wires).filter((key) => !soldered.includes(key.split(':')[0]!));
    expect(steps.flatMap((s) => (s.what.is === 'wire' ? [s.what.wire.key] : [])).toSorted()).toEqual(wires.toSorted());
    // No position of the board takes two wires: what goes there twice is joined first.
    const all = steps.flatMap((s) => (s.what.is === 'wire' && s.what.wire.end.to !== 'terminal' ? [s.what.wire] : []));
    const legs = steps.flatMap(({ what }) => (what.is === 'component' ? what.component.ends.map(({ at }) => at) : []));
    for (const one of all) {
      // Legs of components at a rail or ground take a position, too.
      const there = [...all.map(({ end }) => end), ...legs.flatMap((at) => (at.to === 'rail' || at.to === 'ground' ? at : []))].filter(
        (end) => sameEnd(end, one.end),
      );
      // Two signals on a pin are a clash, which no joint mends.
      const clash = one.end.to === 'pin' && findNets(plan, sheets).byPin.get(one.end.pin)!.signals.length > 1;
      const joined = !clash && one.at.length > 0 && there.length > one.at.length;
      expect({ key: one.key, joined: one.joined }).toEqual({ key: one.key, joined: joined ? 'junction' : undefined });
      const joint = steps.find((s) => s.what.is === 'joint' && sameEnd(s.what.joint.end, one.end));
      expect(joint?.value).toBe(one.joined ? String(there.length) : undefined);
    }
    const joints = steps.flatMap(({ what }) => (what.is === 'joint' ? [what.joint.end] : []));
    const pins = joints.flatMap((one) =>
      one.to === 'pin' ? [sheets.boards.get(plan.board.id)!.sheet.pins.list.findIndex((p) => p.id === one.pin)] : [],
    );
    expect(pins).toEqual(pins.toSorted((a, b) => a - b));
    // Every step that is no wire can be kept in a plan file.
    const ticked = edited(
      plan,
      sheets,
      ...steps.flatMap((s) => (s.what.is === 'wire' ? [] : [{ kind: 'step' as const, step: s.id, done: s.value }])),
    );
    expect(readPlanFile(JSON.parse(JSON.stringify(ticked)))).toMatchObject({ ok: true });
    expect(
      buildSheet(ticked, sheets)!
        .flatMap((s) => s.steps)
        .every((s) => s.done || s.what.is === 'wire'),
    ).toBe(true);
  },
);

test('the operating system is told what to switch on, and what a resistor was is remembered', () => {
  const board = demo('workbench-scoreboard');
  const find = (plan: Plan, id: string) =>
    buildSheet(plan, sheets)!
      .flatMap((s) => s.steps)
      .find((s) => s.id === id);
  expect(find(board, 'enable:spi0')?.what).toMatchObject({ is: 'enable' });
  const box = demo('proofing-box');
  const step = buildSheet(box, sheets)!
    .flatMap((s) => s.steps)
    .find((s) => s.id.includes(':series.'))!;
  const done = edited(box, sheets, { kind: 'step', step: step.id, done: step.value });
  expect(find(done, step.id)!.done).toBe(true);
  const [, placement, what] = step.id.split(':') as [string, string, string];
  const terminal = what.split('.')[1]!;
  expect(find(edited(done, sheets, { kind: 'series', placement, terminal, ohms: 330 }), step.id)!.done).toBe(false);
});

test('a pin that takes more than its supply says on which condition', () => {
  const board = newPlan('p', 'P', { id: 'stm32f103-stick-40', version: 1 });
  const steps = (plan: Plan) =>
    buildSheet(plan, sheets)!
      .flatMap((section) => section.steps)
      .flatMap(({ what }) => (what.is === 'tolerance' ? [what] : []));
  const echo = (pin: string) =>
    edited(
      board,
      sheets,
      add('e', 'distance-ultrasonic-5v', 'Echo'),
      wire('e:VCC', 'rail 5v'),
      wire('e:GND', 'ground'),
      wire('e:ECHO', pin),
    );
  expect(steps(echo('B6'))).toMatchObject([{ pins: ['B6'], unless: expect.stringContaining('pull-up') as string }]);
  expect(steps(echo('B6'))[0]!.volts).toBeGreaterThan(4.9);
  // A pin that does not take it is an error, and no condition helps.
  expect(steps(echo('A0'))).toEqual([]);
});

test('what changed since it was built: taken off, moved, added; parts that are gone keep their name', () => {
  const plan = edited(
    stick(),
    sheets,
    add('a', 'button-push', 'Knob'),
    add('b', 'led-red-5mm', 'Lamp'),
    wire('a:C1', 'GP2'),
    wire('b:A', 'GP3'),
  );
  expect(changesSinceBuilt(plan, sheets)).toEqual([]);
  const built = edited(plan, sheets, { kind: 'built', built: builtNow(plan, sheets, '2026-11-26') });
  expect(changesSinceBuilt(built, sheets)).toEqual([]);
  const now = edited(
    built,
    sheets,
    { kind: 'unwire', placement: 'a', terminal: 'C1' },
    { kind: 'remove-placement', placement: 'a' },
    wire('b:A', 'GP6'),
    wire('b:K', 'ground'),
  );
  expect(changesSinceBuilt(now, sheets).map(({ do: what, name, from, to }) => [what, name, from, to])).toEqual([
    ['remove', expect.stringMatching(/^Knob /), 'GP2', undefined],
    ['move', 'Lamp anode', 'GP3', 'GP6'],
    ['add', 'Lamp cathode', undefined, 'GND'],
  ]);
});

test('another part under the id of one that was built has its own wires: those of the old one come off first', () => {
  const oled = edited(stick(), sheets, add('display-1', 'oled-096-ssd1306-i2c', 'OLED'), wire('display-1:SDA', 'GP4'));
  const built = edited(oled, sheets, { kind: 'built', built: builtNow(oled, sheets, '2026-11-26') });
  const other = edited(
    built,
    sheets,
    { kind: 'remove-placement', placement: 'display-1' },
    add('display-1', 'lcd-2004-pcf8574', 'LCD'),
    wire('display-1:SDA', 'GP4'),
  );
  expect(changesSinceBuilt(other, sheets).map(({ do: what, name, from, to }) => [what, name, from, to])).toEqual([
    ['remove', 'OLED SDA', 'GP4', undefined],
    ['add', 'LCD SDA', undefined, 'GP4'],
  ]);
  // A record of an earlier version does not say which part it was.
  const wires = Object.fromEntries(Object.entries(built.built!.wires).map(([key, { part: _part, ...own }]) => [key, own]));
  expect(changesSinceBuilt({ ...other, built: { date: '2026-11-26', wires } }, sheets)).toEqual([]);
});

test('the bill counts alike ones together, two resistors for the two lines of a bus', () => {
  const plan = edited(
    stick(),
    sheets,
    add('a', 'led-red-5mm'),
    add('b', 'led-red-5mm'),
    add('c', 'light-bh1750'),
    wire('a:A', 'GP2'),
    wire('b:A', 'GP3'),
    wire('c:SDA', 'GP4'),
    wire('c:SCL', 'GP5'),
    { kind: 'series', placement: 'a', terminal: 'A', ohms: 330 },
    { kind: 'series', placement: 'b', terminal: 'A', ohms: 330 },
    { kind: 'bus-settings', segment: 'i2c0', settings: { addedOhms: 4700 } },
    { kind: 'driver', placement: 'b', terminal: 'A', driver: { kind: 'npn', ohms: 1000 } },
  );
  expect(billOf(plan, sheets)).toEqual({
    parts: [
      { title: sheets.parts.get('led-red-5mm')!.sheet.title, count: 2, helper: false },
      { title: sheets.parts.get('light-bh1750')!.sheet.title, count: 1, helper: false },
    ],
    resistors: [
      { ohms: 330, count: 2, names: ['R1', 'R3'] },
      { ohms: 1000, count: 1, names: ['R2'] },
      { ohms: 4700, count: 2, names: ['R4', 'R5'] },
    ],
    trimmers: [],
    diodes: [],
    capacitors: [],
    transistors: [{ kind: 'npn', count: 1, names: ['Q1'] }],
    crystals: [],
    jumpers: expect.any(Array),
    connectors: [],
  });
});

/** The terminals of a plan that its build sheet says nothing about. */
function silentTerminals(plan: Plan): readonly string[] {
  const steps = buildSheet(plan, sheets)!.flatMap((section) => section.steps);
  const open = buildList(plan, sheets)!.open;
  const named = new Set<string>();
  const byLabel = (placement: string, label: string) => named.add(`${placement} ${label}`);
  for (const { what } of steps) {
    if (what.is === 'idle') for (const label of what.labels) byLabel(what.placement, label);
    if (what.is === 'others') for (const { label } of what.terminals) byLabel(what.placement, label);
    if (what.is === 'component')
      for (const { at } of what.component.ends)
        if (at.to === 'terminal')
          byLabel(
            at.placement,
            partSheet(sheets, plan.placements.find((p) => p.id === at.placement)!.sheet)!.terminals.get(at.terminal)!.label,
          );
    if (what.is !== 'wire') continue;
    byLabel(what.wire.placement, what.wire.label);
    const at = endTerminal(what.wire.end);
    if (!at) continue;
    const far = plan.placements.find((p) => p.id === at.placement)!;
    byLabel(far.id, partSheet(sheets, far.sheet)!.terminals.get(at.terminal)!.label);
  }
  for (const { placement, label } of open) byLabel(placement, label);
  return plan.placements
    .filter((placement) => !placement.onBoard)
    .flatMap((placement) =>
      partSheet(sheets, placement.sheet)!
        .sheet.terminals.list.filter(({ label }) => !named.has(`${placement.id} ${label}`))
        .map(({ id }) => terminalKey(placement.id, id)),
    );
}

test('every terminal of every part has a place on the build sheet: a wire, a tie, or the words that it has none', () => {
  for (const id of ['hive-watch', 'proofing-box', 'ferry-dial', 'workbench-scoreboard'])
    expect([id, silentTerminals(demo(id))]).toEqual([id, []]);
  fc.assert(
    fc.property(corruptedPlan(sheets), (plan) => expect(silentTerminals(plan)).toEqual([])),
    { numRuns: runs(60) },
  );
  // Every part of the library alone, without any wire.
  for (const part of sheets.parts.keys()) expect([part, silentTerminals(edited(stick(), sheets, add('x', part)))]).toEqual([part, []]);
});

test('a bare chip is built first: its supplies, components and connector, its fuses before power-up; the bill counts them', () => {
  const plan = edited(
    newPlan('plan-1', 'Test', { id: 'pic16f1829-5v-dip-20', version: 1 }),
    sheets,
    add('k', 'light-bh1750'),
    { kind: 'wire', placement: 'k', terminal: 'VCC', end: { to: 'rail', rail: '5v' } },
    { kind: 'wire', placement: 'k', terminal: 'GND', end: { to: 'ground' } },
  );
  const sections = buildSheet(plan, sheets)!;
  const steps = sections.flatMap((section) => section.steps);
  expect(sections[1]).toMatchObject({ id: 'chip' });
  expect(sections[1]!.steps.map(({ id }) => id)).toEqual(['chip:ground', 'chip:rail:5v', 'chip:C1', 'chip:R1', 'chip:J1']);
  expect(steps.filter(({ id }) => id.startsWith('fuses:'))).toHaveLength(2);
  // Its supplies meet on the breadboard; no junction is asked for besides.
  expect(steps.flatMap(({ what }) => (what.is === 'wire' ? [what.wire.joined] : []))).toEqual(['supply rail', 'supply rail']);
  expect(steps.some(({ what }) => what.is === 'joint')).toBe(false);
  expect(billOf(plan, sheets)).toMatchObject({
    // Two supply pins of the chip and two of the part.
    jumpers: [
      { colour: 'black', count: 2 },
      { colour: 'red', count: 2 },
    ],
    resistors: [{ ohms: 10000, count: 1 }],
    capacitors: [{ farads: 1e-7, count: 1 }],
    connectors: [{ title: 'ICSP header, 1×6', count: 1 }],
  });
  // Every step can be ticked and kept.
  const chip = steps.filter(({ id }) => /^(chip|fuses):/.test(id));
  const ticked = edited(plan, sheets, ...chip.map(({ id, value }) => ({ kind: 'step' as const, step: id, done: value })));
  expect(readPlanFile(JSON.parse(JSON.stringify(ticked)))).toMatchObject({ ok: true });
  expect(
    buildSheet(ticked, sheets)!
      .flatMap((section) => section.steps)
      .filter(({ done }) => done),
  ).toHaveLength(chip.length);
  // Where the reset input is a port, nothing pulls it.
  const port = edited(plan, sheets, add('b', 'button-push'), wire('b:C1', 'RA3'));
  expect(billOf(port, sheets)!.resistors).toEqual([]);
});

test.each(['hive-watch', 'ferry-dial'])('the bill of %s counts a wire for each connection and one for each junction', (id) => {
  const plan = demo(id);
  const steps = buildSheet(plan, sheets)!.flatMap((section) => section.steps);
  const wires = steps.filter(({ what }) => what.is === 'wire' || what.is === 'joint');
  // A resistor or transistor in a wire cuts it in two; a leg at a rail or ground has a wire of its own.
  const cut = steps.filter(({ what }) => what.is === 'wire' && what.wire.components.length > 0 && what.wire.end.to !== 'trimmer');
  const legs = steps.flatMap(({ what }) => (what.is === 'component' ? what.component.ends.map(({ at }) => at.to) : []));
  const supplied = legs.filter((to) => to === 'rail' || to === 'ground');
  expect(billOf(plan, sheets)!.jumpers.reduce((sum, { count }) => sum + count, 0)).toBe(wires.length + cut.length + supplied.length);
  const grounds = steps.filter(({ what }) =>
    what.is === 'wire' ? what.wire.colour === 'black' : what.is === 'joint' && what.joint.end.to === 'ground',
  );
  const black = grounds.length + legs.filter((to) => to === 'ground').length;
  const counts = billOf(plan, sheets)!.jumpers.flatMap(({ colour, count }) => (colour === 'black' ? [count] : []));
  expect(counts.reduce((sum, count) => sum + count, 0)).toBe(black);
});

test('a wire has a male end at a socket, a female end at pins that stand free, and none of either on a breadboard', () => {
  const on = (board: string, pin: string) => {
    const plan = edited(
      newPlan('plan-1', 'Test', { id: board, version: 1 }),
      sheets,
      add('l', 'led-red-5mm'),
      wire('l:A', pin),
      wire('l:K', 'ground'),
    );
    return billOf(plan, sheets)!.jumpers;
  };
  const ends = (boardEnd: string | undefined) => [
    { colour: 'black', boardEnd, count: 1 },
    { colour: expect.any(String) as string, boardEnd, count: 1 },
  ];
  expect(on('atmega328p-5v-shield', 'D8')).toEqual(ends('male'));
  expect(on('bcm2711-sbc-40', 'GPIO17')).toEqual(ends('female'));
  expect(on('rp2040-stick-40', 'GP2')).toEqual(ends(undefined));
  // A board whose sheet does not say it.
  expect(on('kl25z-shield', 'D8')).toEqual(ends(undefined));
});

test('what goes to a junction is on the breadboard; the one wire from there has the end that the board takes', () => {
  const leds = Array.from({ length: 8 }, (_, n) => [add(`l${n}`, 'led-red-5mm'), wire(`l${n}:K`, 'ground')]).flat();
  const plan = edited(newPlan('plan-1', 'Test', { id: 'atmega328p-5v-shield', version: 1 }), sheets, ...leds);
  expect(billOf(plan, sheets)!.jumpers).toEqual([
    { colour: 'black', boardEnd: undefined, count: 8 },
    { colour: 'black', boardEnd: 'male', count: 1 },
  ]);
});
