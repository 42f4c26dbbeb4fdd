import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { shippedSheets } from '../../tests/catalogue';
import { add, edited, stick, wire } from '../../tests/makePlan';
import { addressesOf } from '../nets/addresses';
import { applyEdits } from '../plan/applyEdits';
import { readPlanFile } from '../plan/planFile';
import { buildList } from '../outputs/buildList';
import { wiresCsv } from '../outputs/wireTable';
import { assignPins } from '../assign/assignPins';
import { firstLights } from './firstLight';
import { compareScan, likeliestBus, scanConclusion, scannedBuses } from './reconcile';
import { readScan, type Scan, SCAN_LENGTH } from './scan';
import { foundEdits, verifiedOf } from './verified';

const sheets = shippedSheets();
const scanOf = (text: string): Scan => {
  const read = readScan(text);
  if (!read.ok) throw new Error(read.fault);
  return read.scan;
};

/** A grid as scanners of operating systems print it. */
function grid(addresses: readonly number[]): string {
  const rows = Array.from({ length: 8 }, (_, row) => {
    const cells = Array.from({ length: 16 }, (_unused, column) => {
      const at = row * 16 + column;
      if (at < 8 || at > 0x77) return '  ';
      return addresses.includes(at) ? at.toString(16).padStart(2, '0') : '--';
    });
    return `${row}0: ${cells.join(' ')}`.trimEnd();
  });
  return ['     0  1  2  3  4  5  6  7  8  9  a  b  c  d  e  f', ...rows].join('\n');
}

describe('a scan result is read', () => {
  const some = fc.uniqueArray(fc.integer({ min: 8, max: 0x77 }), { maxLength: 12 }).map((list) => list.sort((a, b) => a - b));
  const hex = (n: number, prefix = '0x') => `${prefix}${n.toString(16).padStart(2, '0')}`;

  test('in every shape that scanners print, 7- and 8-bit, whatever answered', () => {
    fc.assert(
      fc.property(some, (list) => {
        expect(scanOf(grid(list)).addresses).toEqual(list);
        // A grid that was pasted without its runs of blanks.
        expect(scanOf(grid(list).replace(/ +/g, ' ')).addresses).toEqual(list);
        const lines = list.map((a) => `I2C device found at address ${hex(a).replace('x', 'X').toUpperCase().replace('0X', '0x')}  !`);
        expect(scanOf(['Scanning...', ...lines, list.length === 0 ? 'No I2C devices found' : 'done'].join('\r\n')).addresses).toEqual(list);
        expect(scanOf(`i2c.scan()\n[${list.join(', ')}]`).addresses).toEqual(list);
        expect(scanOf(`[${list.map((a) => hex(a)).join(', ')}]`).addresses).toEqual(list);
        if (list.length > 0) expect(scanOf(list.join('\n')).addresses).toEqual(list);
        if (list.some((a) => a * 2 > 0x77)) {
          const eight = scanOf(list.map((a) => hex(a * 2)).join(' '));
          expect([eight.addresses, eight.eightBit]).toEqual([list, true]);
        }
      }),
    );
  });

  test('what something else holds is told apart; what is no address is shown', () => {
    const held = grid([0x3c]).replace(/^(60:(?: --){8}) --/m, '$1 UU');
    expect(scanOf(held)).toMatchObject({ addresses: [0x3c], held: [0x68], form: 'grid' });
    expect(scanOf('0x3C 0x123 0x00')).toMatchObject({ addresses: [0x3c], unread: ['0x123', '0x0'] });
    expect(scanOf('3C 68')).toMatchObject({ addresses: [0x3c, 0x68], form: 'bare-hex' });
    expect(scanOf('Found address: 60 (decimal)').addresses).toEqual([60]);
  });

  test('hostile, empty and truncated text: a sentence, or what is there; never an exception', () => {
    expect(readScan('')).toEqual({ ok: false, fault: 'Nothing to read yet.' });
    expect(readScan('x'.repeat(SCAN_LENGTH + 1))).toMatchObject({ ok: false, fault: expect.stringContaining('limit is 20000') as string });
    expect(readScan('<script>alert(1)</script>')).toMatchObject({
      ok: false,
      fault: expect.stringContaining('No addresses found') as string,
    });
    // Cut in the middle of a row: what was there is read.
    expect(scanOf(grid([0x20, 0x3c]).slice(0, 200)).addresses).toEqual([0x20]);
    fc.assert(fc.property(fc.string({ unit: 'binary', maxLength: 300 }), (text) => void readScan(text)));
    fc.assert(
      fc.property(
        fc.string({ unit: fc.constantFrom('0', 'x', '3', 'C', ':', ' ', '\n', '[', ',', '-', 'U'), maxLength: 200 }),
        (text) => void readScan(text),
      ),
    );
  });
});

describe('against the plan', () => {
  const plan = edited(
    stick(),
    sheets,
    add('glass', 'oled-096-ssd1306-i2c', 'Glass'),
    add('light', 'light-bh1750', 'Light'),
    ...['glass', 'light'].flatMap((id) => [wire(`${id}:SDA`, 'GP4'), wire(`${id}:SCL`, 'GP5')]),
  );
  const [bus] = scannedBuses(plan, sheets);
  const compared = (addresses: readonly number[], p = plan) => compareScan(p, sheets, scannedBuses(p, sheets)[0]!, { addresses, held: [] });

  test('found, missing, and found but not planned with who it could be', () => {
    const [glass, light] = ['glass', 'light'].map(
      (id) =>
        addressesOf(
          plan,
          plan.placements.find((p) => p.id === id)!,
          sheets,
        )[0]!.address,
    );
    expect(compared([glass!, light!]).map((line) => line.is)).toEqual(['as-planned', 'as-planned']);
    const other = compared([glass!, 0x5c]);
    expect(other.map((line) => [line.is, line.address])).toEqual(
      [
        ['missing', light],
        ['as-planned', glass],
        ['extra', 0x5c],
      ].sort((a, b) => (a[1] as number) - (b[1] as number)),
    );
    const extra = other.find((line) => line.is === 'extra')!;
    expect(extra.is === 'extra' && extra.parts).toContain('light-bh1750');
  });

  test('what was found elsewhere is taken into the plan by its straps, and then is as planned', () => {
    const extra = compared([0x3c, 0x5c]).find((line) => line.is === 'extra')!;
    if (extra.is !== 'extra') throw new Error('expected an extra');
    const [remedy] = extra.remedies;
    expect(remedy).toMatchObject({ placement: 'light', address: 0x5c });
    const after = edited(plan, sheets, ...remedy!.edits);
    expect(compared([0x3c, 0x5c], after).every((line) => line.is === 'as-planned')).toBe(true);
  });

  test.each([
    ['lcd-1602-pcf8574a', 0x27, 'lcd-1602-pcf8574'],
    ['lcd-2004-pcf8574', 0x3f, 'lcd-2004-pcf8574a'],
    ['compass-hmc5883l', 0x0d, 'compass-qmc5883l'],
  ])('%s planned, %d found: the module is the other one, %s, and every wire stays', (planned, found, other) => {
    const wrong = edited(stick(), sheets, add('m', planned, 'Module'), wire('m:SDA', 'GP4'), wire('m:SCL', 'GP5'));
    const extra = compared([found], wrong).find((line) => line.is === 'extra')!;
    if (extra.is !== 'extra') throw new Error('expected an extra');
    expect(extra.remedies).toMatchObject([{ placement: 'm', address: found, part: other }]);
    const after = edited(wrong, sheets, ...extra.remedies[0]!.edits);
    expect(after.wires).toEqual(wrong.wires);
    expect(compared([found], after).every((line) => line.is === 'as-planned')).toBe(true);
  });

  test('a scan as a whole: nothing responds, or everything does because the data line is held low', () => {
    const every = Array.from({ length: 0x70 }, (_, n) => n + 8);
    const concluded = (addresses: readonly number[], p = plan) => scanConclusion(compared(addresses, p), addresses);
    expect(concluded([])).toBe('none-responds');
    expect(concluded(every)).toBe('all-respond');
    // One that is there, or a module that was not planned, is no dead bus.
    expect([concluded([0x3c]), concluded([0x50])]).toEqual([undefined, undefined]);
  });

  test('twice an address that is missing is its 8-bit form; two parts at one address are told as one', () => {
    const twice = compared([0x46]).find((line) => line.is === 'extra');
    expect(twice).toMatchObject({ twice: 0x23 });
    const two = edited(plan, sheets, add('glass2', 'oled-096-ssd1306-i2c', 'Second'), wire('glass2:SDA', 'GP4'), wire('glass2:SCL', 'GP5'));
    expect(compared([0x3c, 0x23], two).find((line) => line.address === 0x3c)).toMatchObject({
      is: 'as-one',
      who: [{ placement: 'glass' }, { placement: 'glass2' }],
    });
  });

  test('what lies behind a channel is not called missing', () => {
    const mux = edited(
      stick(),
      sheets,
      add('mux', 'multiplexer-tca9548a', 'Mux'),
      add('light', 'light-bh1750', 'Light'),
      wire('mux:SDA', 'GP4'),
      wire('mux:SCL', 'GP5'),
      wire('light:SDA', 'mux:SD0'),
      wire('light:SCL', 'mux:SC0'),
    );
    expect(compared([0x70], mux).map((line) => [line.is, line.address])).toEqual([
      ['behind', 0x23],
      ['as-planned', 0x70],
    ]);
  });

  test('the likeliest bus is the one whose parts answered', () => {
    const two = edited(plan, sheets, add('clock', 'clock-ds3231-mini', 'Clock'), wire('clock:SDA', 'GP6'), wire('clock:SCL', 'GP7'));
    expect(likeliestBus(two, sheets, scanOf('[104]'))).toBe('i2c1');
    expect(likeliestBus(two, sheets, scanOf('[60, 35]'))).toBe(bus!.controller);
  });

  test('what was found is kept, and no longer counts once the plan has another address', () => {
    expect(verifiedOf(plan, sheets)).toEqual({ parts: 2, verified: 0, wires: 4, sure: 0 });
    const kept = edited(plan, sheets, ...foundEdits(plan, compared([0x3c, 0x23])));
    expect(verifiedOf(kept, sheets)).toMatchObject({ parts: 2, verified: 2 });
    expect(foundEdits(kept, compared([0x3c, 0x23], kept))).toEqual([]);
    const moved = edited(kept, sheets, wire('light:ADDR', 'rail 3v3'));
    expect(verifiedOf(moved, sheets)).toMatchObject({ parts: 2, verified: 1 });
  });
});

test('a note that a wire was found in its place holds until the wire is moved, and stands in the tables', () => {
  const note = { end: { to: 'pin', pin: 'GP4' }, words: 'metered, power off', date: '2026-11-26' } as const;
  const plan = edited(stick(), sheets, add('oled', 'oled-096-ssd1306-i2c', 'OLED'), wire('oled:SDA', 'GP4'), wire('oled:SCL', 'GP5'));
  const noted = edited(plan, sheets, { kind: 'wire-note', placement: 'oled', terminal: 'SDA', note });
  expect(verifiedOf(noted, sheets)).toMatchObject({ wires: 2, sure: 1 });
  expect(wiresCsv(noted, sheets)).toMatch(/^OLED,SDA,.*,"?2026-11-26: metered, power off"?\r?$/m);
  const moved = edited(noted, sheets, wire('oled:SDA', 'GP8'));
  expect(verifiedOf(moved, sheets)).toMatchObject({ wires: 2, sure: 0 });
  expect(wiresCsv(moved, sheets)).not.toContain('metered');
  const line = buildList(moved, sheets)!.signals.find((one) => one.key === 'oled:SDA')!;
  expect([line.note, line.noteHolds]).toEqual([note, false]);
  // It goes with its part, and comes back with it.
  const gone = applyEdits(noted, [{ kind: 'remove-placement', placement: 'oled' }], sheets);
  if (!gone.ok) throw new Error('not removed');
  expect(gone.plan.wireNotes).toEqual({});
  expect(edited(gone.plan, sheets, ...gone.inverse).wireNotes).toEqual(noted.wireNotes);
});

test('the first-light list says what to see and ranks what this plan has against it before what is usual', () => {
  const read = readPlanFile(JSON.parse(readFileSync(join(__dirname, '../../../../demo/plans/hive-watch.json'), 'utf8')));
  if (!read.ok) throw new Error(read.fault);
  const hive = read.file.plan;
  const lights = firstLights(hive, sheets);
  expect(lights.map((one) => one.placement)).toEqual(hive.placements.map((p) => p.id));
  for (const { see, causes } of lights) {
    expect(see.length).toBeGreaterThan(10);
    const weights = causes.map((c) => c.weight);
    expect(weights).toEqual(weights.toSorted((a, b) => b - a));
  }
  // Both parts of the address clash have it first.
  const clock = lights.find((one) => one.causes[0]?.words.includes('0x68'));
  expect(clock).toBeDefined();
  const settled = assignPins(hive, sheets)!.plan;
  const lcd = firstLights(settled, sheets).find((one) => one.see.startsWith('Backlight'))!;
  expect(lcd.causes.map((c) => c.words).join('; ')).toMatch(/contrast.*without one of its two supplies/);
  // Once building has begun, what is not ticked comes first.
  const begun = edited(settled, sheets, {
    kind: 'tick',
    placement: lcd.placement,
    terminal: 'GND',
    end: settled.wires[`${lcd.placement}:GND`]!.end,
  });
  expect(firstLights(begun, sheets).find((one) => one.placement === lcd.placement)!.causes[0]!.words).toMatch(
    /not marked done on the build sheet/,
  );
});
