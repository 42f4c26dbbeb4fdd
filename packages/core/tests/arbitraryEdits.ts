import fc from 'fast-check';
import type { Edit } from '../src/plan/edit';
import { BREADBOARD_ROWS, DRIVER_KINDS, newPlan, WIRE_COLOURS, type WireEnd } from '../src/plan/plan';
import { solderedParts } from '../src/plan/startPlan';
import type { Sheets } from '../src/sheets/sheetIndex';

/** Edits that often fit a small plan on the given board, and often do not. */
export function arbitraryEdit(sheets: Sheets, boardId: string): fc.Arbitrary<Edit> {
  const board = sheets.boards.get(boardId)!;
  const parts = [...sheets.parts.values()].map((p) => p.sheet);
  const placement = fc.constantFrom('a', 'b', 'c');
  const terminal = fc.constantFrom('SDA', 'SCL', 'VCC', 'GND', 'A', 'CLK', 'DT', 'VIN', 'VOUT');
  const pin = fc.constantFrom(...board.sheet.pins.list.map((p) => p.id), 'NOPE');
  const end: fc.Arbitrary<WireEnd> = fc.oneof(
    { weight: 6, arbitrary: pin.map((id): WireEnd => ({ to: 'pin', pin: id })) },
    fc.constantFrom(...board.sheet.rails.list.map((r) => r.id), 'a:VOUT', 'b:VOUT', 'nope').map((rail): WireEnd => ({ to: 'rail', rail })),
    fc.constant<WireEnd>({ to: 'ground' }),
    fc.record({ to: fc.constant('terminal' as const), placement, terminal }),
    fc.constantFrom<WireEnd>({ to: 'trimmer', ohms: 10_000 }, { to: 'divider', topOhms: 4700, bottomOhms: 680 }),
  );
  const at = fc.nat(6);
  const ref = (p: { readonly id: string; readonly version: number }) => ({ id: p.id, version: p.version });
  // Parts with jumpers, with ladders and with several versions are few, and yet must be drawn often.
  const special = parts.filter(
    (p) =>
      p.version > 1 ||
      p.id.startsWith('rgb-led') ||
      p.supplies !== undefined ||
      p.keys?.as === 'ladder' ||
      p.bus.straps?.some((s) => s.by === 'jumper' && s.id === 'A0'),
  );
  // Wires are drawn for terminals of a few names: parts that have those must be frequent, too, or hardly any wire is ever laid.
  const named = parts.filter((p) => ['SDA', 'SCL', 'VCC', 'GND'].every((id) => p.terminals.list.some((t) => t.id === id)));
  const sheet = fc.oneof(
    fc.constantFrom(...special.map(ref)),
    { weight: 2, arbitrary: fc.constantFrom(...named.map(ref)) },
    fc.constantFrom(...parts.map(ref), { id: 'no-such-part', version: 1 }),
  );
  const name = fc.constantFrom('Knob', 'Lamp <b>', 'Überwachung', '温度');
  const kinds: { readonly [K in Edit['kind']]: fc.Arbitrary<Extract<Edit, { kind: K }>> } = {
    'rename-plan': fc.record({ kind: fc.constant('rename-plan' as const), name }),
    'add-placement': fc.record(
      {
        kind: fc.constant('add-placement' as const),
        at,
        placement: fc.record({ id: placement, sheet, name, straps: fc.constantFrom<Record<string, string>>({}, { A0: 'bridged' }) }),
      },
      { requiredKeys: ['kind', 'placement'] },
    ),
    'remove-placement': fc.record({ kind: fc.constant('remove-placement' as const), placement }),
    'rename-placement': fc.record({ kind: fc.constant('rename-placement' as const), placement, name }),
    'move-placement': fc.record({ kind: fc.constant('move-placement' as const), placement, at }),
    wire: fc.record(
      { kind: fc.constant('wire' as const), placement, terminal, end, colour: fc.constantFrom(...WIRE_COLOURS) },
      { requiredKeys: ['kind', 'placement', 'terminal', 'end'] },
    ),
    unwire: fc.record({ kind: fc.constant('unwire' as const), placement, terminal }),
    'software-bus': fc.record({
      kind: fc.constant('software-bus' as const),
      bus: fc.constantFrom('softi2c1' as const, 'softspi1' as const, 'softuart2' as const),
      on: fc.boolean(),
    }),
    'software-pwm': fc.record({
      kind: fc.constant('software-pwm' as const),
      placement,
      terminal: fc.constantFrom('R', 'A', 'SIG', 'LED'),
      on: fc.boolean(),
    }),
    lock: fc.record({ kind: fc.constant('lock' as const), placement, terminal, locked: fc.boolean() }),
    colour: fc.record({ kind: fc.constant('colour' as const), placement, terminal, colour: fc.constantFrom(...WIRE_COLOURS) }),
    strap: fc.record({
      kind: fc.constant('strap' as const),
      placement,
      strap: fc.constantFrom('A0', 'A1', 'ADDR', 'AD0'),
      state: fc.constantFrom('open', 'bridged', 'low', 'high'),
    }),
    'take-sheet': fc.record({
      kind: fc.constant('take-sheet' as const),
      placement: fc.option(placement),
      version: fc.integer({ min: 1, max: 3 }),
    }),
    'switch-board': fc.constantFrom(boardId, 'round-dial-s3', 'atmega328p-5v-shield', 'rp2350-stick-40').map((id) => {
      const board = sheets.boards.get(id)!.sheet;
      const soldered = solderedParts(newPlan('plan-1', 'Test', { id, version: board.version }), board, sheets);
      return { kind: 'switch-board' as const, board: { id, version: board.version }, soldered };
    }),
    wish: fc.record({
      kind: fc.constant('wish' as const),
      placement,
      terminal,
      wish: fc.option(
        fc.oneof(
          fc.record({ pin }),
          fc.record({ not: fc.uniqueArray(pin, { minLength: 1, maxLength: 3 }) }),
          fc.record({ controller: fc.constantFrom('i2c0', 'i2c1', 'softi2c1', 'nope') }),
        ),
      ),
    }),
    together: fc.record({
      kind: fc.constant('together' as const),
      placement,
      how: fc.option(fc.constantFrom('adjacent' as const, 'port' as const)),
    }),
    'bus-settings': fc.record({
      kind: fc.constant('bus-settings' as const),
      segment: fc.constantFrom('i2c0', 'i2c1', 'softi2c1', 'nope', 'a', 'b.2'),
      settings: fc.option(fc.record({ hz: fc.constantFrom(1e5, 4e5) })),
    }),
    'cut-pull-ups': fc.record({ kind: fc.constant('cut-pull-ups' as const), placement, cut: fc.boolean() }),
    'wire-note': fc.record({
      kind: fc.constant('wire-note' as const),
      placement,
      terminal,
      note: fc.option(fc.record({ end, words: fc.constantFrom('metered', 'felt by hand'), date: fc.constant('2026-11-26') })),
    }),
    pull: fc.record({
      kind: fc.constant('pull' as const),
      placement,
      terminal,
      pull: fc.option(fc.record({ ohms: fc.constantFrom(4700, 10_000), to: fc.constantFrom('supply' as const, 'ground' as const) })),
    }),
    ladder: fc.record({
      kind: fc.constant('ladder' as const),
      placement,
      ladder: fc.option(fc.constantFrom({ pull: 10_000, row: [1000, 2200] }, { pull: 2200, row: [] })),
    }),
    step: fc.record({
      kind: fc.constant('step' as const),
      step: fc.constantFrom('strap:display-1:A0', 'light:sensor-1', 'safety:board'),
      done: fc.option(fc.constantFrom('done', 'closed')),
    }),
    built: fc.record({
      kind: fc.constant('built' as const),
      built: fc.option(
        fc.constant({
          date: '2026-11-26',
          wires: { 'display-1:SDA': { name: 'OLED SDA', end: { to: 'pin' as const, pin: 'GP4' }, to: 'GP4' } },
        }),
      ),
    }),
    load: fc.record({
      kind: fc.constant('load' as const),
      placement,
      load: fc.option(fc.constantFrom({ units: 30 }, { share: 0.5 }, { units: 8, share: 0.25 })),
    }),
    readout: fc.record({
      kind: fc.constant('readout' as const),
      placement,
      readout: fc.option(
        fc.constantFrom(
          { text: '21.5 °C' },
          { text: 'A\nB', scale: 2 },
          { picture: 'part' as const },
          { text: 'long', scroll: true as const },
          { glyphs: { ä: [0x77] } },
        ),
      ),
    }),
    reference: fc.record({
      kind: fc.constant('reference' as const),
      component: fc.tuple(placement, fc.constantFrom('series.A', 'capacitor.0', 'bus.sda')).map(([id, what]) => `${id}:${what}`),
      name: fc.constantFrom('R1', 'RV12', 'C3', null),
    }),
    breadboard: fc.record({
      kind: fc.constant('breadboard' as const),
      breadboard: fc.option(
        fc
          .record({
            rows: fc.constantFrom(...BREADBOARD_ROWS),
            boards: fc.integer({ min: 1, max: 4 }),
            rails: fc.constantFrom('whole', 'split'),
            isBeside: fc.boolean(),
          })
          .map(({ isBeside, ...one }) => ({ ...one, ...(isBeside && one.boards === 2 ? { arrangement: 'side by side' } : {}) })),
      ),
    }),
    arrange: fc.record({
      kind: fc.constant('arrange' as const),
      placement,
      place: fc.option(fc.record({ side: fc.constantFrom('left' as const, 'right' as const), at: fc.integer({ min: 0, max: 5 }) })),
    }),
    place: fc.record({
      kind: fc.constant('place' as const),
      item: fc.oneof(
        placement,
        fc.constant('board'),
        placement.map((id) => `${id}:series.A`),
      ),
      place: fc.option(
        fc.oneof(
          fc.constant({ side: 'off' as const }),
          fc.record({ side: fc.constantFrom('ae' as const, 'fj' as const), row: fc.integer({ min: 1, max: 63 }) }),
        ),
      ),
    }),
    capacitors: fc.record({ kind: fc.constant('capacitors' as const), placement, there: fc.boolean() }),
    driver: fc.record({
      kind: fc.constant('driver' as const),
      placement,
      terminal,
      driver: fc.option(fc.record({ kind: fc.constantFrom(...DRIVER_KINDS), ohms: fc.constantFrom(1000, 4700) })),
    }),
    series: fc.record({
      kind: fc.constant('series' as const),
      placement,
      terminal,
      ohms: fc.option(fc.constantFrom(33, 330, 10_000)),
    }),
    'values-on-hand': fc.record({
      kind: fc.constant('values-on-hand' as const),
      valuesOnHand: fc.constantFrom({ series: 'E6' as const }, { series: 'E12' as const }, { series: 'own' as const, own: [330, 4700] }),
    }),
    rate: fc.record({ kind: fc.constant('rate' as const), placement, perSecond: fc.option(fc.constantFrom(0, 1, 25)) }),
    radio: fc.record({ kind: fc.constant('radio' as const), on: fc.boolean() }),
    'bench-note': fc.record({
      kind: fc.constant('bench-note' as const),
      sheet: fc.constantFrom(boardId, ...special.map((p) => p.id)),
      fact: fc.constantFrom('electrical/pinMilliamps', 'electrical/pullUpOhms/max', 'supply/typicalMilliamps', 'supply', 'nowhere/x', 'id'),
      note: fc.option(
        fc.record(
          { value: fc.constantFrom(3, 90_000, 'x'), words: name, date: fc.constant('2026-11-25') },
          { requiredKeys: ['words', 'date'] },
        ),
      ),
    }),
    accept: fc.record({
      kind: fc.constant('accept' as const),
      finding: fc.constantFrom('pin-shared/shared/GP2||', 'supply-wrong/sags-low/|a|a:VCC'),
      reason: fc.option(name),
    }),
    tick: fc.record({ kind: fc.constant('tick' as const), placement, terminal, end: fc.option(end) }),
  };
  return fc.oneof(
    { weight: 4, arbitrary: kinds['add-placement'] },
    { weight: 12, arbitrary: kinds.wire },
    // Few parts have the jumper or the pull-ups that these ask for: without more of them a run may see none.
    { weight: 5, arbitrary: kinds.strap },
    { weight: 2, arbitrary: kinds['cut-pull-ups'] },
    { weight: 4, arbitrary: kinds.ladder },
    ...Object.values(kinds).map((arbitrary) => ({ weight: 1, arbitrary: arbitrary as fc.Arbitrary<Edit> })),
  );
}
