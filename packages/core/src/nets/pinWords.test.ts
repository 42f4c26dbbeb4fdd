import { shippedSheets } from '../../tests/catalogue';
import type { BoardPin } from '../sheets/boardSheet';
import { flowsThrough, otherEnd } from './passThrough';
import { pinAbilities } from './pinWords';

const sheets = shippedSheets();
const board = (id: string) => sheets.boards.get(id)!;
const abilities = (id: string, pin: string, more: Partial<BoardPin> = {}) =>
  pinAbilities(board(id), { ...board(id).pins.get(pin)!, ...more });

test('a pin is described by its own functions, analog channel, timer and interrupt lines, in this order', () => {
  expect(abilities('rp2040-stick-40', 'GP26')).toEqual([
    'SPI1 SCK',
    'I2C1 SDA',
    'UART1 CTS',
    'analog 0',
    'PWM slice 5, 5A',
    'interrupt GPIO26',
  ]);
  const pwm = (timer: string) =>
    abilities('rp2040-stick-40', 'GP26', { functions: [], interrupts: [], pwm: { timer, channel: '5A' } }).at(-1);
  expect([pwm('slice 5'), pwm('PWM generator, any pin'), pwm('PWM0')]).toEqual(['PWM slice 5, 5A', 'PWM generator', 'PWM0']);
  expect(
    abilities('rp2040-stick-40', 'GP2', {
      functions: [],
      interrupts: [
        { line: 'EXTI2', shared: true },
        { line: 'INT0', shared: false },
      ],
    }),
  ).toEqual(['PWM slice 1, 1A', 'interrupt INT0', 'shared interrupt EXTI2']);
});

test('of a pin that reaches every line only its own functions are named', () => {
  const all = abilities('esp32-stick-38', 'IO21');
  expect(all).toContain('any digital line');
  expect(abilities('esp32-stick-38', 'IO34')).toContain('any digital line in');
  expect(all.length).toBeLessThan(6);
});

test('a channel goes from one end to the other, the way that its part drives it', () => {
  const both = sheets.parts.get('shifter-mosfet-4')!.sheet;
  const [channel] = both.levelShifter!.channels;
  expect([otherEnd(both, channel!.low), otherEnd(both, channel!.high), otherEnd(both, 'GND')]).toEqual([
    channel!.high,
    channel!.low,
    undefined,
  ]);
  expect(otherEnd(sheets.parts.get('led-red-5mm')!.sheet, 'A')).toBeUndefined();
  const flows = (part: typeof both, end: string) => (['in', 'out'] as const).map((direction) => flowsThrough(part, end, { direction }));
  expect(flows(both, channel!.low)).toEqual([true, true]);
  const one = [...sheets.parts.values()].map(({ sheet }) => sheet).find(({ levelShifter }) => levelShifter?.drives === 'up')!;
  const [up] = one.levelShifter!.channels;
  // What is wired to the input of the channel drives it: it is an output.
  expect([flows(one, up!.low), flows(one, up!.high)]).toEqual([
    [false, true],
    [true, false],
  ]);
  const down = { ...one, levelShifter: { ...one.levelShifter!, drives: 'down' as const } };
  expect([flows(down, up!.low), flows(down, up!.high)]).toEqual([
    [true, false],
    [false, true],
  ]);
});
