import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { shippedSheets } from '../../tests/catalogue';
import { add, edited, shield, stick, wire } from '../../tests/makePlan';
import type { Edit } from '../plan/edit';
import { readPlanFile } from '../plan/planFile';
import { newPlan, type Plan } from '../plan/plan';
import { EXPORT_FORMATS } from './exports';
import { answeredEdit, boardEndChoices, matchWires, readWireList } from './wireList';
import { wiresMarkdown } from './wireTable';

const sheets = shippedSheets();
const plan = edited(
  stick(),
  sheets,
  add('a', 'oled-096-ssd1306-i2c', 'Glass'),
  add('b', 'light-bh1750', 'Light'),
  add('c', 'led-red-5mm', 'Lamp'),
);
const taken = (text: string, from = plan): readonly (readonly [string, unknown])[] =>
  matchWires(from, sheets, readWireList(text)).flatMap(({ edit }) =>
    edit?.kind === 'wire' ? [[`${edit.placement}:${edit.terminal}`, edit.end] as const] : [],
  );
const pin = (name: string) => ({ to: 'pin', pin: name });

test('lines of free text, in the ways people write them', () => {
  const expected = [['a:SDA', pin('GP4')]];
  for (const line of [
    'Glass SDA -> GP4',
    '- glass.sda => gp4',
    'Glass SDA to GP4',
    '1. Glass SDA: GP4',
    'Glass SDA → GPIO4 (blue)',
    'OLED SDA\tGP4',
    'SSD1306 SDA = pin GP4',
  ])
    expect([line, taken(line)]).toEqual([line, expected]);
  expect(readWireList('Glass SDA → GP4 (blue)')[0]!.colour).toBe('blue');
  expect(taken('Glass GND -> GND\nGlass VCC -> 3V3\nLamp anode -> GP2')).toEqual([
    ['a:GND', { to: 'ground' }],
    ['a:VCC', { to: 'rail', rail: '3v3' }],
    ['c:A', pin('GP2')],
  ]);
});

test('tables by commas, semicolons, tabs and bars, with and without a header', () => {
  const expected = [
    ['a:SDA', pin('GP4')],
    ['b:SCL', pin('GP5')],
  ];
  expect(taken('Part,Terminal,To,Colour\nGlass,SDA,GP4,blue\nLight,SCL,GP5,yellow')).toEqual(expected);
  expect(taken('Glass;SDA;GP4\nLight;SCL;GP5')).toEqual(expected);
  expect(taken('from\tto\nGlass SDA\tGP4\nLight SCL\tGP5')).toEqual(expected);
  expect(taken('| Part | Pin | To |\n|---|---|---|\n| Glass | SDA | GP4 |\n| Light | SCL | GP5 |')).toEqual(expected);
});

test('what is not clear is not taken: two parts with that label, a pin that is none, an empty list', () => {
  const [two] = matchWires(plan, sheets, readWireList('SDA -> GP4'));
  expect([two!.terminals, two!.edit]).toEqual([['a:SDA', 'b:SDA'], undefined]);
  const [none] = matchWires(plan, sheets, readWireList('Glass SDA -> GP99'));
  expect([none!.end, none!.edit]).toEqual([undefined, undefined]);
  expect(readWireList('nothing here\n\n')).toEqual([]);
  const wired = edited(plan, sheets, { kind: 'wire', placement: 'a', terminal: 'SDA', end: { to: 'pin', pin: 'GP4' } });
  expect(matchWires(wired, sheets, readWireList('Glass SDA -> GP4'))[0]).toMatchObject({ there: true, edit: undefined });
  fc.assert(fc.property(fc.string({ unit: 'binary', maxLength: 400 }), (text) => void matchWires(plan, sheets, readWireList(text))));
});

test.each(['hive-watch', 'proofing-box', 'ferry-dial', 'workbench-scoreboard'])(
  'the tables of %s bring every wire back into the plan without wires',
  (id) => {
    const read = readPlanFile(JSON.parse(readFileSync(join(__dirname, `../../../../demo/plans/${id}.json`), 'utf8')));
    if (!read.ok) throw new Error(read.fault);
    const whole = read.file.plan;
    const soldered = new Set(whole.placements.filter((p) => p.onBoard).map((p) => p.id));
    const own = Object.entries(whole.wires).filter(([key]) => !soldered.has(key.split(':')[0]!));
    const unlock = own.flatMap(([key, w]): Edit[] => {
      const [placement, terminal] = key.split(':') as [string, string];
      return [
        ...(w.locked ? [{ kind: 'lock' as const, placement, terminal, locked: false }] : []),
        { kind: 'unwire', placement, terminal },
      ];
    });
    const empty: Plan = edited(whole, sheets, ...unlock);
    for (const format of ['csv', 'markdown']) {
      const text = EXPORT_FORMATS.find((one) => one.id === format)!.write(whole, sheets)!;
      const matched = matchWires(empty, sheets, readWireList(text));
      const back = edited(empty, sheets, ...matched.flatMap(({ edit }) => edit ?? []));
      expect([format, matched.filter((m) => !m.edit).map((m) => [m.listed.from, m.listed.to])]).toEqual([format, []]);
      expect(Object.fromEntries(own.map(([key]) => [key, back.wires[key]?.end]))).toEqual(
        Object.fromEntries(own.map(([key, w]) => [key, w.end])),
      );
    }
  },
);

test('what people write: a number alone, a position of a two-row header, voltages, nothing', () => {
  const shieldPlan = edited(shield(), sheets, add('c', 'led-red-5mm', 'Lamp'), add('m', 'matrix-8x8-max7219', 'Matrix'));
  const rail = (id: string) => ({ to: 'rail', rail: id });
  for (const to of ['D10', '10', 'pin 10', 'd10', 'Pin 10', 'digital pin 10'])
    expect([to, taken(`Lamp anode -> ${to}`, shieldPlan)]).toEqual([to, [['c:A', pin('D10')]]]);
  for (const to of ['5V', '+5V', '5 V', '5.0V'])
    expect([to, taken(`Matrix VCC -> ${to}`, shieldPlan)]).toEqual([to, [['m:VCC', rail('5v')]]]);
  for (const to of ['3.3V', '3V3', '+3.3 V', '3,3V'])
    expect([to, taken(`Matrix VCC -> ${to}`, shieldPlan)]).toEqual([to, [['m:VCC', rail('3v3')]]]);
  // Both ways to write a matrix of eight by eight, and a label of another module of the kind.
  for (const from of ['Matrix 8x8 DIN', 'matrix DIN', 'Matrix 8×8 DIN', '8x8 DIN', 'Matrix MOSI'])
    expect([from, taken(`${from} -> 11`, shieldPlan)]).toEqual([from, [['m:DIN', pin('D11')]]]);
  const header = edited(newPlan('p', 'P', { id: 'bcm2711-sbc-40', version: 1 }), sheets, add('a', 'oled-096-ssd1306-i2c', 'Glass'));
  expect(taken('Glass SDA -> pin 3\nGlass GND -> pin 6\nGlass VCC -> pin 1', header)).toEqual([
    ['a:SDA', pin('GPIO2')],
    ['a:GND', { to: 'ground' }],
    ['a:VCC', rail('3v3')],
  ]);
  // A bare number may be either there: it is asked.
  expect(matchWires(header, sheets, readWireList('Glass SDA -> 3'))[0]).toMatchObject({ end: undefined, edit: undefined });
});

test('what is open in the list is taken off in the plan; what is open in both is there', () => {
  const wired = edited(plan, sheets, { kind: 'wire', placement: 'a', terminal: 'SDA', end: { to: 'pin', pin: 'GP4' } });
  for (const word of ['open', 'NC', 'n/c', 'not connected', '-'])
    expect(matchWires(wired, sheets, readWireList(`Part,Terminal,To\nGlass,SDA,${word}\nLight,SCL,GP5`))[0]).toMatchObject({
      open: true,
      edit: { kind: 'unwire', placement: 'a', terminal: 'SDA' },
    });
  expect(matchWires(plan, sheets, readWireList('Glass SDA -> open'))[0]).toMatchObject({ open: true, there: true, edit: undefined });
  const locked = edited(wired, sheets, { kind: 'lock', placement: 'a', terminal: 'SDA', locked: true });
  expect(matchWires(locked, sheets, readWireList('Glass SDA -> open'))[0]!.edit).toBeUndefined();
});

test('what is not clear becomes a wire once it is answered', () => {
  const [both] = matchWires(plan, sheets, readWireList('SDA -> GP4 (violet)'));
  expect(answeredEdit(plan, both!, {})).toBeUndefined();
  expect(answeredEdit(plan, both!, { terminal: 'b:SDA' })).toEqual({
    kind: 'wire',
    placement: 'b',
    terminal: 'SDA',
    end: pin('GP4'),
    colour: 'violet',
  });
  const [none] = matchWires(plan, sheets, readWireList('Glass SDA -> somewhere'));
  expect(answeredEdit(plan, none!, {})).toBeUndefined();
  const { end } = boardEndChoices(plan, sheets).find(({ label }) => label === 'GP7')!;
  expect(answeredEdit(plan, none!, { end })).toEqual({ kind: 'wire', placement: 'a', terminal: 'SDA', end: pin('GP7') });
  const [clear] = matchWires(plan, sheets, readWireList('Glass SDA -> GP4'));
  expect(answeredEdit(plan, clear!, { end })).toBe(clear!.edit);
  expect(boardEndChoices(plan, sheets).slice(0, 2)).toEqual([
    { label: 'GND', end: { to: 'ground' } },
    { label: '3V3', end: { to: 'rail', rail: '3v3' } },
  ]);
});

test('a Markdown table that was written here is read back, whatever signs the names have', () => {
  const name = 'Left|Right *1* _x_ [a] <b> `c` \\d';
  const plan = edited(stick(), sheets, add('l', 'led-red-5mm', name), wire('l:A', 'GP2'));
  const listed = readWireList(wiresMarkdown(plan, sheets)!);
  expect(listed.map((line) => JSON.stringify(line)).join('\n')).toContain(JSON.stringify(name).slice(1, -1));
});
