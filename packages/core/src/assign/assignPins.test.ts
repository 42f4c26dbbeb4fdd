import fc from 'fast-check';
import { shippedSheets } from '../../tests/catalogue';
import { findingsOf } from '../../tests/checkHarness';
import { add, edited, shield, stick, wire } from '../../tests/makePlan';
import { runs } from '../../tests/runs';
import type { Edit } from '../plan/edit';
import { addressesOf } from '../nets/addresses';
import { newPlan, type Plan } from '../plan/plan';
import { indexSheets } from '../sheets/sheetIndex';
import { conflictOf } from './explain';
import type { Instance } from './model/instance';
import { assignPins } from './assignPins';
import { solve } from './solve/solve';

const sheets = shippedSheets();
const partIds = [...sheets.parts.keys()];
const boards = [...sheets.boards.values()].map((b) => b.sheet);

const HARD = new Set(['pin-shared', 'pin-cannot', 'pin-reserved', 'bus-pair-illegal']);
const hard = (plan: Plan) => findingsOf(plan, sheets).filter((f) => HARD.has(f.code));
const addressesMeet = (plan: Plan) => findingsOf(plan, sheets).filter((f) => f.code === 'address-shared');

const bare = (ids: readonly string[], board = 'rp2040-stick-40'): Plan =>
  edited(
    newPlan('plan-1', 'Test', { id: board, version: sheets.boards.get(board)!.sheet.version }),
    sheets,
    ...ids.map((id, at) => add(`p${at}`, id)),
  );

test('a settled plan breaks no hard rule, on any board with any parts; what stays open is named', () => {
  fc.assert(
    fc.property(fc.constantFrom(...boards), fc.array(fc.constantFrom(...partIds), { minLength: 1, maxLength: 9 }), (board, ids) => {
      const plan = bare(ids, board.id);
      const settled = assignPins(plan, sheets, { nodes: 3000 })!;
      expect(hard(settled.plan).map((f) => f.id)).toEqual([]);
      expect(addressesMeet(settled.plan)).toEqual([]);
      expect(settled.costs.unwired).toBe(settled.open.length);
      const unwired = findingsOf(settled.plan, sheets)
        .filter((f) => f.code === 'terminal-unwired')
        .flatMap((f) => f.place.terminals ?? []);
      expect(unwired).toEqual(expect.arrayContaining([...settled.open]));
    }),
    { numRuns: runs(60) },
  );
});

test('before a multiplexer nobody is given an address that answers behind it, and nobody is left open for less', () => {
  const i2c = partIds.filter((id) => sheets.parts.get(id)!.sheet.bus.kind === 'i2c' && id !== 'multiplexer-tca9548a');
  const line = (id: string, role: string) => sheets.parts.get(id)!.sheet.terminals.list.find((t) => t.role === role)!.id;
  fc.assert(
    fc.property(
      fc.array(fc.constantFrom(...i2c), { minLength: 1, maxLength: 4 }),
      fc.array(fc.constantFrom(...i2c), { minLength: 1, maxLength: 3 }),
      (behind, before) => {
        const plan = edited(
          bare(before),
          sheets,
          add('mux', 'multiplexer-tca9548a'),
          ...behind.flatMap((id, at) => [
            add(`b${at}`, id),
            wire(`b${at}:${line(id, 'i2c.sda')}`, `mux:SD${at}`),
            wire(`b${at}:${line(id, 'i2c.scl')}`, `mux:SC${at}`),
          ]),
        );
        const settled = assignPins(plan, sheets, { nodes: 3000 })!;
        const met = findingsOf(settled.plan, sheets).filter((f) => ['address-shared', 'address-also-answers'].includes(f.code));
        expect(met.map((f) => f.id)).toEqual([]);
      },
    ),
    { numRuns: runs(30) },
  );
});

test('a part comes to a bus with a multiplexer: strapped away from what is behind it; the multiplexer away from what it would hide', () => {
  const behind = (id: string, sheet: string): Edit[] => [add(id, sheet), wire(`${id}:SDA`, 'mux:SD0'), wire(`${id}:SCL`, 'mux:SC0')];
  const mux = [add('mux', 'multiplexer-tca9548a'), wire('mux:SDA', 'GP4'), wire('mux:SCL', 'GP5')];
  const plan = edited(stick(), sheets, ...mux, ...behind('far', 'motion-mpu6050'), add('near', 'motion-mpu6050'));
  for (const freeze of [true, false]) {
    const settled = assignPins(plan, sheets, { only: 'near', freeze })!;
    expect([settled.open, settled.costs.moved]).toEqual([[], 0]);
    expect(
      addressesOf(
        settled.plan,
        settled.plan.placements.find((p) => p.id === 'near')!,
        sheets,
      ).map((a) => a.address),
    ).toEqual([0x69]);
    expect(addressesMeet(settled.plan)).toEqual([]);
  }
  // 0x70 is its own first address, and the all-call of what is behind it.
  const hidden = assignPins(edited(stick(), sheets, ...mux, ...behind('lamps', 'pwm-pca9685')), sheets)!;
  expect(addressesOf(hidden.plan, hidden.plan.placements[0]!, sheets).map((a) => a.address)).not.toContain(0x70);
  expect(hidden.costs.moved).toBe(0);
});

test('settling a settled plan moves nothing, and gives the same for the same', () => {
  fc.assert(
    fc.property(fc.array(fc.constantFrom(...partIds), { minLength: 1, maxLength: 7 }), (ids) => {
      const first = assignPins(bare(ids), sheets)!;
      expect(assignPins(bare(ids), sheets)!.edits).toEqual(first.edits);
      const again = assignPins(first.plan, sheets)!;
      expect([again.edits, again.costs.moved]).toEqual([[], 0]);
    }),
    { numRuns: runs(20) },
  );
});

test('locked wires never move; a part added to a working build moves nothing unless it must', () => {
  fc.assert(
    fc.property(
      fc.array(fc.constantFrom(...partIds), { minLength: 2, maxLength: 6 }),
      fc.constantFrom(...partIds),
      fc.nat(),
      (ids, more, n) => {
        const { plan } = assignPins(bare(ids), sheets)!;
        const keys = Object.keys(plan.wires).filter((key) => plan.wires[key]!.end.to === 'pin');
        const key = keys[n % Math.max(1, keys.length)];
        if (!key) return;
        const [placement, terminal] = key.split(':') as [string, string];
        const locked = edited(plan, sheets, { kind: 'lock', placement, terminal, locked: true }, add('more', more));
        const after = assignPins(locked, sheets)!;
        expect(after.plan.wires[key]).toEqual(locked.wires[key]);
        const moved = Object.keys(locked.wires).filter(
          (k) => JSON.stringify(after.plan.wires[k]?.end) !== JSON.stringify(locked.wires[k]!.end),
        );
        const removed = moved.filter((k) => !after.plan.wires[k]);
        expect(moved.length + removed.length).toBe(after.costs.moved);
      },
    ),
    { numRuns: runs(20) },
  );
});

test('to take a part out never makes a plan impossible', () => {
  fc.assert(
    fc.property(fc.array(fc.constantFrom(...partIds), { minLength: 2, maxLength: 9 }), fc.nat(), (ids, n) => {
      const whole = assignPins(bare(ids, 'atmega328p-5v-shield'), sheets, { nodes: 3000 })!;
      const less = assignPins(bare(ids.toSpliced(n % ids.length, 1), 'atmega328p-5v-shield'), sheets, { nodes: 3000 })!;
      if (whole.proved && less.proved) expect(less.costs.unwired).toBeLessThanOrEqual(whole.costs.unwired);
    }),
    { numRuns: runs(20) },
  );
});

describe('worked cases', () => {
  test('two fixed clocks at one address go to two controllers where the board has them, else one stays open', () => {
    const two = ['clock-ds3231-eeprom', 'clock-ds3231-eeprom'];
    const onStick = assignPins(bare(two), sheets)!;
    expect([onStick.costs.unwired, onStick.proved]).toEqual([0, true]);
    expect(onStick.plan.wires['p0:SDA']!.end).not.toEqual(onStick.plan.wires['p1:SDA']!.end);
    const onShield = assignPins(bare(two, 'atmega328p-5v-shield'), sheets)!;
    expect([onShield.costs.unwired, onShield.proved, onShield.open.length]).toEqual([2, true, 2]);
  });

  test('an address is strapped away before a second bus is opened', () => {
    const { plan } = assignPins(bare(['clock-ds3231-eeprom', 'motion-mpu6050']), sheets)!;
    expect(plan.wires['p1:AD0']!.end).toEqual({ to: 'rail', rail: '3v3' });
    expect(plan.wires['p0:SDA']!.end).toEqual(plan.wires['p1:SDA']!.end);
  });

  test('what stands in the way moves only when it must: a digital wire gives the last analog pin up', () => {
    const busy = edited(
      stick(),
      sheets,
      ...['potentiometer', 'potentiometer', 'potentiometer'].map((id, at) => add(`pot${at}`, id)),
      add('led', 'led-red-5mm'),
      wire('led:A', 'GP27'),
    );
    const settled = assignPins(busy, sheets)!;
    expect([settled.costs.unwired, settled.costs.moved]).toEqual([0, 1]);
    const pots = ['GP26', 'GP27', 'GP28'];
    const wiper = (n: number) =>
      Object.entries(settled.plan.wires).find(([key, w]) => key.startsWith(`pot${n}:`) && w.end.to === 'pin')![1].end;
    expect([0, 1, 2].map((n) => (wiper(n) as { pin: string }).pin).sort()).toEqual(pots);
    const free = assignPins(edited(busy, sheets, { kind: 'remove-placement', placement: 'pot2' }), sheets)!;
    expect(free.costs.moved).toBe(0);
  });

  test('PWM of unlike frequencies keeps to different timers, and of one channel there is one user', () => {
    const { plan, costs } = assignPins(
      bare(['servo-micro', 'buzzer-passive', 'fan-pwm-12v', 'servo-micro'], 'atmega328p-5v-shield'),
      sheets,
    )!;
    const board = sheets.boards.get('atmega328p-5v-shield')!;
    const timer = (key: string) => {
      const end = plan.wires[key]?.end;
      return end?.to === 'pin' ? board.pins.get(end.pin)!.pwm!.timer : undefined;
    };
    const timers = [timer('p0:SIG'), timer('p1:PLUS'), timer('p2:PWM')];
    expect([costs.unwired, new Set(timers).size, timers.includes(undefined)]).toEqual([0, 3, false]);
    expect(timer('p3:SIG')).toBe(timer('p0:SIG'));
  });

  test('a pin sampled at reset takes only what rests at its level', () => {
    const many = assignPins(
      bare(
        Array.from({ length: 12 }, () => 'led-red-5mm'),
        'esp8266-stick-30',
      ),
      sheets,
    )!;
    const board = sheets.boards.get('esp8266-stick-30')!;
    for (const { end } of Object.values(many.plan.wires))
      if (end.to === 'pin')
        expect(board.pins.get(end.pin)!.duties?.some((d) => d.duty === 'boot' && d.level === 'high') ?? false).toBe(false);
  });

  test('hard-wired parts stay, and others are planned around them', () => {
    const plan = shield();
    expect(assignPins(plan, sheets)!.edits).toEqual([]);
  });
});

test('with no time at all there is an answer, and it does not claim to be proved', () => {
  const settled = assignPins(bare(['oled-096-ssd1306-i2c', 'motion-mpu6050', 'led-red-5mm']), sheets, { nodes: 0 })!;
  expect([settled.proved, settled.costs.unwired > 0]).toEqual([false, true]);
  expect(settled.bound.unwired).toBe(0);
});

describe('input that no sensible plan would be', () => {
  const stickSheet = sheets.boards.get('rp2040-stick-40')!.sheet;
  const withBoard = (board: typeof stickSheet) => indexSheets([...[...sheets.parts.values()].map((p) => p.sheet), board]);

  test('a board without a signal pin: everything is open, and that is proved', () => {
    const pins = { ...stickSheet.pins, list: stickSheet.pins.list.filter((pin) => pin.kind !== 'io') };
    const bald = withBoard({ ...stickSheet, pins, onBoard: { ...stickSheet.onBoard, list: [] } });
    const settled = assignPins(bare(['oled-096-ssd1306-i2c', 'led-red-5mm']), bald)!;
    expect([settled.open, settled.proved, settled.costs.unwired]).toEqual([expect.arrayContaining(['p0:SDA', 'p1:A']), true, 3]);
  });

  test('2 000 terminals and more: the pins there are are used, and nothing is claimed that was not searched', () => {
    const many = (n: number) => bare(Array.from({ length: n }, () => 'lcd-2004-parallel'));
    const whole = assignPins(many(200), sheets, { nodes: 100 })!;
    const terminals = many(200).placements.length * 6;
    expect(whole.open.length).toBe(terminals - sheets.boards.get('rp2040-stick-40')!.ioPins.filter((p) => p.grade !== 'reserved').length);
    const conflict = conflictOf(assignPins(many(60), sheets)!.instance)!;
    expect(conflict.minimal).toBe(true);
    const beyond: Instance = {
      ...whole.instance,
      items: Array.from({ length: 3 }, (_, n) => whole.instance.items.map((item) => ({ ...item, id: `${n} ${item.id}` }))).flat(),
    };
    const solved = solve(beyond, { nodes: 100 });
    expect([solved.proved, solved.bound.unwired, solved.costs.unwired]).toEqual([false, 0, 3 * terminals - 26]);
  });

  test('locks and wishes that contradict each other: what is locked stays, wishes that cannot be are no reason to leave a pin out', () => {
    const clash = edited(
      bare(['led-red-5mm', 'led-red-5mm', 'led-red-5mm']),
      sheets,
      ...['p0', 'p1'].flatMap((id): Edit[] => [wire(`${id}:A`, 'GP4'), { kind: 'lock', placement: id, terminal: 'A', locked: true }]),
      { kind: 'wish', placement: 'p2', terminal: 'A', wish: { pin: 'GP4' } },
      { kind: 'wish', placement: 'p0', terminal: 'A', wish: { not: ['GP4'] } },
    );
    const settled = assignPins(clash, sheets)!;
    expect(settled.plan.wires['p0:A']).toEqual(clash.wires['p0:A']);
    expect(settled.plan.wires['p1:A']).toEqual(clash.wires['p1:A']);
    const everywhere = sheets.boards.get('rp2040-stick-40')!.ioPins.map((pin) => pin.id);
    const nowhere = edited(bare(['led-red-5mm']), sheets, { kind: 'wish', placement: 'p0', terminal: 'A', wish: { not: everywhere } });
    expect(assignPins(nowhere, sheets)!.open).toEqual([]);
  });
});
