import { shippedSheets } from '../../../tests/catalogue';
import { withPart, withRail } from '../../../tests/facts';
import { findingsOf } from '../../../tests/checkHarness';
import { add, edited, shield, stick, wire, wired } from '../../../tests/makePlan';
import { planTerminals } from '../../nets/terminals';
import { newPlan, type Plan } from '../../plan/plan';
import { contextOf } from '../../review/review';
import type { Sheets } from '../../sheets/sheetIndex';
import { pwmBySoftware } from './pwmBySoftware';
import { separateSupplies } from './separateSupply';
import { signalRail } from '../levels/signalRail';
import { translateAll } from './levelTranslation';

const sheets = shippedSheets();
const itemsOf = (plan: Plan, of: Sheets, ...keys: readonly string[]) => planTerminals(plan, of).filter(({ key }) => keys.includes(key));

describe('swapped lines', () => {
  const glass = (...wires: readonly (readonly [string, string])[]) =>
    edited(stick(), sheets, add('o', 'oled-096-ssd1306-i2c'), ...wires.map(([from, to]) => wire(from, to)));
  const swaps = (plan: Plan) => findingsOf(plan, sheets).flatMap(({ remedies }) => remedies.filter(({ label }) => label === 'swap'));

  test('are swapped where both are wired to the pins of each other, not with one line or both lines on one pin', () => {
    expect(swaps(glass(['o:SDA', 'GP5'], ['o:SCL', 'GP4']))).not.toHaveLength(0);
    expect(swaps(glass(['o:SDA', 'GP5']))).toEqual([]);
    expect(swaps(glass(['o:SDA', 'GP5'], ['o:SCL', 'GP5']))).toEqual([]);
  });
});

test('a signal moves to a pin whose interrupt line no other signal has', () => {
  const board = sheets.boards.get('stm32f411-shield-64')!;
  const lineOf = (pin: string) => board.pins.get(pin)?.interrupts?.[0]?.line;
  const free = board.ioPins.filter((pin) => pin.grade === 'free' && pin.interrupts?.length).map(({ id }) => id);
  const [first] = free as [string];
  const twin = free.find((id) => id !== first && lineOf(id) === lineOf(first))!;
  const knobs = edited(
    newPlan('p', 'P', { id: board.sheet.id, version: board.sheet.version }),
    sheets,
    add('k', 'encoder-rotary-switch', 'Knob'),
    wire('k:A', first),
    wire('k:B', twin),
  );
  const moves = (plan: Plan) =>
    findingsOf(plan, sheets)
      .filter(({ code }) => code === 'interrupt-line-shared')
      .flatMap(({ remedies }) =>
        remedies.flatMap(({ edits }) => edits.flatMap((e) => (e.kind === 'wire' && e.end.to === 'pin' ? [e.end.pin] : []))),
      );
  const [offered] = moves(knobs);
  // Another signal takes the line of the pin that would be offered, on a pin of another port.
  const rival = free.find((id) => id !== offered && lineOf(id) === lineOf(offered!))!;
  const more = edited(knobs, sheets, add('m', 'encoder-rotary-switch', 'More'), wire('m:A', rival));
  const taken = new Set([first, rival].map(lineOf));
  expect(moves(more)).not.toHaveLength(0);
  for (const pin of moves(more)) expect([pin, taken.has(lineOf(pin))]).toEqual([pin, false]);
});

test('PWM by software is for what may have any frequency: an LED, not a servo beside it', () => {
  const board = [...sheets.boards.values()].find(({ sheet }) => sheet.software?.pwmHz !== undefined)!.sheet;
  const plan = edited(newPlan('p', 'P', { id: board.id, version: board.version }), sheets, add('s', 'servo-micro'), add('r', 'rgb-led-cc'));
  const context = contextOf(plan, sheets)!;
  const [remedy, ...more] = pwmBySoftware(context, itemsOf(plan, sheets, 's:SIG', 'r:R'));
  expect(more).toEqual([]);
  expect(remedy!.data['terminals']).toEqual({ is: 'terminals', keys: ['r:R'] });
  expect(remedy!.edits.map((edit) => edit.kind)).toEqual(['software-pwm', 'wire']);
  expect(pwmBySoftware(context, itemsOf(plan, sheets, 's:SIG'))).toEqual([]);
});

describe('a supply of its own', () => {
  const plan = edited(stick(), sheets, add('d', 'oled-15-ssd1327-i2c'), wire('d:VCC', 'rail 3v3'), wire('d:GND', 'ground'));
  const inputs = (of: Sheets) =>
    separateSupplies(plan, of, 'd', '3v3').map(({ part, edits }) => [
      part.id,
      ...edits.flatMap((edit) => (edit.kind === 'wire' && edit.terminal === 'VIN' && edit.end.to === 'rail' ? [edit.end.rail] : [])),
    ]);

  test('is a regulator from a rail that the board gives, within its range; a rail that the board takes gives nothing', () => {
    expect(inputs(sheets)).toContainEqual(['regulator-mcp1700-3v3', 'vbus']);
    const taken = withRail(sheets, 'rp2040-stick-40', 'vbus', { direction: 'in' });
    expect(inputs(taken).flatMap(([, rail]) => rail ?? [])).toEqual([]);
  });

  test('is the smallest regulator that a rail suits: one that asks for more volts is passed over', () => {
    const { supply } = sheets.parts.get('regulator-mcp1700-3v3')!.sheet;
    const hungry = withPart(sheets, 'regulator-mcp1700-3v3', (part) => ({
      ...part,
      supply: { ...supply!, volts: { min: 5.1, typ: 6, max: 12 } },
    }));
    expect(inputs(hungry)).toContainEqual(['regulator-ams1117-3v3', 'vbus']);
    expect(inputs(hungry).map(([id]) => id)).not.toContain('regulator-mcp1700-3v3');
  });
});

describe('the rail that the signals of a part with a regulator follow', () => {
  const plan = edited(shield(), sheets, add('c', 'climate-bme280'), wire('c:VCC', 'rail 5v'), wire('c:GND', 'ground'));
  const railOf = (of: Sheets) => signalRail(contextOf(plan, of)!, 'c');
  const at = (typ: number, direction: 'in' | 'out' = 'out') =>
    withRail(sheets, 'atmega328p-5v-shield', '3v3', { direction, volts: { min: typ - 0.1, typ, max: typ + 0.1 } });
  const { min, max } = sheets.parts.get('climate-bme280')!.sheet.levels!.logicVolts!;

  test('is one of the voltage that it makes, to its limits, and that the board gives', () => {
    expect([railOf(sheets), railOf(at(min)), railOf(at(max))]).toEqual(['3v3', '3v3', '3v3']);
    expect([railOf(at(min - 1e-6)), railOf(at(max + 1e-6)), railOf(at(3.3, 'in'))]).toEqual([undefined, undefined, undefined]);
  });
});

test('all lines are taken across together only while every one of them may move', () => {
  const matrix = edited(
    stick(),
    sheets,
    ...wired('m', 'matrix-8x8-max7219', { VCC: 'rail vbus', GND: 'ground', DIN: 'GP3', CS: 'GP5', CLK: 'GP2' }),
  );
  const across = translateAll(contextOf(matrix, sheets)!);
  expect(across!.modules.length).toBeGreaterThan(0);
  const locked = edited(matrix, sheets, { kind: 'lock', placement: 'm', terminal: 'CS', locked: true });
  expect(translateAll(contextOf(locked, sheets)!)).toBeUndefined();
});

test('LEDs of unlike forward voltage at one pin get a resistor each, of the value that each needs; afterwards nothing is over its limit', () => {
  const plan = edited(
    stick(),
    sheets,
    ...(['red', 'blue'] as const).flatMap((colour) => [
      add(colour, `led-${colour}-5mm`),
      wire(`${colour}:A`, 'GP2'),
      wire(`${colour}:K`, 'ground'),
      { kind: 'series', placement: colour, terminal: 'A', ohms: 47 } as const,
    ]),
  );
  const found = findingsOf(plan, sheets).find(({ code }) => code === 'drive-over')!;
  const fix = found.remedies.find(({ label }) => label === 'fit-each')!;
  const mended = edited(plan, sheets, ...fix.edits);
  const { 'red:A': red, 'blue:A': blue } = mended.series;
  expect([red! > blue!, blue! >= 47]).toEqual([true, true]);
  expect(findingsOf(mended, sheets).map(({ code }) => code)).not.toContain('drive-over');
});
