import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import Papa from 'papaparse';
import { parse as readToml } from 'smol-toml';
import { parse as readYaml } from 'yaml';
import { compileAvr, has, runCpp, runMicroPython, runRust, throughDtc } from '../../tests/compilers';
import { shippedSheets } from '../../tests/catalogue';
import { add, edited, stick, wire } from '../../tests/makePlan';
import { newPlan } from '../plan/plan';
import { readPlanFile } from '../plan/planFile';
import type { Plan } from '../plan/plan';
import { buildList } from './buildList';
import { type ConstantSet, constantSet, type ConstantValue } from './constants/constantSet';
import { identifier, identifiers, inComment } from './constants/names';
import { wiresCsv } from './wireTable';
import { constantTree, flatNames, writeC, writeCpp, writeMicroPython, writeRust } from './constants/writers';
import { EXPORT_FORMATS, fileName } from './exports';

const sheets = shippedSheets();
const demo = (id: string): Plan => {
  const read = readPlanFile(JSON.parse(readFileSync(join(__dirname, `../../../../demo/plans/${id}.json`), 'utf8')));
  if (!read.ok) throw new Error(read.fault);
  return read.file.plan;
};
const DEMOS = ['hive-watch', 'proofing-box', 'ferry-dial', 'workbench-scoreboard'].map(demo);
/** A plan whose names try to be code in every language. */
const hostile = edited(
  { ...stick(), name: '*/ int x; /* "\\' },
  sheets,
  add('a', 'button-push', 'new "class" \\'),
  add('b', 'led-red-5mm', '??/ \\\nimport os # ü 😀'),
  add('c', 'light-bh1750', '7 namespace'),
  add('d', 'button-push', 'New “class”'),
  wire('a:C1', 'GP2'),
  wire('b:A', 'GP3'),
  wire('c:SDA', 'GP4'),
  wire('c:SCL', 'GP5'),
  wire('d:C1', 'GP6'),
  add('e', 'button-push', 'Board'),
  wire('e:C1', 'GP7'),
  add('f', 'led-red-5mm', 'Pin numbers ??/'),
  wire('f:A', 'GP8'),
);
const PLANS = [...DEMOS, hostile];
const setOf = (plan: Plan): ConstantSet => constantSet(plan, sheets)!;
const format = (id: string) => EXPORT_FORMATS.find((one) => one.id === id)!;

const valuesOf = (set: ConstantSet): readonly ConstantValue[] => set.groups.flatMap((group) => group.constants.map((one) => one.value));
const plain = (value: ConstantValue) => (value.is === 'ints' ? [...value.values] : value.value);
/** The values that a compiled program printed, one JSON value a line. */
const printed = (text: string): readonly unknown[] =>
  text
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as unknown);

/** A program of C or C++ that prints every constant by its name. */
function printer(names: readonly string[], values: readonly ConstantValue[], header: string): string {
  const lines = values.map((value, at) => {
    const name = names[at]!;
    if (value.is === 'int') return `printf("%lu\\n", (unsigned long)${name});`;
    if (value.is === 'text') return `text(${name});`;
    return `printf("["); for (unsigned i = 0; i < sizeof(${name}) / sizeof(${name}[0]); i++) printf(i ? ",%lu" : "%lu", (unsigned long)${name}[i]); printf("]\\n");`;
  });
  return `#include "${header}"
#include <stdio.h>
static void text(const char *s) { putchar('"'); for (; *s; s++) { if (*s == '"' || *s == '\\\\') putchar('\\\\'); putchar(*s); } puts("\\""); }
int main(void) { (void)text; ${lines.join('\n')} return 0; }
`;
}
const pathsOf = (set: ConstantSet): readonly string[] =>
  set.groups.flatMap((g) => g.constants.map((c) => `${set.name}::${g.name}::${c.name}`));

describe.each(PLANS.map((plan) => [plan.name, plan] as const))('constants of %s', (_, plan) => {
  const set = setOf(plan);
  const values = valuesOf(set);

  test('C++ compiles without a warning and prints what the plan says', () => {
    expect(values.length).toBeGreaterThan(5);
    const files = { 'plan.hpp': writeCpp(set), 'main.cpp': printer(pathsOf(set), values, 'plan.hpp') };
    expect(printed(runCpp(files, 'main.cpp', 'c++11'))).toEqual(values.map(plain));
  });

  test('C compiles without a warning and prints what the plan says', () => {
    // A list that nobody reads would be a warning: the printer reads all.
    const files = { 'plan.h': writeC(set), 'main.c': printer(flatNames(set), values, 'plan.h') };
    expect(printed(runCpp(files, 'main.c', 'c99'))).toEqual(values.map(plain));
  });

  test('for an 8-bit chip the compiler itself agrees with every number', () => {
    const asserts = values.flatMap((value, at) => {
      const name = pathsOf(set)[at]!;
      if (value.is === 'int') return [`static_assert(${name} == ${value.value}UL, "");`];
      if (value.is === 'text') return [`static_assert(sizeof(${name}) == ${Buffer.byteLength(value.value) + 1}, "");`];
      return value.values.map((one, i) => `static_assert(${name}[${i}] == ${one}UL, "");`);
    });
    compileAvr({ 'plan.hpp': writeCpp(set), 'main.cpp': `#include "plan.hpp"\n${asserts.join('\n')}\n` }, 'main.cpp');
    expect(asserts.length).toBeGreaterThanOrEqual(values.length);
  });

  test('MicroPython runs it and says the same', () => {
    const names = flatNames(set);
    const lines = names.map((name) => `print(json.dumps(list(${name}) if isinstance(${name}, (bytes, tuple)) else ${name}))`);
    expect(printed(runMicroPython(`${writeMicroPython(set)}\nimport json\n${lines.join('\n')}\n`))).toEqual(values.map(plain));
  });

  (has('rustc') ? test : test.skip)('Rust compiles without a warning and prints the same', () => {
    const lines = set.groups.flatMap((g) => g.constants.map((c) => `println!("{:?}", plan::${g.name}::${c.name.toUpperCase()});`));
    const out = runRust({ 'plan.rs': writeRust(set), 'main.rs': `mod plan;\nfn main() {\n${lines.join('\n')}\n}\n` });
    // Rust writes what is not ASCII as it is, or as \u{…}.
    const read = out
      .trim()
      .split('\n')
      .map(
        (line) =>
          JSON.parse(line.replace(/\\u\{([0-9a-f]+)\}/g, (_all, hex: string) => String.fromCodePoint(parseInt(hex, 16)))) as unknown,
      );
    expect(read).toEqual(values.map(plain));
  });

  test('JSON, YAML and TOML are read back as the same tree', () => {
    const tree = constantTree(set);
    const text = (id: string) => format(id).write(plan, sheets)!;
    expect(JSON.parse(text('json'))).toEqual(tree);
    expect(readYaml(text('yaml'))).toEqual(tree);
    expect(readToml(text('toml'))).toEqual(tree);
  });

  test('the table of wires is read back cell by cell, and no cell begins like a formula', () => {
    const { data } = Papa.parse<Record<string, string>>(format('csv').write(plan, sheets)!.trim(), { header: true });
    const list = buildList(plan, sheets)!;
    const wires = [...list.supplies, ...list.signals];
    expect(data.map((row) => [row['Terminal']!.replace(/^'/, ''), row['Colour'], row['Position']])).toEqual(
      wires.map((w) => [w.label, w.colour, w.at[0] ? String(w.at[0].position) : '']),
    );
    for (const row of data) for (const one of Object.values(row)) expect(one).not.toMatch(/^[=+\-@\t\r]/);
    const rows = format('markdown').write(plan, sheets)!.trim().split('\n').slice(2);
    expect(rows).toHaveLength(wires.length + 2);
    for (const row of rows) expect(row.replace(/\\\|/g, '').split('|')).toHaveLength(15);
  });
});

test('an overlay compiles, and the compiled tree has the plan’s addresses, clocks and pins', () => {
  const board = demo('workbench-scoreboard');
  const plan = edited(board, sheets, add('light', 'light-bh1750', 'Light "x" \\'), wire('light:SDA', 'GPIO2'), wire('light:SCL', 'GPIO3'));
  const tree = throughDtc(format('overlay').write(plan, sheets)!);
  const group = setOf(plan).groups.find((g) => g.name === 'light_x')!;
  const address = group.constants.find((c) => c.name === 'address')!.value as { value: number };
  expect(tree).toMatch(new RegExp(`light-x@${address.value.toString(16)} \\{[^}]*reg = <0x${address.value.toString(16)}>`));
  expect(tree).toContain('clock-frequency = <0x61a80>');
  expect(tree).toMatch(/plan-pins \{[^}]*label = "Workbench scoreboard"/);
  expect(format('overlay').write(stick(), sheets)).toBeUndefined();
});

test('buses that the kernel makes on GPIO pins are nodes of their own, with the lines and selects of the plan', () => {
  const plan = edited(
    newPlan('plan-1', 'Test', { id: 'bcm2711-sbc-40', version: 1 }),
    sheets,
    { kind: 'software-bus', bus: 'softi2c1', on: true },
    { kind: 'software-bus', bus: 'softspi1', on: true },
    ...[add('l', 'light-bh1750'), wire('l:SDA', 'GPIO23'), wire('l:SCL', 'GPIO24')],
    ...[add('a', 'adc-mcp3008'), wire('a:CLK', 'GPIO5'), wire('a:DIN', 'GPIO6'), wire('a:DOUT', 'GPIO13'), wire('a:CS', 'GPIO26')],
  );
  const tree = throughDtc(format('overlay').write(plan, sheets)!);
  expect(tree).toMatch(/compatible = "i2c-gpio";\s+sda-gpios = <0xffffffff 0x17 0x06>;\s+scl-gpios = <0xffffffff 0x18 0x06>;/);
  expect(tree).toMatch(/compatible = "spi-gpio";\s+sck-gpios = <0xffffffff 0x05 0x00>;\s+mosi-gpios = <0xffffffff 0x06 0x00>;/);
  expect(tree).toMatch(/miso-gpios = <0xffffffff 0x0d 0x00>;\s+cs-gpios = <0xffffffff 0x1a 0x01>;\s+num-chipselects = <0x01>;/);
});

test('an overlay has a node for each chip of a module, with its own clock and select', () => {
  const linux = newPlan('plan-1', 'Touch', { id: 'bcm2711-sbc-40', version: 1 });
  const ends = {
    SCK: 'GPIO11',
    MOSI: 'GPIO10',
    MISO: 'GPIO9',
    CS: 'GPIO8',
    T_CLK: 'GPIO11',
    T_DIN: 'GPIO10',
    T_DO: 'GPIO9',
    T_CS: 'GPIO7',
  };
  const plan = edited(
    linux,
    sheets,
    add('d', 'tft-24-ili9341-touch', 'Panel'),
    ...Object.entries(ends).map(([terminal, pin]) => wire(`d:${terminal}`, pin)),
  );
  const tree = throughDtc(format('overlay').write(plan, sheets)!);
  expect(tree).toMatch(/panel-touch@1 \{[^}]*compatible = "ti,tsc2046"[^}]*reg = <0x01>[^}]*spi-max-frequency = <0x1e8480>/);
});

test('an overlay names what the kernel knows, comments out the rest, lists selects that are elsewhere, and says what is open', () => {
  const linux = newPlan('plan-1', 'Selects', { id: 'bcm2711-sbc-40', version: 1 });
  const spi = (id: string, cs: string) => [wire(`${id}:DIN`, 'GPIO10'), wire(`${id}:CLK`, 'GPIO11'), wire(`${id}:CS`, cs)];
  const plan = edited(
    linux,
    sheets,
    add('adc', 'adc-mcp3008', 'Eight × inputs'),
    wire('adc:CLK', 'GPIO11'),
    wire('adc:DOUT', 'GPIO9'),
    wire('adc:DIN', 'GPIO10'),
    wire('adc:CS', 'GPIO8'),
    add('m', 'digits-8-max7219', 'Digits'),
    ...spi('m', 'GPIO24'),
  );
  const source = format('overlay').write(plan, sheets)!;
  expect(source).toContain('cs-gpios = <&gpio 8 1>, <&gpio 24 1>;');
  expect(source).toContain('label = "Eight × inputs";');
  expect(source).toMatch(/open errors in this plan: /);
  expect(source).toMatch(/No driver of the kernel is known[^]*\/\/ Digits?@1|\/\/ digits@1/);
  const tree = throughDtc(source);
  expect(tree).toMatch(/compatible = "microchip,mcp3008"/);
  expect(tree).not.toMatch(/digits@1/);
  const direct = edited(plan, sheets, wire('m:CS', 'GPIO7'));
  expect(format('overlay').write(direct, sheets)).not.toContain('cs-gpios');
});

test('a part named like a key of the document does not take its place', () => {
  const tree = constantTree(setOf(hostile));
  expect([tree['plan'], tree['board'], tree['pin_numbers']]).toEqual([hostile.name, 'RP2040 stick, 40 pins', 'gpio']);
  expect(tree).toMatchObject({ board_: { title: expect.stringContaining('Board') } });
});

test('no comment goes on in the next line, nor ends early', () => {
  for (const text of ['ends with a trigraph ??/', 'three ???/', 'a backslash \\', '*/ int x; /*', 'a\u2028b\u202ec'])
    expect(inComment(text)).not.toMatch(/\?\?\/|\\$|\*\/|\/\*|[\u2028\u202e]/);
});

test('a line break in a note begins no cell of the table', () => {
  const note = {
    kind: 'wire-note',
    placement: 'a',
    terminal: 'C1',
    note: { end: { to: 'pin', pin: 'GP2' }, words: 'seen\n=1+1', date: '2026-11-28' },
  } as const;
  const csv = wiresCsv(edited(hostile, sheets, note), sheets)!;
  expect(csv).toContain('seen =1+1');
  expect(csv).not.toMatch(/\n=|^=/m);
});

test('names are words of every language, each its own', () => {
  fc.assert(
    fc.property(fc.array(fc.string({ unit: 'grapheme', maxLength: 60 }), { maxLength: 12 }), (texts) => {
      const names = identifiers(texts);
      expect(new Set(names).size).toBe(texts.length);
      for (const name of names) expect(name).toMatch(/^[a-z][a-z0-9_]*$/);
    }),
  );
  expect(['OLED 128×64', 'class', '7 segments', '', 'Höhe +'].map((one) => identifier(one))).toEqual([
    'oled_128_64',
    'class_',
    'n7_segments',
    'n',
    'hohe_plus',
  ]);
  expect(['Łódź × 2', 'Straße', '47 kΩ', '5 °C', 'µA'].map((one) => identifier(one))).toEqual([
    'lodz_2',
    'strasse',
    'n47_kohm',
    'n5_degc',
    'ua',
  ]);
  // A name without a Latin letter is called by what it is.
  expect(identifiers(['Дисплей', '表示 2', '7 segments'], ['OLED 128×64', 'Digits', 'Digits'])).toEqual([
    'oled_128_64',
    'digits_2',
    'n7_segments',
  ]);
  expect(fileName('Höhe / Tiefe', '.hpp')).toBe('ho-he-tiefe.hpp');
  expect(fileName('…', '.c')).toBe('plan.c');
});
