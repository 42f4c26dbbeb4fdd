import { join } from 'node:path';
import { readFileSync } from 'node:fs';
import { digestOf, sheetFiles } from '@roof-chart/catalogue/readCatalogue';
import { cli, folder, hive, sheets } from '../tests/cli';

test('check says clashes with their remedies and ends with 1', async () => {
  const { code, out } = await cli(['check', '-'], { '-': hive });
  expect(code).toBe(1);
  expect(out).toMatch(/error {2}Pin conflict: GP22 is used by 2 signals {2}\[pin-shared\][^]*fix: Move Status LED anode to GP2/);
  const json = JSON.parse((await cli(['check', '--json', '-'], { '-': hive })).out) as {
    findings: { code: string; text: { title: string } }[];
  };
  expect(json.findings.map((f) => [f.code, f.text.title])).toEqual([
    ['address-shared', 'Address conflict: 0x68 on I2C0 (2 devices)'],
    ['pin-shared', 'Pin conflict: GP22 is used by 2 signals'],
    ['sheet-unverified', 'Sheets with unverified data: 10'],
  ]);
});

test('a plan from nothing to checked: new, add, wire, lock, show, diff, edit', async () => {
  const files: Record<string, string> = {};
  const ok = async (...args: string[]) => {
    const result = await cli(args, files);
    expect({ args, code: result.code, err: result.err }).toEqual({ args, code: 0, err: '' });
    return result.out;
  };
  await ok('new', 'rp2040-stick-40', '--name', 'Shed', '--out', 'p.json');
  await ok('add', 'p.json', 'oled-096-ssd1306-i2c');
  await ok('add', 'p.json', 'led-red-5mm', '--no-wires');
  files['before.json'] = files['p.json']!;
  await ok('wire', 'p.json', 'light-1:A', 'GP22');
  await ok('wire', 'p.json', 'light-1:K', 'ground');
  await ok('lock', 'p.json', 'light-1:A');
  expect((await cli(['check', 'p.json'], files)).out).toMatch(/LED: no series resistor[^]*Add 180 Ω in 1 wire/);
  files['resistor.json'] = JSON.stringify([{ kind: 'series', placement: 'light-1', terminal: 'A', ohms: 180 }]);
  await ok('edit', 'p.json', 'resistor.json');
  expect(await ok('show', 'p.json')).toMatch(
    /^Shed, on RP2040 stick, 40 pins\n {2}display-1 {2}OLED 128×64 .* 0x3C\n[^]*anode {4}GP22 {2}locked\n {4}cathode {2}ground$/,
  );
  expect(await ok('check', 'p.json')).toMatch(/^No issues found\.\nnote .*\[sheet-unverified\]/);
  const difference = await cli(['diff', 'before.json', 'p.json'], files);
  expect([difference.code, difference.out]).toEqual([1, 'LED anode: open → GP22\nLED cathode: open → GND\n180 Ω at LED anode']);
  files['edits.json'] = (await cli(['diff', '--json', 'before.json', 'p.json'], files)).out;
  await ok('edit', 'before.json', 'edits.json');
  expect(await ok('diff', 'before.json', 'p.json')).toBe('No differences.');
  files['-'] = files['p.json']!;
  expect(JSON.parse(await ok('lock', '-', 'light-1:A', '--off'))).toMatchObject({ wires: { 'light-1:A': { locked: false } } });
  await ok('wire', 'p.json', 'display-1:SDA', 'open', '--out', 'q.json');
  expect([files['p.json']!.includes('display-1:SDA'), files['q.json']!.includes('display-1:SDA')]).toEqual([true, false]);
});

test('an edit that cannot be done is named and leaves the file as it was', async () => {
  const files: Record<string, string> = {
    'p.json': hive,
    'e.json': JSON.stringify([
      { kind: 'rename-plan', name: 'Half' },
      { kind: 'unwire', placement: 'zz', terminal: 'A' },
    ]),
  };
  expect(await cli(['edit', 'p.json', 'e.json'], files)).toEqual({
    code: 2,
    out: '',
    err: 'edit 2: terminal must be a wired terminal, not zz:A; nothing was changed',
  });
  expect(files['p.json']).toBe(hive);
});

test('the page of the command line is made from the commands as they are now', async () => {
  const files: Record<string, string> = {};
  await cli(['cli-page', 'cli.md'], files);
  expect(readFileSync(join(__dirname, '../../../docs/cli.md'), 'utf8')).toBe(files['cli.md']);
});

test('a plan without findings ends with 0', async () => {
  const plan = { ...(JSON.parse(hive) as object), placements: [], wires: {}, ticks: {} };
  expect(await cli(['check', 'p.json'], { 'p.json': JSON.stringify(plan) })).toEqual({ code: 0, out: 'No issues found.', err: '' });
});

test.each([
  ['no such file', ['check', 'x'], {}, /x cannot be read: ENOENT/],
  ['no JSON', ['check', '-'], { '-': '{"format":' }, /-: not valid JSON/],
  ['another format', ['check', '-'], { '-': '{"format":"x"}' }, /-: format: /],
  ['a plan from the future', ['check', '-'], { '-': hive.replace('"formatVersion": 1', '"formatVersion": 9') }, /-: formatVersion: /],
  ['a prototype key', ['check', '-'], { '-': hive.replace('"wires": {', '"wires": {"__proto__": {},') }, /-: wires\.__proto__: /],
  ['a sheet that is gone', ['check', '-'], { '-': hive.replaceAll('humidity-sht31', 'humidity-x') }, /needs the part sheet humidity-x/],
  ['an unknown board', ['new', 'z80'], {}, /unknown board z80: expected one of .*rp2040-stick-40/],
  ['an unknown part', ['add', '-', 'warp'], { '-': hive }, /unknown part warp/],
  ['no terminal', ['wire', '-', 'SDA', 'GP4'], { '-': hive }, /SDA: expected part:terminal/],
  [
    'a pin that does not exist',
    ['wire', '-', 'display-1:SDA', 'GP99'],
    { '-': hive },
    /end\.pin must be a pin of RP2040 stick, 40 pins, not GP99/,
  ],
  ['edits that are none', ['edit', '-', 'e'], { '-': hive, e: '{"kind":"x"}' }, /e: the list: /],
  ['both from standard input', ['diff', '-', '-'], { '-': hive }, /only one of the plans/],
  ['a name that is none', ['new', 'rp2040-stick-40', '--name', 'a\u0007'], {}, /--name: .*control characters/],
  ['an unknown command', ['solder'], {}, /unknown command 'solder'/],
  ['a missing argument', ['check'], {}, /missing required argument/],
])('%s is one sentence and ends with 2', async (_, args, files, words) => {
  const { code, out, err } = await cli(args, files);
  expect({ code, out }).toEqual({ code: 2, out: '' });
  expect(err).toMatch(words);
});

test('identify names candidates with evidence, what settles it and the twins', async () => {
  const { code, out } = await cli(['identify', '--labels', 'GND VCC D0 D1 RES DC CS', '--size', '0.96', '--json']);
  expect(code).toBe(0);
  const found = JSON.parse(out) as { candidates: { part: string; for: string[]; twins: unknown[] }[]; settle: string[] };
  expect(found.candidates[0]).toMatchObject({ part: 'oled-096-ssd1306-spi', for: ['7 labels match', 'order matches', 'size 0.96'] });
  expect(found.candidates[0]!.twins.length).toBeGreaterThan(0);
  const text = await cli(['identify', '--labels', 'VIN GND SCL SDA']);
  expect(text.out).toMatch(/for: 4 labels match[^]*to tell them apart: Read the chip marking/);
  expect(await cli(['identify', '--labels', 'ZZ QQQ', '--chip', 'nothing of the kind'])).toMatchObject({
    code: 1,
    out: 'No part matches.',
  });
});

test.each([
  [['identify'], /^give at least one of --labels/],
  [['identify', '--pins', 'seven'], /^--pins: a whole number from 1 to 400, not seven$/],
  [['identify', '--labels', 'A '.repeat(100)], /^--labels: at most 48 labels, not 100$/],
  [['identify', '--does', 'x'.repeat(500)], /^a clue has at most 400 characters$/],
])('%j is refused in one sentence', async (args, words) => {
  expect(await cli(args)).toMatchObject({ code: 2, err: expect.stringMatching(words) });
});

test('sheets counts the catalogue by family and trust', async () => {
  const counts = JSON.parse((await cli(['sheets', '--json'])).out) as {
    boards: number;
    parts: number;
    families: Record<string, number>;
    trust: { parts: Record<string, number> };
  };
  expect(counts.boards).toBe(sheets.boards.size);
  expect(Object.values(counts.families).reduce((a, b) => a + b)).toBe(counts.parts);
  expect(counts.trust.parts['datasheet']).toBeGreaterThan(100);
  expect((await cli(['sheets'])).out).toMatch(/boards\n {2}[^]*of family sensor/);
});

test('the digest of checked sheets changes with any of them', () => {
  const files = sheetFiles(folder);
  expect(digestOf(files)).toBe(digestOf(sheetFiles(folder)));
  expect(digestOf(files.map((f, at) => (at === 3 ? { ...f, text: `${f.text} ` } : f)))).not.toBe(digestOf(files));
});

test('a plan file with a sheet of its own is worked on, and the sheet stays in it', async () => {
  const lamp = { ...sheets.parts.get('led-red-5mm')!.sheet, id: 'my-lamp', title: 'My lamp' };
  const files: Record<string, string> = {};
  await cli(['new', 'rp2040-stick-40', '--out', 'p.json'], files);
  const plan = JSON.parse(files['p.json']!) as Record<string, unknown>;
  files['p.json'] = JSON.stringify({
    ...plan,
    placements: [{ id: 'lamp', sheet: { id: 'my-lamp', version: 1 }, name: 'Lamp', straps: {} }],
    sheets: [lamp],
  });
  expect(await cli(['wire', 'p.json', 'lamp:A', 'GP2'], files)).toMatchObject({ code: 0, err: '' });
  expect(await cli(['wire', 'p.json', 'lamp:K', 'ground'], files)).toMatchObject({ code: 0 });
  expect((JSON.parse(files['p.json']) as { sheets: { id: string }[] }).sheets.map((s) => s.id)).toEqual(['my-lamp']);
  expect((await cli(['show', 'p.json'], files)).out).toMatch(/lamp {2}Lamp {2}\(my-lamp\)/);
  expect(await cli(['check', 'p.json'], files)).toMatchObject({
    code: 1,
    out: expect.stringMatching(/^error {2}Lamp: no series resistor/) as string,
  });
  files['bad.json'] = files['p.json'].replace('"maxMilliamps": 20', '"maxMilliamps": -20');
  expect(await cli(['check', 'bad.json'], files)).toMatchObject({
    code: 2,
    err: expect.stringMatching(/^bad.json: sheets.0.polarity.maxMilliamps: /),
  });
});

describe('assign and explain', () => {
  const planWith = async (board: string, ...parts: string[]) => {
    const files: Record<string, string> = {};
    await cli(['new', board, '--out', 'p.json'], files);
    for (const part of parts) await cli(['add', 'p.json', part, '--no-wires'], files);
    return files;
  };

  test('what would change is shown, proved, and written only when asked for', async () => {
    const files = await planWith('rp2040-stick-40', 'oled-096-ssd1306-i2c', 'led-red-5mm');
    const before = files['p.json'];
    const shown = await cli(['assign', 'p.json'], files);
    expect(shown).toMatchObject({ code: 0, err: '' });
    expect(shown.out).toMatch(/OLED 128×64 SDA: open → GP\d+[^]*Proved optimal: 0 wires moved/);
    expect(files['p.json']).toBe(before);
    expect((await cli(['assign', 'p.json', '--out', 'q.json'], files)).code).toBe(0);
    // What settling does not do: the lamp was added without wires, and so without its resistor.
    expect((await cli(['check', 'q.json'], files)).out).toMatch(/^error {2}LED: no series resistor[^]*\nnote/);
    expect((await cli(['assign', 'q.json'], files)).out).toMatch(/^Proved optimal: 0 wires moved[^\n]*\.$/);
  });

  test('what cannot be served is named with what it competes for, and ends with 1', async () => {
    const files = await planWith('rp2040-stick-40', 'potentiometer', 'potentiometer', 'potentiometer', 'potentiometer');
    const settled = await cli(['assign', 'p.json'], files);
    expect(settled.code).toBe(1);
    expect(settled.out).toMatch(/Proved: at least 1 terminal cannot be connected/);
    expect(settled.out).toMatch(/compete for GP28, GP27 and GP26; without any one of them the others can be connected\./);
    const stuck = await cli(['explain', 'p.json'], files);
    expect(stuck.code).toBe(1);
    // No way out makes a fourth analog pin: a converter is one part more.
    expect(stuck.out).toMatch(
      /^[^\n]* compete for GP28, GP27 and GP26[^\n]*\n {2}Add Analog inputs[^:]*: 1 part more[^\n]*each reading is a bus transfer/,
    );
    const clocks = await planWith('atmega328p-5v-shield', 'clock-ds3231-eeprom', 'clock-ds3231-eeprom');
    expect((await cli(['explain', 'p.json'], clocks)).out).toMatch(
      /compete for[^]*\n {2}Add I2C multiplexer[^:]*, connect [^:]* through it: 1 part more[^\n]*one channel at a time/,
    );
    const json = JSON.parse((await cli(['assign', 'p.json', '--json'], files)).out) as {
      proved: boolean;
      conflict: { terminals: string[] };
    };
    expect([json.proved, json.conflict.terminals.length]).toEqual([true, 4]);
  });

  test('the instance is plain JSON; an alternative pin has its price; bad input is a sentence', async () => {
    const files = await planWith('atmega328p-5v-shield', 'led-red-5mm');
    await cli(['assign', 'p.json', '--out', 'p.json'], files);
    expect(JSON.parse((await cli(['assign', 'p.json', '--instance'], files)).out)).toMatchObject({
      format: 'roof-chart-instance',
      version: 2,
    });
    const why = await cli(['explain', 'p.json', 'light-1:A'], files);
    expect(why.out).toMatch(/other pins:\n {2}\S+ +equivalent\n[^]*D13 +1 wire moved/);
    expect(await cli(['assign', 'p.json', '--seconds', 'soon'], files)).toMatchObject({
      code: 2,
      err: expect.stringContaining('--seconds soon') as string,
    });
    expect(await cli(['explain', 'p.json', 'nobody:X'], files)).toMatchObject({
      code: 2,
      err: expect.stringContaining('nobody:X') as string,
    });
    expect((await cli(['assign', 'p.json', '--seconds', '0'], files)).out).toMatch(/^(Proved|Best found)|\n(Proved|Best found)/);
  });
});

describe('fits', () => {
  test('ranks every board, and its words and its JSON say the same', async () => {
    const { code, out } = await cli(['fits', '-'], { '-': hive });
    expect([code, out.split('\n').length]).toEqual([0, sheets.boards.size]);
    const ranked = JSON.parse((await cli(['fits', '--json', '-'], { '-': hive })).out) as {
      board: string;
      verdict: string;
      open: string[];
      headRoom: { pins: number };
    }[];
    expect(out.split('\n').map((line) => line.split(/ +/)[1])).toEqual(ranked.map((fit) => fit.board));
    expect(out).toMatch(/^fits +kl25z-shield +42 pins free, 15 analog/);
    expect(ranked.find((fit) => fit.board === 'atmega32a-5v-dip-40')).toMatchObject({ verdict: 'open' });
  });

  test('--parts says of every part whether one more fits', async () => {
    const { code, out } = await cli(['fits', '--parts', '-'], { '-': hive });
    expect([code, out.split('\n').length]).toEqual([0, sheets.parts.size]);
    expect(out).toMatch(/^fits +humidity-aht20 +0 pins$/m);
    expect(out).toMatch(/^with +temperature-ds18b20 +with 1 resistor; 1 pins$/m);
    const full = await cli(['new', 'rp2040-stamp-14']);
    const files = { '-': full.out };
    const lines = (await cli(['fits', '--parts', '-'], files)).out.split('\n');
    expect(lines.find((line) => line.includes(' lcd-2004-parallel '))).toMatch(/^fits +lcd-2004-parallel +6 pins/);
    expect(lines.find((line) => line.includes(' keypad-4x4 '))).toMatch(/^fits +keypad-4x4 +8 pins/);
  });

  test('--switch puts the plan on another board and names the locks that are lost; an unknown board is refused', async () => {
    const files: Record<string, string> = { 'p.json': hive };
    const { code, out } = await cli(['fits', 'p.json', '--switch', 'esp32-stick-38', '--out', 'q.json'], files);
    expect(code).toBe(0);
    expect(out).toMatch(/wires unchanged; proved optimal: [^]*Locks removed: SD card CLK, SD card MOSI/);
    expect(JSON.parse(files['q.json']!)).toMatchObject({ board: { id: 'esp32-stick-38' }, name: 'Hive watch' });
    expect(files['p.json']).toBe(hive);
    const refused = await cli(['fits', 'p.json', '--switch', 'nothing'], files);
    expect([refused.code, refused.err]).toEqual([2, expect.stringContaining('--switch nothing: expected a board in the library')]);
  });
});

describe('calc', () => {
  test('a pull-up with its window, what there is and what to add; the working with its source', async () => {
    const weak = await cli(['calc', 'pull-up', 'hz=400k', 'capacitance=200p', 'pull-ups=10k,10k']);
    expect(weak).toMatchObject({ code: 0, err: '' });
    expect(weak.out).toMatch(/leastOhms +967 Ω[^]*mostOhms +1.77 kΩ[^]*verdict +too-weak[^]*add +1.8 kΩ[^]*UM10204/);
    const { outputs } = JSON.parse((await cli(['calc', 'pull-up', 'pull-ups=1k 1k', '--json'])).out) as {
      outputs: { verdict: string; add: null };
    };
    expect(outputs).toMatchObject({ verdict: 'too-strong', add: null });
  });

  test('the time of a frame; the list as JSON names every input with its unit', async () => {
    expect((await cli(['calc', 'bus-time', 'write=17', 'transfers=64', 'rate=10'])).out).toMatch(/bits +10496[^]*share +0.2624/);
    const list = JSON.parse((await cli(['calc', '--list', '--json'])).out) as { id: string; inputs: { unit: string }[]; source: string }[];
    const ids =
      'bands bus-time contrast current-set damping debounce divider i2c-series ladder led line-pull-up multiplex one-wire-pull-up power pull-up sensor-divider spi-time transistor-base transistor-gate'.split(
        ' ',
      );
    expect(list.map((c) => c.id)).toEqual(ids);
    expect((await cli(['calc', 'spi-time', 'hz=10M', 'bytes=153600'])).out).toMatch(/bits +1228800[^]*mostPerSecond +8.138/);
    expect((await cli(['calc', 'current-set', 'sheet=driver-max7219-dip24'])).out).toMatch(/exactOhms +28 kΩ[^]*ohms +33 kΩ/);
    for (const one of list) expect([one.source !== '', one.inputs.every((i) => i.unit !== '')]).toEqual([true, true]);
  });

  test.each([
    [['calc', 'nothing'], 'expected one of bands, bus-time, contrast'],
    [['calc', 'pull-up', 'capacitance=-5p'], 'expected 0 or more'],
    [['calc', 'pull-up', 'hz=fast'], 'hz fast: expected a number in Hz'],
    [['calc', 'pull-up', 'ohms=5'], 'ohms: expected one of vdd'],
    [['calc', 'pull-up', 'series=E7'], 'series E7: expected one of E3'],
    [['calc', 'bus-time'], 'write: expected bytes written'],
    [['calc', 'bus-time', '17'], '17: expected name=value'],
  ])('%j is a sentence', async (args, words) => {
    expect(await cli(args)).toMatchObject({ code: 2, err: expect.stringContaining(words) as string });
  });
});
