import fc from 'fast-check';
import { shippedSheets } from '../../../tests/catalogue';
import { expectCheck, findingsOf, remedied } from '../../../tests/checkHarness';
import { add, edited, shield, stick, wire } from '../../../tests/makePlan';
import { runs } from '../../../tests/runs';
import { assignPins } from '../../assign/assignPins';
import { newPlan, type Plan } from '../../plan/plan';
import { describeFinding } from '../../text/describe';

const sheets = shippedSheets();
const on = (board: string): Plan => newPlan('plan-1', 'Test', { id: board, version: sheets.boards.get(board)!.sheet.version });
const lock = (id: string, terminal: string) => ({ kind: 'lock', placement: id, terminal, locked: true }) as const;

describe('timer-shared', () => {
  const servos = (a: string, b: string) =>
    edited(stick(), sheets, add('a', 'servo-micro', 'Left'), add('b', 'servo-micro', 'Right'), wire('a:SIG', a), wire('b:SIG', b));

  test('two pins of one channel always do the same; the remedy leads to another channel', () => {
    expectCheck('timer-shared', servos('GP2', 'GP18'), sheets, [
      {
        message: 'channel',
        level: 'clash',
        title: 'Left orange and Right orange share one PWM channel',
        remedies: ['Move Right orange to GP3', 'Move Left orange to GP3'],
      },
    ]);
    const mended = remedied('timer-shared', servos('GP2', 'GP18'), sheets);
    expect(findingsOf(mended, sheets).map((f) => f.code)).not.toContain('timer-shared');
  });

  test('two channels of one timer are well at one frequency, not at two', () => {
    expectCheck('timer-shared', servos('GP2', 'GP3'), sheets, []);
    const unlike = edited(
      shield(),
      sheets,
      add('s', 'servo-micro', 'Flap'),
      add('b', 'buzzer-passive', 'Horn'),
      wire('s:SIG', 'D9'),
      wire('b:PLUS', 'D10'),
    );
    expectCheck('timer-shared', unlike, sheets, [
      {
        message: 'frequency',
        level: 'clash',
        title: 'Flap orange and Horn + need different frequencies from one timer',
        remedies: ['Move Horn + to D6', 'Move Flap orange to D6'],
      },
    ]);
    expectCheck('timer-shared', edited(unlike, sheets, wire('b:PLUS', 'D3')), sheets, []);
  });

  test('a locked wire is not offered to be moved', () => {
    const plan = edited(servos('GP2', 'GP18'), sheets, lock('b', 'SIG'));
    expect(findingsOf(plan, sheets).find((f) => f.code === 'timer-shared')!.remedies).toHaveLength(1);
  });
});

describe('interrupt-line-shared', () => {
  const board = sheets.boards.get('stm32f411-shield-64')!;
  const lineOf = (pin: string) => board.pins.get(pin)!.interrupts![0]!.line;
  const free = board.ioPins.filter((p) => p.grade === 'free' && p.interrupts?.length);
  const [first] = free;
  const twin = free.find((p) => p.id !== first!.id && lineOf(p.id) === lineOf(first!.id))!;
  const other = free.find((p) => lineOf(p.id) !== lineOf(first!.id))!;
  const knob = (a: string, b: string) =>
    edited(on('stm32f411-shield-64'), sheets, add('k', 'encoder-rotary-switch', 'Knob'), wire('k:A', a), wire('k:B', b));

  test('pins of one number on two ports cannot both interrupt', () => {
    const plan = knob(first!.id, twin.id);
    const [finding] = findingsOf(plan, sheets).filter((f) => f.code === 'interrupt-line-shared');
    expect([finding?.level, finding?.place.pins]).toEqual(['clash', [first!.id, twin.id]]);
    expect(findingsOf(remedied('interrupt-line-shared', plan, sheets), sheets).map((f) => f.code)).not.toContain('interrupt-line-shared');
    expectCheck('interrupt-line-shared', knob(first!.id, other.id), sheets, []);
  });
});

describe('pin-boot-level', () => {
  const lamp = (pin: string) => edited(on('esp8266-stick-30'), sheets, add('l', 'led-red-5mm', 'Lamp'), wire('l:A', pin));
  const glass = (sda: string) => edited(on('esp8266-stick-30'), sheets, add('g', 'oled-096-ssd1306-i2c', 'Glass'), wire('g:SDA', sda));

  test('how a lamp rests nobody knows; a data line with a pull-up is known to rest high', () => {
    expectCheck('pin-boot-level', lamp('D4'), sheets, [
      {
        message: 'unknown',
        level: 'risk',
        title: 'D4 is a boot pin: idle level of Lamp anode unknown',
        remedies: [expect.stringMatching(/^Move Lamp anode to D[0-9]$/) as string],
      },
    ]);
    expectCheck('pin-boot-level', glass('D4'), sheets, []);
    expectCheck('pin-boot-level', glass('D8'), sheets, [
      {
        message: 'wrong',
        level: 'clash',
        title: 'D8 is a boot pin: Glass SDA may prevent start-up',
        remedies: [expect.stringMatching(/^Move Glass SDA to /) as string],
      },
    ]);
    expectCheck('pin-boot-level', lamp('D1'), sheets, []);
  });

  test('tells the level that the chip needs and the one that the line has', () => {
    const texts = (plan: Plan) =>
      findingsOf(plan, sheets)
        .filter((f) => f.code === 'pin-boot-level')
        .map((f) => describeFinding(plan, sheets, f).text);
    expect(texts(glass('D8'))).toEqual([expect.stringMatching(/^D8 must be low at reset; this line idles high\. /)]);
    expect(texts(lamp('D4'))).toEqual([expect.stringMatching(/^D4 must be high at reset\. /)]);
    expect(texts(lamp('D8'))).toEqual([expect.stringMatching(/^D8 must be low at reset\. /)]);
  });

  test('the remedy never leads to another pin that is read at reset at the wrong level', () => {
    const after = remedied('pin-boot-level', lamp('D3'), sheets);
    expect(findingsOf(after, sheets).map((f) => f.code)).not.toContain('pin-boot-level');
  });
});

test('a settled plan has none of these, on any board', () => {
  const codes = new Set(['timer-shared', 'interrupt-line-shared', 'pin-boot-level']);
  const ids = [
    'servo-micro',
    'buzzer-passive',
    'fan-pwm-12v',
    'encoder-rotary-switch',
    'rgb-led-cc',
    'led-red-5mm',
    'motion-mpu6050',
    'touch-cst816s',
  ];
  fc.assert(
    fc.property(
      fc.constantFrom(...sheets.boards.keys()),
      fc.array(fc.constantFrom(...ids), { minLength: 1, maxLength: 7 }),
      (board, parts) => {
        const plan = edited(on(board), sheets, ...parts.map((id, at) => add(`p${at}`, id)));
        const settled = assignPins(plan, sheets, { nodes: 1500 })!;
        expect(
          findingsOf(settled.plan, sheets)
            .filter((f) => codes.has(f.code))
            .map((f) => f.id),
        ).toEqual([]);
      },
    ),
    { numRuns: runs(60) },
  );
});
