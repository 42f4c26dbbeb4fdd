import { canBeSoftwarePwm } from '../sheets/softwarePwm';
import fc from 'fast-check';
import { arbitraryEdit } from '../../tests/arbitraryEdits';
import { versionedSheets } from '../../tests/catalogue';
import { add, edited, shield, stick, wire } from '../../tests/makePlan';
import { cases, runs } from '../../tests/runs';
import { applyEdit, applyEdits, EDIT_KINDS } from './applyEdits';
import type { Edit } from './edit';
import { defaultStrap } from '../sheets/defaultStrap';
import { diffPlans } from './diffPlans';
import { editSchema } from './editSchema';
import { type Plan, splitKey } from './plan';
import { planSchema } from './planSchema';

const sheets = versionedSheets();
const boards = [stick(), shield()];

/** A plan grown by random edits; refused ones are passed over, as a client would. */
function grown(plan: Plan, edits: readonly Edit[]): Plan {
  return edits.reduce((now, edit) => {
    const result = applyEdit(now, edit, sheets);
    return result.ok ? result.plan : now;
  }, plan);
}

/** An edit of a wire, aimed at one that is there: drawn blindly it would almost always miss. */
function aimed(plan: Plan, edit: Edit, n: number): Edit {
  const keys = Object.keys(plan.wires);
  const key = keys[n % Math.max(1, keys.length)];
  const jumpered = plan.placements.find((p) => p.sheet.id === 'lcd-2004-pcf8574');
  if (edit.kind === 'strap' && jumpered) return { ...edit, placement: jumpered.id, strap: 'A1', state: n % 2 ? 'open' : 'bridged' };
  if (edit.kind === 'bench-note' && n % 2) return { ...edit, sheet: plan.board.id, fact: 'electrical/pinMilliamps' };
  if (edit.kind === 'software-pwm') {
    const able = plan.placements.flatMap(({ id, sheet }) =>
      (sheets.parts.get(sheet.id)?.sheet.terminals.list ?? [])
        .filter(canBeSoftwarePwm)
        .map((terminal) => ({ placement: id, terminal: terminal.id })),
    );
    return able.length > 0 ? { ...edit, ...able[n % able.length]! } : edit;
  }
  return key && ['lock', 'colour', 'unwire', 'wish', 'tick', 'pull', 'series', 'driver'].includes(edit.kind)
    ? ({ ...edit, ...splitKey(key) } as Edit)
    : edit;
}

describe.each(boards)('random edits on $board.id', (empty) => {
  const edit = arbitraryEdit(sheets, empty.board.id);
  // Of full length more often than not: only a plan that has grown has wires to edit.
  const edits = fc.array(edit, { minLength: 5, maxLength: 60, size: 'max' });

  test('every edit that applies is taken back exactly by its inverse', () => {
    const kinds = new Set<string>();
    fc.assert(
      fc.property(edits, edit, fc.nat(), (before, drawn, n) => {
        const plan = grown(empty, before);
        const last = aimed(plan, drawn, n);
        const result = applyEdit(plan, last, sheets);
        if (!result.ok) return;
        kinds.add(last.kind);
        expect(applyEdits(result.plan, result.inverse, sheets)).toMatchObject({ ok: true, plan });
        expect((applyEdits(result.plan, result.inverse, sheets) as { plan: Plan }).plan).toEqual(plan);
      }),
      { numRuns: Math.max(2500, runs(2500)) },
    );
    // A generator that never gets an edit through would prove nothing.
    // Those that are seldom drawn are taken back one by one in diffPlans.test.ts.
    expect(kinds.size).toBeGreaterThan(EDIT_KINDS.length * 0.8);
  });

  test('a whole history is taken back to the beginning', () => {
    fc.assert(
      fc.property(edits, (list) => {
        let plan = empty;
        const undo: (readonly Edit[])[] = [];
        for (const next of list) {
          const result = applyEdit(plan, next, sheets);
          if (!result.ok) continue;
          plan = result.plan;
          undo.push(result.inverse);
        }
        for (const inverse of undo.reverse()) plan = (applyEdits(plan, inverse, sheets) as { plan: Plan }).plan;
        expect(plan).toEqual(empty);
      }),
      { numRuns: runs(300) },
    );
  });

  test('plans and edits pass their schemas and survive JSON', () => {
    fc.assert(
      fc.property(edits, (list) => {
        const plan = grown(empty, list);
        expect(planSchema.validate(plan, { convert: false }).error).toBeUndefined();
        expect(grown(empty, JSON.parse(JSON.stringify(list)) as Edit[])).toEqual(plan);
        for (const one of list) expect(editSchema.validate(one, { convert: false }).error).toBeUndefined();
      }),
      { numRuns: runs(200) },
    );
  });

  test('a batch does what its edits do one by one, and stops where they stop', () => {
    let [whole, stopped, wired] = [0, 0, 0];
    // Mostly wires, since those that follow one another are laid at once.
    const batch = fc.array(fc.oneof({ weight: 3, arbitrary: edit.filter(({ kind }) => kind === 'wire') }, edit), {
      minLength: 20,
      maxLength: 60,
      size: 'max',
    });
    fc.assert(
      fc.property(edits, batch, fc.boolean(), (before, drawn, sift) => {
        const start = grown(empty, before);
        const list = sift ? drawn.filter((one) => applyEdit(start, one, sheets).ok) : drawn.slice(0, 6);
        let plan = start;
        let inverse: readonly Edit[] = [];
        const at = list.findIndex((one) => {
          const result = applyEdit(plan, one, sheets);
          if (!result.ok) return true;
          plan = result.plan;
          inverse = [...result.inverse, ...inverse];
          return false;
        });
        const result = applyEdits(start, list, sheets);
        const failed = list[at] && applyEdit(plan, list[at], sheets);
        expect(result).toEqual(failed ? { ...failed, at } : { ok: true, plan, inverse });
        if (result.ok) expect(JSON.stringify(result.plan)).toBe(JSON.stringify(plan));
        if (result.ok) whole += 1;
        else stopped += 1;
        if (result.ok && list.some((one, n) => one.kind === 'wire' && list[n + 1]?.kind === 'wire')) wired += 1;
      }),
      { numRuns: runs(300) },
    );
    expect(Math.min(whole, stopped, wired)).toBeGreaterThan(cases(15));
  });

  test('a batch with a bad edit leaves nothing behind and names it', () => {
    fc.assert(
      fc.property(edits, (list) => {
        const good = list.filter((_, at) => applyEdits(empty, list.slice(0, at + 1), sheets).ok);
        const result = applyEdits(empty, [...good.slice(0, 1), { kind: 'unwire', placement: 'zz', terminal: 'SDA' }], sheets);
        expect(result).toEqual({
          ok: false,
          at: Math.min(1, good.length),
          problem: { path: 'terminal', expected: 'a wired terminal', got: 'zz:SDA' },
        });
      }),
      { numRuns: runs(50) },
    );
  });
});

describe('an edit that cannot be done says where and what was expected', () => {
  const base = edited(stick(), sheets, add('oled', 'oled-096-ssd1306-i2c'), wire('oled:SDA', 'GP4'), {
    kind: 'lock',
    placement: 'oled',
    terminal: 'SDA',
    locked: true,
  });
  const refusals: readonly [Edit, string, string][] = [
    [add('oled', 'humidity-sht31'), 'placement.id', 'an unused ID'],
    [add('x', 'no-such-part'), 'placement.sheet.id', 'the ID of a part in the library'],
    [wire('oled:SDA', 'GP6'), 'terminal', 'a wire that is not locked'],
    [wire('oled:SCL', 'GP99'), 'end.pin', 'a pin of RP2040 stick, 40 pins'],
    [wire('oled:SCL', 'GP25'), 'end.pin', 'a signal pin on a header'],
    [wire('oled:SCL', 'RUN'), 'end.pin', 'a signal pin on a header'],
    [wire('oled:SCL', 'rail 12v'), 'end.rail', 'a rail of RP2040 stick, 40 pins'],
    [wire('oled:SCL', 'oled:SCL'), 'end.terminal', 'another terminal'],
    [wire('oled:SCL', 'gone:SCL'), 'end.terminal', 'a terminal of a part in this plan'],
    [wire('oled:NOPE', 'GP5'), 'terminal', 'a terminal of a part in this plan'],
    [{ kind: 'unwire', placement: 'oled', terminal: 'SDA' }, 'terminal', 'a wire that is not locked'],
    [{ kind: 'strap', placement: 'oled', strap: 'ADDR', state: 'sideways' }, 'state', 'low or high'],
    [{ kind: 'wish', placement: 'oled', terminal: 'SDA', wish: { pin: 'GP99' } }, 'wish.pin', 'a signal pin of RP2040 stick, 40 pins'],
    [
      { kind: 'wish', placement: 'oled', terminal: 'SDA', wish: { not: ['GP4', 'RUN'] } },
      'wish.not',
      'a signal pin of RP2040 stick, 40 pins',
    ],
    [{ kind: 'wish', placement: 'oled', terminal: 'SDA', wish: { pin: 'GP4', not: ['GP4'] } }, 'wish.not', 'pins other than GP4'],
    [
      { kind: 'wish', placement: 'oled', terminal: 'SDA', wish: { controller: 'i2c9' } },
      'wish.controller',
      'a controller of RP2040 stick, 40 pins',
    ],
    [{ kind: 'wish', placement: 'oled', terminal: 'GND', wish: { pin: 'GP4' } }, 'terminal', 'a terminal of this plan that needs a pin'],
    [{ kind: 'together', placement: 'gone', how: 'port' }, 'placement', 'a part of this plan'],
    [{ kind: 'switch-board', board: { id: 'no-board', version: 1 }, soldered: [] }, 'board', 'an available board sheet'],
    [{ kind: 'switch-board', board: { id: 'esp32-stick-38', version: 1 }, soldered: [] }, 'board', 'a board that has the end of oled:SDA'],
    [{ kind: 'explode' } as unknown as Edit, 'kind', EDIT_KINDS.join(', ')],
    [{ kind: '__proto__' } as unknown as Edit, 'kind', EDIT_KINDS.join(', ')],
  ];

  test.each(refusals)('%j', (bad, path, expected) => {
    expect(applyEdit(base, bad, sheets)).toMatchObject({ ok: false, problem: { path, expected } });
  });

  test('only a reset line may go to the reset of the board', () => {
    const plan = edited(stick(), sheets, add('tft', 'tft-18-st7735-spi'));
    expect(applyEdit(plan, wire('tft:RST', 'RUN'), sheets)).toMatchObject({ ok: true });
    expect(applyEdit(plan, wire('tft:RST', '3V3EN'), sheets)).toMatchObject({ ok: false });
  });

  test('a second name of a conductor is refused with its first', () => {
    const plan = edited(shield(), sheets, add('oled', 'oled-096-ssd1306-i2c'));
    expect(applyEdit(plan, wire('oled:SDA', 'SDA'), sheets)).toMatchObject({
      ok: false,
      problem: { expected: 'A4, the main position of this conductor' },
    });
  });
});

test('wires get the colours of what they carry, and keep a chosen one while they stay a signal', () => {
  const plan = edited(
    stick(),
    sheets,
    add('oled', 'oled-096-ssd1306-i2c'),
    wire('oled:GND', 'ground'),
    wire('oled:VCC', 'rail 3v3'),
    wire('oled:SCL', 'GP5'),
    wire('oled:SDA', 'GP4'),
  );
  expect(Object.values(plan.wires).map((w) => w.colour)).toEqual(['black', 'red', 'yellow', 'blue']);
  const chosen = edited(plan, sheets, { kind: 'colour', placement: 'oled', terminal: 'SDA', colour: 'violet' }, wire('oled:SDA', 'GP8'));
  expect(chosen.wires['oled:SDA']!.colour).toBe('violet');
});

test('a jumper back at its default leaves no trace', () => {
  const plan = edited(stick(), sheets, add('lcd', 'lcd-2004-pcf8574'));
  const strapped = edited(plan, sheets, { kind: 'strap', placement: 'lcd', strap: 'A0', state: 'bridged' });
  expect(strapped.placements[0]!.straps).toEqual({ A0: 'bridged' });
  expect(edited(strapped, sheets, { kind: 'strap', placement: 'lcd', strap: 'A0', state: 'open' })).toEqual(plan);
});

describe('names', () => {
  const named = (name: string) => editSchema.validate({ kind: 'rename-plan', name }, { convert: false }).error?.message;
  test.each(['Hive <script>alert(1)</script>', 'Bienenstock №1', '養蜂箱', "O'Hare & co"])('%s is a name', (name) => {
    expect(named(name)).toBeUndefined();
  });
  test.each(['', ' ', ' lead', 'x'.repeat(121), 'a\u0000b', 'line\nbreak', 'turn\u202earound'])('%j is none', (name) => {
    expect(named(name)).toMatch(/name/);
  });
});

describe.each(boards)('the difference of two random plans on $board.id', (empty) => {
  const edits = fc.array(arbitraryEdit(sheets, empty.board.id), { maxLength: 50 });

  test('turns one into the other exactly, and is empty only between equals', () => {
    fc.assert(
      fc.property(edits, edits, fc.boolean(), (a, b, related) => {
        const from = grown(empty, a);
        const to = grown(related ? from : empty, b);
        const difference = diffPlans(from, to, (part, strap) => defaultStrap(sheets, part, strap));
        expect((applyEdits(from, difference, sheets) as { plan: Plan }).plan).toEqual(to);
        if (difference.length === 0) expect(from).toEqual(to);
      }),
      { numRuns: runs(600) },
    );
  });
});
