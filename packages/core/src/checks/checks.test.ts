import { readdirSync } from 'node:fs';
import fc from 'fast-check';
import { arbitraryEdit } from '../../tests/arbitraryEdits';
import { shippedSheets } from '../../tests/catalogue';
import { codesAfter, expectCheck, findingsOf, remedied } from '../../tests/checkHarness';
import { add, edited, shield, stick, wire } from '../../tests/makePlan';
import { runs } from '../../tests/runs';
import { applyEdit } from '../plan/applyEdits';
import type { Edit } from '../plan/edit';
import { additionOf } from '../review/addition';
import { previewEdits } from '../review/previewEdits';
import { runChecks, contextOf } from '../review/review';
import { indexSheets } from '../sheets/sheetIndex';
import type { Check } from './engine/check';
import { CHECKS } from './engine/registry';
import { fillTemplate } from '../text/describe';
import { listText } from '../text/names';

const sheets = shippedSheets();
const power = (id: string, rail = '3v3'): Edit[] => [wire(`${id}:GND`, 'ground'), wire(`${id}:VCC`, `rail ${rail}`)];
const i2c = (id: string, sda = 'GP4', scl = 'GP5'): Edit[] => [wire(`${id}:SDA`, sda), wire(`${id}:SCL`, scl)];
const lock = (id: string, terminal: string): Edit => ({ kind: 'lock', placement: id, terminal, locked: true });

describe('pin-shared', () => {
  const knobAndLamp = edited(
    stick(),
    sheets,
    add('k', 'encoder-rotary-switch', 'Knob'),
    add('l', 'led-red-5mm', 'Lamp'),
    wire('k:SW', 'GP22'),
    wire('l:A', 'GP22'),
  );

  test('two private signals on a pin; the later part is offered first', () => {
    expectCheck('pin-shared', knobAndLamp, sheets, [
      {
        message: 'shared',
        level: 'clash',
        title: 'Pin conflict: GP22 is used by 2 signals',
        remedies: ['Move Lamp anode to GP2', 'Move Knob SW to GP2'],
      },
    ]);
    expect(remedied('pin-shared', knobAndLamp, sheets).wires['l:A']!.end).toEqual({ to: 'pin', pin: 'GP2' });
  });

  test('a locked wire is not offered to be moved', () => {
    const plan = edited(knobAndLamp, sheets, lock('l', 'A'));
    expectCheck('pin-shared', plan, sheets, [
      { message: 'shared', level: 'clash', title: 'Pin conflict: GP22 is used by 2 signals', remedies: ['Move Knob SW to GP2'] },
    ]);
  });

  test('bus lines of one kind share a pin; a bus line and another signal do not', () => {
    const bus = edited(
      stick(),
      sheets,
      add('a', 'humidity-sht31', 'Air'),
      add('b', 'oled-096-ssd1306-i2c', 'Glass'),
      ...i2c('a'),
      ...i2c('b'),
    );
    expectCheck('pin-shared', bus, sheets, []);
    const crossed = edited(bus, sheets, wire('b:SDA', 'GP5'));
    expectCheck('pin-shared', crossed, sheets, [
      { message: 'shared', level: 'clash', title: 'Pin conflict: GP5 is used by 2 signals', remedies: ['Move Glass SDA to GP4'] },
    ]);
  });

  test('two names of one conductor are one pin', () => {
    const plan = edited(
      shield(),
      sheets,
      add('l', 'led-red-5mm', 'Lamp'),
      add('a', 'oled-096-ssd1306-i2c', 'Glass'),
      wire('a:SDA', 'A4'),
      wire('l:A', 'A4'),
    );
    expect(
      findingsOf(plan, sheets)
        .filter((f) => f.code === 'pin-shared')
        .map((f) => f.place.pins),
    ).toEqual([['A4']]);
  });
});

describe('pin-cannot', () => {
  test('a bus line where no controller brings it out: the part moves as a whole', () => {
    const plan = edited(shield(), sheets, add('a', 'oled-096-ssd1306-i2c', 'Glass'), wire('a:SDA', 'D2'), wire('a:SCL', 'A5'));
    expectCheck('pin-cannot', plan, sheets, [
      {
        message: 'no-line',
        level: 'clash',
        title: 'D2 does not support Glass SDA',
        remedies: ['Move the bus to I2C (A4 and A5)', 'Drive this bus by software on A5 and D2 (up to 100 kHz instead of 400 kHz)'],
      },
    ]);
  });

  test('analog, PWM and interrupt are asked of the pin', () => {
    const part = sheets.parts.get('led-red-5mm')!.sheet;
    const asking = (change: object) => {
      const terminals = { ...part.terminals, list: part.terminals.list.map((t) => (t.id === 'A' ? { ...t, ...change } : t)) };
      const own = indexSheets([sheets.boards.get('atmega328p-5v-shield')!.sheet, { ...part, id: 'own', terminals }]);
      const plan = edited(shield(), own, add('x', 'own', 'X'), wire('x:A', 'D4'));
      return findingsOf(plan, own)
        .filter((f) => f.code === 'pin-cannot')
        .map((f) => [f.message, f.remedies[0]?.data['pin']]);
    };
    expect(asking({ role: 'adc.in' })).toEqual([['no-adc', { is: 'pin', pin: 'A0' }]]);
    expect(asking({ role: 'pwm.out' })).toEqual([['no-pwm', { is: 'pin', pin: 'D9' }]]);
    expect(asking({ role: 'gpio.in', requires: ['interrupt'] })).toEqual([]);
  });
});

test('pin-reserved: the trouble is the sheet’s, the remedy a free pin', () => {
  const board = sheets.boards.get('rp2040-stick-40')!.sheet;
  const list = board.pins.list.map((pin) => (pin.id === 'GP7' ? { ...pin, grade: 'reserved' as const, trouble: 'Feeds the siren.' } : pin));
  const own = indexSheets([{ ...board, pins: { ...board.pins, list } }, sheets.parts.get('led-red-5mm')!.sheet]);
  const plan = edited(stick(), own, add('l', 'led-red-5mm', 'Lamp'), wire('l:A', 'GP7'));
  expectCheck('pin-reserved', plan, own, [
    { message: 'reserved', level: 'clash', title: 'GP7 is used by the board itself', remedies: ['Move Lamp anode to GP2'] },
  ]);
});

describe('address-shared', () => {
  const clockAndMotion = edited(
    stick(),
    sheets,
    ...[add('c', 'clock-ds3231-eeprom', 'Clock'), add('m', 'motion-mpu6050', 'Motion')],
    ...['c', 'm'].flatMap((id) => [...power(id), ...i2c(id)]),
  );

  test('a strap first, then another bus', () => {
    expectCheck('address-shared', clockAndMotion, sheets, [
      {
        message: 'claimed',
        level: 'clash',
        title: 'Address conflict: 0x68 on I2C0 (2 devices)',
        remedies: ['Tie Motion AD0 to 3V3 (address 0x69)', 'Move Motion to I2C1 (GP6 and GP7)'],
      },
    ]);
    expect(codesAfter(remedied('address-shared', clockAndMotion, sheets), sheets)).toEqual([]);
  });

  test('on two buses they never meet', () => {
    expectCheck('address-shared', edited(clockAndMotion, sheets, ...i2c('m', 'GP2', 'GP3')), sheets, []);
  });

  test('all fixed, one controller: the finding stands and offers nothing it cannot do', () => {
    const plan = edited(
      shield(),
      sheets,
      ...['a', 'b'].flatMap((id) => [add(id, 'clock-ds3231-eeprom', `Clock ${id}`), ...power(id, '5v'), ...i2c(id, 'A4', 'A5')]),
    );
    expectCheck('address-shared', plan, sheets, [
      { message: 'all-fixed', level: 'clash', title: 'Address conflict: 0x68 on I2C (2 devices)', remedies: [] },
      {
        message: 'claimed',
        level: 'clash',
        title: 'Address conflict: 0x57 on I2C (2 devices)',
        remedies: ['Set Clock b A0 bridged (address 0x56)', 'Set Clock a A0 bridged (address 0x56)'],
      },
    ]);
  });

  test('of fixed addresses one goes to another bus that is there, unless its address is taken there, or its lines are no pair', () => {
    const fixed = (id: string) => [add(id, 'humidity-aht20', `Air ${id}`), ...power(id)];
    const two = ['a', 'b'].flatMap((id) => [...fixed(id), ...i2c(id)]);
    const remediesWith = (...more: readonly Edit[]) => {
      const found = findingsOf(edited(stick(), sheets, ...two, ...more), sheets).find(
        (f) => f.code === 'address-shared' && f.place.placements!.includes('b'),
      )!;
      return found.remedies
        .flatMap(({ edits }) =>
          edits.flatMap((e) => (e.kind === 'wire' && e.end.to === 'pin' ? [`${e.placement} ${e.terminal} ${e.end.pin}`] : [])),
        )
        .toSorted();
    };
    // Another bus with room, on other pins of its controller than the first that are listed.
    expect(remediesWith(add('s', 'light-bh1750'), ...power('s'), ...i2c('s', 'GP2', 'GP3'))).toEqual(['b SCL GP3', 'b SDA GP2']);
    expect(remediesWith(add('s', 'light-bh1750'), ...power('s'), ...i2c('s', 'GP18', 'GP19'))).toEqual(['b SCL GP19', 'b SDA GP18']);
    // A bus whose lines are of the right controller but beside no usual pair, and one that has the address already.
    expect(remediesWith(add('s', 'light-bh1750'), ...power('s'), ...i2c('s', 'GP2', 'GP7'))).toEqual([]);
    expect(remediesWith(...fixed('c'), ...i2c('c', 'GP2', 'GP3'))).toEqual([]);
    // Pins that another signal has are none for a bus.
    expect(remediesWith(add('t', 'led-red-5mm'), wire('t:A', 'GP6'))).toEqual(['b SCL GP3', 'b SDA GP2']);
  });

  test('three of a kind with two addresses: straps alone cannot, a second bus can', () => {
    const three = edited(
      stick(),
      sheets,
      ...['a', 'b', 'd'].flatMap((id) => [add(id, 'humidity-sht31', `Air ${id}`), ...power(id), ...i2c(id)]),
    );
    expect(codesAfter(three, sheets)).toEqual(['address-impossible']);
    const first = remedied('address-impossible', three, sheets);
    expect(codesAfter(first, sheets)).toEqual(['address-shared']);
    expect(codesAfter(remedied('address-shared', first, sheets), sheets)).toEqual([]);
  });
});

describe('terminal-unwired', () => {
  test('one finding a part, with what would be wired', () => {
    const plan = edited(stick(), sheets, add('a', 'humidity-sht31', 'Air'), wire('a:GND', 'ground'));
    expectCheck('terminal-unwired', plan, sheets, [
      {
        message: 'some',
        level: 'clash',
        title: 'Air: 3 connections missing',
        remedies: ['Connect all 3: SCL → GP5, SDA → GP4', 'Connect supply and ground'],
      },
    ]);
    expect(codesAfter(remedied('terminal-unwired', plan, sheets), sheets)).toEqual([]);
  });

  test('optional terminals may stay open; a wire from another part counts', () => {
    const plan = edited(
      stick(),
      sheets,
      add('a', 'humidity-sht31'),
      add('b', 'humidity-sht31'),
      ...power('a'),
      ...i2c('a'),
      ...power('b'),
      wire('b:AD', 'rail 3v3'),
      wire('b:SDA', 'a:SDA'),
      wire('b:SCL', 'a:SCL'),
    );
    expectCheck('terminal-unwired', plan, sheets, []);
  });
});

test('no random plan gets a remedy that does not apply, changes nothing, or leaves its finding', () => {
  for (const empty of [stick(), shield()]) {
    fc.assert(
      fc.property(fc.array(arbitraryEdit(sheets, empty.board.id), { minLength: 8, maxLength: 60 }), (edits) => {
        const plan = edits.reduce((now, edit) => {
          const result = applyEdit(now, edit, sheets);
          return result.ok ? result.plan : now;
        }, empty);
        const findings = findingsOf(plan, sheets);
        expect(new Set(findings.map((f) => f.id)).size).toBe(findings.length);
      }),
      { numRuns: runs(150) },
    );
  }
});

test('terminal-outside: contacts and ports on a pin, a rail or ground are told to be unchecked; shifters that carry are not among them', () => {
  const plan = edited(
    stick(),
    sheets,
    add('r', 'relay-active-low', 'Pump'),
    add('x', 'expander-mcp23017', 'Ports'),
    wire('r:COM', 'rail vbus'),
    wire('x:GPB0', 'GP9'),
  );
  expectCheck('terminal-outside', plan, sheets, [
    { message: 'supply', level: 'hint', title: 'Pump COM on VBUS: not checked', remedies: ['Disconnect Pump COM'] },
    {
      message: 'pin',
      level: 'hint',
      title: expect.stringMatching(/^Ports .* on GP9: not checked$/) as string,
      remedies: [expect.any(String) as string],
    },
  ]);
  expectCheck(
    'terminal-outside',
    remedied('terminal-outside', edited(plan, sheets, { kind: 'unwire', placement: 'x', terminal: 'GPB0' }), sheets),
    sheets,
    [],
  );
  const shifted = additionOf(shield(), sheets, sheets.parts.get('tft-20-st7789-spi')!.sheet)!;
  expectCheck('terminal-outside', shifted.plan, sheets, []);
});

describe('the engine', () => {
  const context = contextOf(edited(stick(), sheets, add('l', 'led-red-5mm')), sheets)!;
  const draft = { level: 'hint', message: 'm', place: {}, data: {}, remedies: () => [] } as const;
  const check = (over: Partial<Check>): Check => ({
    code: 'x',
    question: '?',
    messages: { m: { title: '', text: '', why: '' } },
    remedies: {},
    examine: () => [draft],
    ...over,
  });

  test('refuses a message or a remedy its check does not have', () => {
    expect(() => runChecks(context, [check({ messages: {} })])).toThrow('x has no message m');
    const remedy = { label: 'r', data: {}, grade: 'safe', edits: [] } as const;
    const [found] = runChecks(context, [check({ examine: () => [{ ...draft, remedies: () => [remedy] }] })]);
    expect(() => found!.remedies).toThrow('x has no fix r');
  });

  test('offers no remedy that would not apply, or would leave its finding standing', () => {
    const rename = (label: string, id: string, name: string) =>
      ({ label, data: {}, grade: 'safe', edits: [{ kind: 'rename-placement', placement: id, name }] }) as const;
    const named = check({
      remedies: { helps: 'Helps', leaves: 'Leaves', fails: 'Fails' },
      examine: ({ plan }) =>
        plan.placements.some((p) => p.name === 'l')
          ? [{ ...draft, remedies: () => [rename('helps', 'l', 'Lamp'), rename('leaves', 'l', 'l'), rename('fails', 'gone', 'Lamp')] }]
          : [],
    });
    const [found] = runChecks(context, [named]);
    expect(found!.remedies.map((r) => r.label)).toEqual(['helps']);
  });

  test('gravest findings come first', () => {
    const levels = ['hint', 'clash', 'risk'] as const;
    const found = runChecks(context, [check({ examine: () => levels.map((level) => ({ ...draft, level })) })]);
    expect(found.map((f) => f.level)).toEqual(['clash', 'risk', 'hint']);
  });

  test('a text without its datum is an error of the check', () => {
    expect(() => fillTemplate(context.plan, sheets, '{gone}', {})).toThrow('No datum {gone}');
    expect([listText([]), listText(['a']), listText(['a', 'b']), listText(['a', 'b', 'c'])]).toEqual(['', 'a', 'a and b', 'a, b and c']);
  });

  test('the registry is sorted, complete, and every check has its page', () => {
    const codes = CHECKS.map((c) => c.code);
    expect(codes).toEqual([...codes].sort());
    // What several checks of a topic share.
    const shared = [
      'busSegments',
      'levelMessages',
      'memoryFinding',
      'moveStrap',
      'sharedResources',
      'shiftSegment',
      'shifterLines',
      'signalRail',
    ];
    const topics = readdirSync(__dirname, { withFileTypes: true }).filter(
      (entry) => entry.isDirectory() && !['engine', 'fixes'].includes(entry.name),
    );
    const files = topics
      .flatMap(({ name }) => readdirSync(`${__dirname}/${name}`))
      .filter((f) => !f.endsWith('.test.ts'))
      .map((f) => f.replace('.ts', ''));
    const camel = (code: string) => code.replace(/-(\w)/g, (_, c: string) => c.toUpperCase());
    expect(files.filter((f) => !shared.includes(f)).sort()).toEqual(
      codes
        .map(camel)
        .filter((f) => f !== 'checkFailed')
        .sort(),
    );
    expect(readdirSync(`${__dirname}/../../../../docs/checks`).sort()).toEqual(['README.md', ...codes.map((c) => `${c}.md`)].sort());
  });
});

test('a preview tells wires and findings that come and go, and refuses what no longer applies', () => {
  const resistor: Edit = { kind: 'series', placement: 'l', terminal: 'A', ohms: 220 };
  const plan = edited(stick(), sheets, add('l', 'led-red-5mm', 'Lamp'), wire('l:K', 'ground'), resistor);
  const result = previewEdits(plan, [wire('l:A', 'GP2')], sheets);
  expect(result).toMatchObject({
    ok: true,
    preview: {
      wires: [{ terminal: 'l:A', from: undefined, to: { pin: 'GP2' } }],
      gone: [{ code: 'terminal-unwired' }, { code: 'component-unconnected' }],
      added: [],
    },
  });
  expect(previewEdits(plan, [wire('gone:A', 'GP2')], sheets)).toMatchObject({ ok: false, problem: { path: 'terminal' } });
});
