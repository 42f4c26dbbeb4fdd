import { shippedSheets } from '../../tests/catalogue';
import { add, edited, stick, wire } from '../../tests/makePlan';
import { boardOrThrow, type Edit } from '../plan/edit';
import type { Plan } from '../plan/plan';
import { type LineToTranslate, packShifterChannels } from './packShifterChannels';

const sheets = shippedSheets();

/** A parallel display at 5 V whose lines are at these pins. */
const display = (pins: readonly string[]): readonly Edit[] => [
  add('d', 'lcd-1602-parallel'),
  ...pins.map((pin, at) => wire(`d:${['RS', 'E', 'D4', 'D5', 'D6', 'D7', 'D0'][at]}`, pin)),
];
const line = (terminal: string, pin: string, more: Partial<LineToTranslate> = {}): LineToTranslate => ({
  keys: [`d:${terminal}`],
  pin: { to: 'pin', pin },
  way: 'to-part',
  hz: 1000,
  sharesLine: false,
  ...more,
});
const pack = (plan: Plan, lines: readonly LineToTranslate[]) => {
  const packed = packShifterChannels({ plan, sheets, board: boardOrThrow(plan, sheets) }, 'vbus', lines);
  return (
    packed && {
      modules: packed.modules.map(({ part, placement, added, used }) => [part.id, placement, added ? 'new' : 'there', used]),
      plan: edited(plan, sheets, ...packed.edits),
    }
  );
};
/** The pin at which a terminal ends, through the channel it is wired to. */
function throughChannel(plan: Plan, key: string): string | undefined {
  const end = plan.wires[key]?.end;
  if (end?.to !== 'terminal') return undefined;
  const part = sheets.parts.get(plan.placements.find((p) => p.id === end.placement)!.sheet.id)!.sheet;
  const channel = part.levelShifter!.channels.find((c) => c.low === end.terminal || c.high === end.terminal)!;
  const near = channel.low === end.terminal ? channel.high : channel.low;
  const back = plan.wires[`${end.placement}:${near}`]?.end;
  return back?.to === 'pin' ? back.pin : undefined;
}

const mosfet = (id: string): readonly Edit[] => [
  add(id, 'shifter-mosfet-4'),
  wire(`${id}:LV`, 'rail 3v3'),
  wire(`${id}:HV`, 'rail vbus'),
  wire(`${id}:GND`, 'ground'),
];
const buffer = (id: string, taken: number): readonly Edit[] => [
  add(id, 'buffer-74ahct125'),
  wire(`${id}:VCC`, 'rail vbus'),
  wire(`${id}:GND`, 'ground'),
  ...Array.from({ length: taken }, (_, at) => wire(`${id}:A${at + 1}`, `GP${20 + at}`)),
];

test('as few modules as carry all lines, each line from its own pin; of as few the ones with the fewest channels', () => {
  const pins = ['GP2', 'GP3', 'GP4', 'GP5', 'GP6', 'GP7'];
  const plan = edited(stick(), sheets, ...display(pins));
  const names = ['RS', 'E', 'D4', 'D5', 'D6', 'D7'];
  const both = pins.map((pin, at) => line(names[at]!, pin, { way: 'both' }));
  for (const count of [1, 4, 5, 6]) {
    const packed = pack(plan, both.slice(0, count))!;
    expect(packed.modules.map(([part, , how]) => [part, how])).toEqual(
      Array.from({ length: Math.ceil(count / 4) }, () => ['shifter-mosfet-4', 'new']),
    );
    expect(packed.modules.reduce((sum, [, , , used]) => sum + (used as number), 0)).toBe(count);
    expect(names.slice(0, count).map((name) => throughChannel(packed.plan, `d:${name}`))).toEqual(pins.slice(0, count));
  }
});

test('a line whose pin is on a channel already joins it, and the others take the free channels of the same module', () => {
  const plan = edited(
    stick(),
    sheets,
    ...display(['GP2', 'GP3', 'GP4', 'GP2']),
    ...mosfet('x'),
    wire('x:LV2', 'GP2'),
    wire('d:D7', 'x:HV2'),
  );
  const packed = pack(plan, [line('RS', 'GP2'), line('D5', 'GP2'), line('E', 'GP3'), line('D4', 'GP4')])!;
  expect(packed.modules).toEqual([['shifter-mosfet-4', 'x', 'there', 4]]);
  expect(['d:RS', 'd:D5', 'd:E', 'd:D4', 'd:D7'].map((key) => throughChannel(packed.plan, key))).toEqual([
    'GP2',
    'GP2',
    'GP3',
    'GP4',
    'GP2',
  ]);
  expect([packed.plan.wires['d:RS']!.end, packed.plan.wires['d:D5']!.end]).toEqual([
    { to: 'terminal', placement: 'x', terminal: 'HV2' },
    { to: 'terminal', placement: 'x', terminal: 'HV2' },
  ]);
});

test('a line makes way on a module for one that no other module carries', () => {
  // One channel is free on each of two modules; only the first carries a line that goes both ways.
  const busy = [1, 2, 3].flatMap((n) => [wire(`x:LV${n}`, `GP${10 + n}`), wire(`x:HV${n}`, 'ground')]);
  const plan = edited(stick(), sheets, ...display(['GP2', 'GP3']), ...mosfet('x'), ...busy, ...buffer('y', 3));
  const packed = pack(plan, [line('RS', 'GP2'), line('E', 'GP3', { way: 'both' })])!;
  expect(packed.modules).toEqual([
    ['shifter-mosfet-4', 'x', 'there', 1],
    ['buffer-74ahct125', 'y', 'there', 1],
  ]);
  expect([throughChannel(packed.plan, 'd:RS'), throughChannel(packed.plan, 'd:E')]).toEqual(['GP2', 'GP3']);
  expect(packed.plan.wires['d:E']!.end).toMatchObject({ placement: 'x' });
});

test('a module that faces the other way, or has other supplies, is not used', () => {
  const pins = ['GP2'];
  const turned = edited(stick(), sheets, ...display(pins), ...mosfet('x'), wire('x:HV1', 'GP8'), wire('d:D7', 'x:LV1'));
  expect(pack(turned, [line('RS', 'GP2', { way: 'both' })])!.modules[0]![2]).toBe('new');
  const elsewhere = edited(stick(), sheets, ...display(pins), ...mosfet('x'), wire('x:HV', 'rail 3v3'));
  expect(pack(elsewhere, [line('RS', 'GP2', { way: 'both' })])!.modules[0]![2]).toBe('new');
});

test('a logic buffer carries what a slow shifter does not, and never a line that others drive towards the board', () => {
  const plan = edited(stick(), sheets, ...display(['GP2']));
  const fast = { hz: 10e6 };
  expect(
    pack(plan, [line('RS', 'GP2', fast)])!.modules.map(([part]) => sheets.parts.get(part as string)!.sheet.levelShifter!.kind),
  ).toEqual(['drive']);
  expect(pack(plan, [line('RS', 'GP2', { ...fast, way: 'to-board' })])!.modules.map(([part]) => part)).toEqual(['buffer-74lvc245']);
  expect(pack(plan, [line('RS', 'GP2', { ...fast, way: 'to-board', sharesLine: true })])).toBeUndefined();
  expect(pack(plan, [line('RS', 'GP2', { ...fast, way: 'both' })])).toBeUndefined();
  expect(pack(plan, [])).toBeUndefined();
});
