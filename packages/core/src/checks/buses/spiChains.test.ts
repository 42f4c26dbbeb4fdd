import fc from 'fast-check';
import { shippedSheets } from '../../../tests/catalogue';
import { codesAfter, expectCheck, findingsOf, remedied } from '../../../tests/checkHarness';
import { add, edited, stick, wire } from '../../../tests/makePlan';
import { runs } from '../../../tests/runs';
import { chainsOf } from '../../nets/chains';
import type { Edit } from '../../plan/edit';
import type { Plan } from '../../plan/plan';
import { describeFinding } from '../../text/describe';

const sheets = shippedSheets();
const plan = (...edits: readonly Edit[]): Plan => edited(stick(), sheets, ...edits);
const spi = (id: string, sheet: string, name: string, cs: string | null, data = 'SDA', clock = 'SCK'): Edit[] => [
  add(id, sheet, name),
  wire(`${id}:${clock}`, 'GP18'),
  wire(`${id}:${data}`, 'GP19'),
  ...(cs ? [wire(`${id}:CS`, cs)] : []),
];
const matrix = (id: string, name: string, from: string, cs = 'GP17', clock = 'GP18'): Edit[] => [
  add(id, 'matrix-8x8-max7219', name),
  wire(`${id}:DIN`, from),
  wire(`${id}:CLK`, clock),
  wire(`${id}:CS`, cs),
];
const codes = (of: Plan) => codesAfter(of, sheets).filter((code) => code.startsWith('chain') || code.startsWith('select'));

describe('selects', () => {
  const two = plan(...spi('a', 'tft-18-st7735-spi', 'Picture', 'GP17'), ...spi('b', 'tft-144-st7735-spi', 'Small', 'GP16'));

  test('two that float: one remedy holds both, and one that is held already is left out', () => {
    expectCheck('select-floating', two, sheets, [
      {
        message: 'some',
        level: 'hint',
        title: '2 chip selects float during reset',
        remedies: ['Add 10 kΩ from Picture CS and Small CS to the supply'],
      },
    ]);
    expect(remedied('select-floating', two, sheets).pulls).toEqual({
      'a:CS': { ohms: 10_000, to: 'supply' },
      'b:CS': { ohms: 10_000, to: 'supply' },
    });
    const held = edited(two, sheets, { kind: 'pull', placement: 'a', terminal: 'CS', pull: { ohms: 10_000, to: 'supply' } });
    expectCheck('select-floating', held, sheets, [
      {
        message: 'one',
        level: 'hint',
        title: 'Chip select floats during reset: Small CS',
        remedies: ['Add 10 kΩ from Small CS to the supply'],
      },
    ]);
  });

  test('a part without a select shares with nobody; alone it is well', () => {
    const bare = spi('n', 'tft-13-st7789-spi-nocs', 'Square', null, 'SDA', 'SCL');
    expect(codes(plan(...bare))).toEqual([]);
    const both = plan(...bare, ...spi('a', 'tft-18-st7735-spi', 'Picture', 'GP17'));
    expectCheck('select-missing', both, sheets, [
      {
        message: 'missing',
        level: 'clash',
        title: 'Square: no chip select',
        remedies: [expect.stringMatching(/^Move Square to SPI1/) as string],
      },
    ]);
    expectCheck('bus-mixed-modes', both, sheets, [
      { message: 'modes', level: 'hint', title: 'SPI0: devices with different SPI modes', remedies: [] },
    ]);
    expect(codes(remedied('select-missing', both, sheets))).toEqual([]);
  });
});

describe('SPI modes of one bus', () => {
  // From the datasheets: MAX7219 mode 0, ADXL345 mode 3, MCP3008 modes 0 and 3, MAX31865 modes 1 and 3.
  const digits = matrix('m', 'Digits', 'GP19');
  const motion = spi('x', 'motion-adxl345-spi', 'Motion', 'GP16', 'SDA', 'SCL');
  const inputs = spi('i', 'adc-mcp3008', 'Inputs', 'GP20', 'DIN', 'CLK');
  const oven = spi('o', 'temperature-max31865', 'Oven', 'GP21', 'SDI', 'CLK');

  test.each([
    ['mode 0 serves both', [...digits, ...inputs], false],
    ['mode 3 serves all', [...motion, ...inputs, ...oven], false],
    ['0 and 3', [...digits, ...motion], true],
    ['0 against 1 or 3', [...digits, ...oven], true],
    ['two of one kind', [...motion, ...spi('y', 'motion-adxl345-spi', 'Second', 'GP22', 'SDA', 'SCL')], false],
    ['each pair has one, the three together none', [...digits, ...inputs, ...oven], true],
  ])('%s', (_, edits, told) => {
    const found = findingsOf(plan(...edits), sheets).filter((f) => f.code === 'bus-mixed-modes');
    expect(found.map((f) => [f.message, f.level])).toEqual(told ? [['modes', 'hint']] : []);
  });

  test('the modes are listed in the order of the parts', () => {
    const both = plan(...digits, ...oven);
    const found = findingsOf(both, sheets).find((f) => f.code === 'bus-mixed-modes')!;
    expect(describeFinding(both, sheets, found).text).toBe(
      'Digits and Oven use modes 0, 1 or 3; the program must set the mode before each transfer.',
    );
  });
});

describe('chains', () => {
  const chain = plan(...matrix('a', 'Left', 'GP19'), ...matrix('b', 'Right', 'a:DOUT'));

  test('a chain that shifts as one has nothing to say; its parts stand in the order of the wires', () => {
    expect(codes(chain)).toEqual([]);
    expect(chainsOf(chain, sheets).map((c) => c.members.map((m) => m.name))).toEqual([['Left', 'Right']]);
  });

  test('a part with another clock or latch is brought to those of the head', () => {
    const apart = edited(chain, sheets, wire('b:CS', 'GP16'));
    expectCheck('chain-broken', apart, sheets, [
      { message: 'apart', level: 'clash', title: 'Right is not clocked with Left', remedies: ['Connect Right CS with those of Left'] },
    ]);
    expect(remedied('chain-broken', apart, sheets).wires['b:CS']!.end).toEqual({ to: 'pin', pin: 'GP17' });
    const locked = edited(apart, sheets, { kind: 'lock', placement: 'b', terminal: 'CS', locked: true });
    expect(findingsOf(locked, sheets).find((f) => f.code === 'chain-broken')!.remedies).toEqual([]);
  });

  test('two side by side on one select are offered to be chained', () => {
    const parallel = plan(...matrix('a', 'Left', 'GP19'), ...matrix('b', 'Right', 'GP19'));
    const chained = remedied('select-shared', parallel, sheets);
    expect(chained.wires['b:DIN']!.end).toEqual({ to: 'terminal', placement: 'a', terminal: 'DOUT' });
    expect(codes(chained)).toEqual([]);
  });

  test('a circle gets no bits from the board', () => {
    const round = edited(chain, sheets, wire('a:DIN', 'b:DOUT'));
    expectCheck('chain-broken', round, sheets, [
      { message: 'circle', level: 'clash', title: 'Daisy chain is a closed loop: Left and Right', remedies: [] },
    ]);
  });

  test('parts listed otherwise than they are wired are named, and listed as wired in one step', () => {
    const swapped = plan(
      ...matrix('b', 'Right', 'GP19'),
      ...matrix('x', 'Other', 'GP11', 'GP13', 'GP10'),
      ...matrix('a', 'Left', 'b:DOUT'),
    );
    expect(codes(swapped)).toEqual([]);
    const other = edited(swapped, sheets, { kind: 'move-placement', placement: 'a', at: 0 });
    expectCheck('chain-order', other, sheets, [
      {
        message: 'other',
        level: 'hint',
        title: 'Daisy chain order differs from the list: Right is first',
        remedies: ['Sort the list by wiring'],
      },
    ]);
    expect(remedied('chain-order', other, sheets).placements.map((p) => p.name)).toEqual(['Right', 'Left', 'Other']);
  });

  test('however parts are chained, every one is in one chain, and nothing runs on for ever', () => {
    const ids = ['a', 'b', 'c', 'd'];
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.constantFrom(...ids), fc.constantFrom(...ids)), { maxLength: 6 }), (links) => {
        const made = plan(
          ...ids.map((id) => add(id, 'matrix-8x8-max7219', id)),
          ...links.filter(([from, to]) => from !== to).map(([from, to]) => wire(`${to}:DIN`, `${from}:DOUT`)),
        );
        const chains = chainsOf(made, sheets);
        expect(chains.flatMap((c) => c.members.map((m) => m.id)).sort()).toEqual(ids);
        for (const { members, circle } of chains)
          if (!circle) expect(made.wires[`${members[0]!.id}:DIN`]?.end ?? {}).not.toMatchObject({ placement: members.at(-1)!.id });
        expect(findingsOf(made, sheets)).toBeDefined();
      }),
      { numRuns: runs(60) },
    );
  });
});
